import { sql, type SQL } from 'drizzle-orm';
import type { LoadDetail, LoadShare, LoadSummary } from '@hand-relay/contract';
import { fillOf, palletsOf, type Pallet, type Share, type Vehicle } from '@hand-relay/core/deciding/loads';
import { iso, notFound, recordset, rows, type Db, type Tx } from '../../platform/index.ts';

export interface LoadRow extends Omit<LoadSummary, 'fill' | 'orders' | 'units' | 'released'> {
  departureId: string | null;
  lengthMm: number;
  widthMm: number;
  heightMm: number;
  floorPlaces: number;
  maxLoadG: number;
}

/** Orders as shares of a load: what they ask and has not shipped. */
export type ShareRow = Omit<LoadShare, 'pallets' | 'fits'> & Share & { load: string | null };

export const vehicleOf = (row: Omit<LoadRow, keyof LoadSummary | 'departureId'>): Vehicle => ({
  inside: [row.lengthMm, row.widthMm, row.heightMm],
  floorPlaces: row.floorPlaces,
  maxLoadG: row.maxLoadG,
});

/** Where no pallet is in the books, floor places are those of a pallet of 1200 × 800 mm (ISO 6780). */
const USUAL: Pallet = { lengthMm: 1200, widthMm: 800, heightMm: 144, maxHeightMm: 1800, maxLoadG: 1_000_000 };

/** The smallest pallet of the house: floor places are counted in it. */
export async function palletOf(on: Db | Tx): Promise<Pallet> {
  const [pallet] = await rows<Pallet>(
    on,
    sql`select length_mm as "lengthMm", width_mm as "widthMm", height_mm as "heightMm", max_height_mm as "maxHeightMm", max_load_g as "maxLoadG"
        from pallet_type where not retired order by length_mm * width_mm, name limit 1`,
  );
  return pallet ?? USUAL;
}

export function loadRows(on: Db | Tx, siteId: string, which: SQL): Promise<LoadRow[]> {
  return rows<LoadRow>(
    on,
    sql`
    select d.id, d.number, d.state, v.name as vehicle, p.name as departure, d.departure_id as "departureId",
           ${iso(sql`d.leaves_at`)} as "leavesAt", door.code as door, d.note, v.length_mm as "lengthMm", v.width_mm as "widthMm",
           v.height_mm as "heightMm", v.floor_places as "floorPlaces", v.max_load_g as "maxLoadG", (
             select coalesce(jsonb_agg(distinct x.wave_id), '[]') from load_order lo join order_line l on l.order_id = lo.order_id
             join wave_line x on x.line_id = l.id join wave w on w.id = x.wave_id and w.state in ('planned', 'started') where lo.load_id = d.id
           ) as waves
    from load d join vehicle_type v on v.id = d.vehicle_id left join departure p on p.id = d.departure_id
    left join place door on door.id = d.door_id
    where d.site_id = ${siteId} and ${which} order by d.leaves_at nulls last, d.number`,
  );
}

export function shareRows(on: Db | Tx, siteId: string, which: SQL): Promise<ShareRow[]> {
  const [l, w, h] = [sql`i.length_mm`, sql`i.width_mm`, sql`i.height_mm`];
  return rows<ShareRow>(
    on,
    sql`
    select o.id, o.number, c.name as customer, o.ship_city as city, o.due::text as due, dep.name as departure,
           ${iso(sql`o.leaves_at`)} as "leavesAt", lo.load_id as load,
           sum(n.units)::int as units, sum(greatest(n.released, 0))::int as released,
           sum(n.units::bigint * i.weight_g)::float8 as "weightG",
           sum(n.units * (${l}::float8 * ${w} * ${h} / 1000)) as "volumeCm3",
           array[max(greatest(${l}, ${w}, ${h})), max(${l} + ${w} + ${h} - greatest(${l}, ${w}, ${h}) - least(${l}, ${w}, ${h})),
                 max(least(${l}, ${w}, ${h}))] as largest
    from customer_order o join customer c on c.id = o.customer_id
    join lateral (
      select item_id, asked - cancelled - shipped as units, released - shipped as released from order_line where order_id = o.id
    ) n on n.units > 0 join item i on i.id = n.item_id
    left join departure dep on dep.id = o.departure_id left join load_order lo on lo.order_id = o.id
    where o.site_id = ${siteId} and ${which}
    group by o.id, c.name, dep.name, lo.load_id order by o.leaves_at nulls last, o.priority, o.number`,
  );
}

