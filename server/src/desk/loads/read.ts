import { sql, type SQL } from 'drizzle-orm';
import type { LoadDetail, LoadLeft, LoadShare, LoadSummary } from '@hand-relay/contract';
import { daysBetween, localDate } from '@hand-relay/core/calendar';
import { fillOf, numberStops, palletsOf, type Pallet, type Share, type Vehicle } from '@hand-relay/core/deciding/loads';
import { anyOf, iso, notFound, rows, type Db, type Tx } from '../../platform/index.ts';

type Counted = 'fill' | 'orders' | 'stops' | 'units' | 'released' | 'picked' | 'packed' | 'shipped';

export interface LoadRow extends Omit<LoadSummary, Counted> {
  timeZone: string;
  departureId: string | null;
  lengthMm: number;
  widthMm: number;
  heightMm: number;
  floorPlaces: number;
  maxLoadG: number;
}

/** Orders as shares of a load: what they ask and has not shipped. */
export type ShareRow = Omit<LoadShare, 'pallets' | 'fits' | 'early'> & Share & { load: string | null };

/** Shipments that left on a load, as shares of it. */
export type LeftRow = LoadLeft & Share & { load: string; at: string };

export const vehicleOf = (row: Omit<LoadRow, keyof LoadSummary | 'departureId' | 'timeZone'>): Vehicle => ({
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

export function loadRows(
  on: Db | Tx,
  siteId: string,
  which: SQL,
  order: SQL = sql`d.leaves_at nulls last, d.number`,
): Promise<LoadRow[]> {
  return rows<LoadRow>(
    on,
    sql`
    select d.id, d.number, d.state, v.name as vehicle, p.name as departure, d.departure_id as "departureId",
           ${iso(sql`d.leaves_at`)} as "leavesAt", door.code as door, d.note, ${iso(sql`d.ended_at`)} as "endedAt", e.name as "endedBy",
           s.time_zone as "timeZone", v.length_mm as "lengthMm", v.width_mm as "widthMm",
           v.height_mm as "heightMm", v.floor_places as "floorPlaces", v.max_load_g as "maxLoadG", (
             select coalesce(jsonb_agg(distinct x.wave_id), '[]') from load_order lo join order_line l on l.order_id = lo.order_id
             join wave_line x on x.line_id = l.id join wave w on w.id = x.wave_id and w.state in ('planned', 'started') where lo.load_id = d.id
           ) as waves
    from load d join site s on s.id = d.site_id join vehicle_type v on v.id = d.vehicle_id left join departure p on p.id = d.departure_id
    left join place door on door.id = d.door_id left join person e on e.id = d.ended_by
    where d.site_id = ${siteId} and ${which} order by ${order}`,
  );
}

const [l, w, h] = [sql`i.length_mm`, sql`i.width_mm`, sql`i.height_mm`];
/** Room of items in cm³, and the sides of the largest of them, the longest first. */
const roomOf = (count: SQL) => sql`
  sum(${count} * (${l}::float8 * ${w} * ${h} / 1000)) as "volumeCm3",
  array[max(greatest(${l}, ${w}, ${h})), max(${l} + ${w} + ${h} - greatest(${l}, ${w}, ${h}) - least(${l}, ${w}, ${h})),
        max(least(${l}, ${w}, ${h}))] as largest`;

export function shareRows(on: Db | Tx, siteId: string, which: SQL): Promise<ShareRow[]> {
  return rows<ShareRow>(
    on,
    sql`
    select o.id, o.number, c.name as customer, o.ship_street as street, o.ship_postcode as postcode, o.ship_city as city,
           o.ship_country as country, o.due::text as due, dep.name as departure, ${iso(sql`o.leaves_at`)} as "leavesAt",
           lo.load_id as load, lo.stop, sum(n.units)::int as units, sum(greatest(n.released, 0))::int as released,
           sum(n.picked)::int as picked, sum(n.packed)::int as packed, sum(n.units::bigint * i.weight_g)::float8 as "weightG",
           ${roomOf(sql`n.units`)}
    from customer_order o join customer c on c.id = o.customer_id
    join lateral (
      select item_id, asked - cancelled - shipped as units, released - shipped as released, picked - shipped as picked,
             packed - shipped as packed
      from order_line where order_id = o.id
    ) n on n.units > 0 join item i on i.id = n.item_id
    left join departure dep on dep.id = o.departure_id left join load_order lo on lo.order_id = o.id
    where o.site_id = ${siteId} and ${which}
    group by o.id, c.name, dep.name, lo.load_id, lo.stop order by lo.stop, o.leaves_at nulls last, o.priority, o.number`,
  );
}

/** What left on loads, in the order in which it was confirmed. */
export function leftRows(on: Db | Tx, loads: readonly string[]): Promise<LeftRow[]> {
  return rows<LeftRow>(
    on,
    sql`
    select s.id as shipment, s.number, o.id as "order", o.number as "orderNumber", c.name as customer, o.ship_city as city,
           s.load_id as load, ${iso(sql`s.confirmed_at`)} as "confirmedAt", s.tracking, sum(x.units)::int as units,
           (select count(*)::int from carton k where k.shipment_id = s.id) as cartons,
           coalesce((select sum(k.weight_g) from carton k where k.shipment_id = s.id), sum(x.units::bigint * i.weight_g))::float8 as "weightG",
           concat_ws('|', o.ship_country, o.ship_postcode, o.ship_city, o.ship_street) as at, ${roomOf(sql`x.units`)}
    from shipment s join customer_order o on o.id = s.order_id join customer c on c.id = o.customer_id
    join shipment_line x on x.shipment_id = s.id and x.units > 0 join order_line y on y.id = x.line_id join item i on i.id = y.item_id
    where s.load_id = ${anyOf(loads)} group by s.id, o.id, c.name order by s.confirmed_at, s.number`,
  );
}

/** Days that a load leaves before the day on which an order is due; 0 where no time of it is known. */
const earlyOf = ({ leavesAt, timeZone }: LoadRow, due: string) =>
  leavesAt === null ? 0 : daysBetween(localDate(Date.parse(leavesAt), timeZone), due);

const asShare = (load: LoadRow, { load: _, largest, ...row }: ShareRow, pallet: Pallet, fits: boolean): LoadShare => ({
  ...row,
  pallets: palletsOf({ ...row, largest }, pallet),
  fits,
  early: earlyOf(load, row.due),
});

/** The stops of a load's orders, 1 for the first that is delivered. */
export const stopsOf = (shares: readonly ShareRow[]) =>
  numberStops(shares.map((share) => ({ address: share, stop: share.stop })));

function summary(row: LoadRow, shares: readonly ShareRow[], left: readonly LeftRow[], pallet: Pallet): LoadSummary {
  const { id, number, state, vehicle, departure, leavesAt, door, note, waves, endedAt, endedBy } = row;
  const open = (of: 'units' | 'released' | 'picked' | 'packed') => shares.reduce((n, s) => n + s[of], 0);
  const shipped = left.reduce((n, s) => n + s.units, 0);
  return {
    ...{ id, number, state, vehicle, departure, leavesAt, door, note, waves, endedAt, endedBy },
    orders: new Set([...shares.map((s) => s.id), ...left.map((s) => s.order)]).size,
    stops: shares.length > 0 ? Math.max(...stopsOf(shares)) : new Set(left.map((s) => s.at)).size,
    units: open('units') + shipped,
    released: open('released') + shipped,
    picked: open('picked') + shipped,
    packed: open('packed') + shipped,
    shipped,
    fill: fillOf(vehicleOf(row), pallet, [...shares, ...left]),
  };
}

/** Loads that left which a list shows at most. */
const MOST_LEFT = 200;

/** Loads with their fill and how far they are, and the vehicles that a load can be planned for. */
export async function listLoads(on: Db | Tx, siteId: string, state: 'planned' | 'left') {
  const loads =
    state === 'planned'
      ? await loadRows(on, siteId, sql`d.state = 'planned'`)
      : await loadRows(
          on,
          siteId,
          sql`d.id in (select id from load where site_id = ${siteId} and state = 'left' order by ended_at desc limit ${MOST_LEFT})`,
          sql`d.ended_at desc, d.number desc`,
        );
  const ids = loads.map((d) => d.id);
  const inside = await shareRows(on, siteId, sql`lo.load_id = ${anyOf(ids)}`);
  const left = await leftRows(on, ids);
  const pallet = await palletOf(on);
  return {
    loads: loads.map((load) =>
      summary(
        load,
        inside.filter((s) => s.load === load.id),
        left.filter((s) => s.load === load.id),
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
  const left = await leftRows(on, [id]);
  const stops = stopsOf(shares);
  return {
    ...summary(load, shares, left, pallet),
    shares: shares
      .map((s, i) => ({ ...asShare(load, s, pallet, true), stop: stops[i]! }))
      .sort((a, b) => a.stop - b.stop),
    left: left.map(({ load: _, at: __, largest: ___, volumeCm3: ____, ...s }) => s),
  };
}

/** Most candidates that a load is offered. */
const MOST = 500;

/** Open orders in no load that leave with the load's departure, or on its day, or at any time where it has neither. */
export async function candidatesOf(on: Db | Tx, siteId: string, id: string): Promise<{ shares: LoadShare[] }> {
  const [load] = await loadRows(on, siteId, sql`d.id = ${id}`);
  if (!load) throw notFound('load', id);
  const pallet = await palletOf(on);
  const inside = [...(await shareRows(on, siteId, sql`lo.load_id = ${id}`)), ...(await leftRows(on, [id]))];
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
      .map((s) => asShare(load, s, pallet, fillOf(vehicle, pallet, [...inside, s]).over.length === 0)),
  };
}
