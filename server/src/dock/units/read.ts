import { sql } from 'drizzle-orm';
import type { PalletDetail, PalletList } from '@hand-relay/contract';
import { centreOfGravity, layersOf, type StackedUnit } from '@hand-relay/core/stacking/palletising';
import { anyOf, iso, notFound, rows, type Db, type Tx } from '../../platform/index.ts';
import { cartonUnits, unitsOn, type Unit } from './units.ts';

/** Hours that a pallet which left stays in the list. */
const LEFT_H = 24;

/** Cartons that stand on no pallet, by what they leave with; and the pallets that there are, the newest first. */
export async function palletList(db: Db, siteId: string, now: Date): Promise<PalletList> {
  const types = await rows<PalletList['types'][number]>(
    db,
    sql`select id, name from pallet_type where not retired order by name`,
  );
  const groups = await rows<PalletList['groups'][number]>(
    db,
    sql`
    select case when g.name is not null then jsonb_build_object('name', g.name, 'leavesAt', ${iso(sql`g.leaves_at`)}) end as departure,
           jsonb_agg(jsonb_build_object('id', g.id, 'number', g.number, 'customer', g.customer, 'cartons', g.cartons, 'weightG', g.weight)
             order by g.number) as orders
    from (
      select d.name, o.leaves_at, o.id, o.number, m.name as customer, count(*)::int as cartons, sum(c.weight_g)::float8 as weight
      from carton c join customer_order o on o.id = c.order_id join customer m on m.id = o.customer_id left join departure d on d.id = o.departure_id
      left join run r on r.id = c.run_id
      where c.site_id = ${siteId} and c.state = 'closed' and c.pallet_id is null and r.state is distinct from 'picking' group by d.name, o.id, m.name
    ) g group by g.name, g.leaves_at order by g.leaves_at nulls last, g.name`,
  );
  const since = new Date(now.getTime() - LEFT_H * 3_600_000).toISOString();
  const pallets = await rows<PalletList['pallets'][number]>(
    db,
    sql`
    select p.id, p.number, t.name as type, p.state, p.sscc, jsonb_array_length(p.plan->'units') as planned, u.number as outer,
           (coalesce(g.cartons, 0) + (select count(*) from pallet q where q.outer_id = p.id))::int as units,
           coalesce(p.weight_g, t.tare_g + coalesce(g.weight, 0))::float8 as "weightG", coalesce(g.customers, '[]') as customers,
           case when g.departure is not null then jsonb_build_object('name', g.departure, 'leavesAt', ${iso(sql`g.leaves`)}) end as departure
    from pallet p join pallet_type t on t.id = p.type_id left join pallet u on u.id = p.outer_id
    left join lateral (
      select count(*) as cartons, sum(c.weight_g) as weight, min(d.name) as departure, min(o.leaves_at) as leaves, jsonb_agg(distinct m.name) as customers
      from carton c join customer_order o on o.id = c.order_id join customer m on m.id = o.customer_id left join departure d on d.id = o.departure_id
      where c.pallet_id = p.id
    ) g on true
    where p.site_id = ${siteId} and (p.state <> 'shipped' or p.closed_at > ${since}::timestamptz) order by p.number desc`,
  );
  return { types, groups, pallets };
}

/** A pallet as its tables have it. */
export interface PalletRow {
  id: string;
  number: string;
  state: 'open' | 'closed' | 'shipped';
  sscc: string | null;
  weightG: number | null;
  plan: { units: StackedUnit[]; pallets: number; bound: number };
  type: string;
  lengthMm: number;
  widthMm: number;
  heightMm: number;
  tareG: number;
  maxHeightMm: number;
  maxLoadG: number;
  outer: { id: string; number: string; state: 'open' | 'closed' | 'shipped' } | null;
}

/** @throws Refusal 404 */
export async function palletRow(on: Db | Tx, siteId: string, id: string): Promise<PalletRow> {
  const [row] = await rows<PalletRow>(
    on,
    sql`
    select p.id, p.number, p.state, p.sscc, p.weight_g::float8 as "weightG", p.plan, t.name as type, t.length_mm as "lengthMm", t.width_mm as "widthMm",
           t.height_mm as "heightMm", t.tare_g as "tareG", t.max_height_mm as "maxHeightMm", t.max_load_g as "maxLoadG",
           case when u.id is not null then jsonb_build_object('id', u.id, 'number', u.number, 'state', u.state) end as outer
    from pallet p join pallet_type t on t.id = p.type_id left join pallet u on u.id = p.outer_id where p.id = ${id} and p.site_id = ${siteId}`,
  );
  if (!row) throw notFound('pallet', id);
  return row;
}

export async function palletDetail(db: Db, siteId: string, id: string): Promise<PalletDetail> {
  const pallet = await palletRow(db, siteId, id);
  const on = await unitsOn(db, siteId, id);
  const planned = await plannedUnits(db, siteId, pallet, on);
  const known = new Map([...on, ...planned].map((u) => [u.id, u]));
  const standing = new Set(on.map((u) => u.id));
  // A unit that is gone since, or stands elsewhere, is no part of the plan any more.
  const units = pallet.plan.units.filter((u) => known.has(u.id));
  const layers = layersOf(units);
  const besides = on.filter((u) => !units.some((p) => p.id === u.id));
  const placed = units.filter((u) => standing.has(u.id));
  const { length } = besides;
  const top = placed.reduce((most, u) => Math.max(most, u.at[2] + u.size[2]), 0);
  return {
    id,
    number: pallet.number,
    state: pallet.state,
    sscc: pallet.sscc,
    type: { name: pallet.type, sides: [pallet.lengthMm, pallet.widthMm, pallet.maxHeightMm] },
    deckMm: pallet.heightMm,
    maxLoadG: pallet.maxLoadG,
    departure: on[0]?.departure ?? units.map((u) => known.get(u.id)!)[0]?.departure ?? null,
    outer: pallet.outer,
    weightG: pallet.weightG ?? pallet.tareG + on.reduce((sum, u) => sum + u.weightG, 0),
    heightMm: length > 0 ? null : pallet.heightMm + top,
    centreMm:
      length > 0
        ? null
        : (centreOfGravity(
            placed.map((u) => ({ ...u, weightG: known.get(u.id)!.weightG })),
          ) as PalletDetail['centreMm']),
    pallets: pallet.plan.pallets,
    bound: pallet.plan.bound,
    places: units.map((u, i) => ({
      ...shown(known.get(u.id)!),
      at: u.at as [number, number, number],
      placed: u.size as [number, number, number],
      layer: layers[i]!,
      on: standing.has(u.id),
    })),
    besides: besides.map(shown),
  };
}

/** Units of a plan that do not stand on it yet and still could. */
async function plannedUnits(db: Db, siteId: string, { plan, state }: PalletRow, on: readonly Unit[]): Promise<Unit[]> {
  const missing = plan.units.filter((u) => !on.some((o) => o.id === u.id)).map((u) => u.id);
  if (missing.length === 0 || state !== 'open') return [];
  return cartonUnits(db, siteId, sql`c.id = ${anyOf(missing)} and c.state = 'closed' and c.pallet_id is null`);
}

const shown = ({ id, kind, sscc, name, type, customer, weightG, size }: Unit): PalletDetail['besides'][number] => ({
  id,
  kind,
  sscc,
  name,
  type,
  customer,
  weightG,
  size,
});