const asShare = ({ load: _, largest: __, ...row }: ShareRow, pallet: Pallet, fits: boolean): LoadShare => ({
  ...row,
  pallets: palletsOf({ ...row, largest: [0, 0, 0] }, pallet),
  fits,
});

function summary(row: LoadRow, shares: readonly ShareRow[], pallet: Pallet): LoadSummary {
  const { id, number, state, vehicle, departure, leavesAt, door, note, waves } = row;
  return {
    ...{ id, number, state, vehicle, departure, leavesAt, door, note, waves },
    orders: shares.length,
    units: shares.reduce((n, s) => n + s.units, 0),
    released: shares.reduce((n, s) => n + s.released, 0),
    fill: fillOf(vehicleOf(row), pallet, shares),
  };
}

/** Planned loads with their fill, and the vehicles that a load can be planned for. */
export async function listLoads(on: Db | Tx, siteId: string) {
  const loads = await loadRows(on, siteId, sql`d.state = 'planned'`);
  const inside = await shareRows(
    on,
    siteId,
    sql`lo.load_id in (select jsonb_array_elements_text(${recordset(loads.map((d) => d.id))}))`,
  );
  const pallet = await palletOf(on);
  return {
    loads: loads.map((load) =>
      summary(
        load,
        inside.filter((s) => s.load === load.id),
        pallet,
      ),
    ),
    vehicles: await rows<{
      name: string;
      lengthMm: number;
      widthMm: number;
      heightMm: number;
      floorPlaces: number;
      maxLoadG: number;
    }>(
      on,
      sql`select name, length_mm as "lengthMm", width_mm as "widthMm", height_mm as "heightMm", floor_places as "floorPlaces",
                 max_load_g as "maxLoadG" from vehicle_type where not retired order by max_load_g, name`,
    ),
  };
}

export async function oneLoad(on: Db | Tx, siteId: string, id: string): Promise<LoadDetail> {
  const [load] = await loadRows(on, siteId, sql`d.id = ${id}`);
  if (!load) throw notFound('load', id);
  const pallet = await palletOf(on);
  const shares = await shareRows(on, siteId, sql`lo.load_id = ${id}`);
  return { ...summary(load, shares, pallet), shares: shares.map((s) => asShare(s, pallet, true)) };
}

/** Most candidates that a load is offered. */
const MOST = 500;

/** Open orders in no load that leave with the load's departure, or on its day, or at any time where it has neither. */
export async function candidatesOf(on: Db | Tx, siteId: string, id: string): Promise<{ shares: LoadShare[] }> {
  const [load] = await loadRows(on, siteId, sql`d.id = ${id}`);
  if (!load) throw notFound('load', id);
  const pallet = await palletOf(on);
  const inside = await shareRows(on, siteId, sql`lo.load_id = ${id}`);
  const ofDeparture = load.departureId === null ? sql`true` : sql`o.departure_id = ${load.departureId}`;
  const inTime = load.leavesAt === null ? sql`true` : sql`(o.leaves_at is null or o.leaves_at <= ${load.leavesAt})`;
  const open = await shareRows(
    on,
    siteId,
    sql`lo.load_id is null and o.status = 'open' and ${ofDeparture} and ${inTime}
        and o.id in (select id from customer_order where site_id = ${siteId} and status = 'open' order by due, id limit 5000)`,
  );
  const vehicle = vehicleOf(load);
  return {
    shares: open
      .slice(0, MOST)
      .map((s) => asShare(s, pallet, fillOf(vehicle, pallet, [...inside, s]).over.length === 0)),
  };
}
