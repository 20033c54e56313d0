import { sql, type SQL } from 'drizzle-orm';
import { iso, rows, type Db, type Tx } from '../../platform/index.ts';

/** Thickness of a carton's wall: types are entered with their inner sides, and stand beside each other with their outer. */
const WALL_MM = 4;

/** A carton or a pallet, as it stands on a pallet. */
export interface Unit {
  id: string;
  kind: 'carton' | 'pallet';
  state: 'open' | 'closed' | 'shipped';
  sscc: string;
  name: string;
  type: string;
  customer: string;
  weightG: number;
  size: [number, number, number];
  outer: { id: string; number: string; state: 'open' | 'closed' | 'shipped' } | null;
  departure: { name: string; leavesAt: string | null } | null;
  /** Its place in the order of deliveries; null where no load has its order. */
  stop: number | null;
  orders: string[];
}

const departureOf = (name: SQL, at: SQL) =>
  sql`case when ${name} is not null then jsonb_build_object('name', ${name}, 'leavesAt', ${iso(at)}) end`;
const outerOf = sql`case when u.id is not null then jsonb_build_object('id', u.id, 'number', u.number, 'state', u.state) end`;

/** Cartons of the site that a condition on carton `c` and order `o` selects, in the order of their orders. */
export const cartonUnits = (on: Db | Tx, siteId: string, which: SQL): Promise<Unit[]> =>
  rows<Unit>(
    on,
    sql`
    -- In a picker's hands it is as good as open.
    select c.id, 'carton' as kind, case when r.state = 'picking' then 'open' else c.state end as state, coalesce(c.sscc, '') as sscc, o.number || ' · ' || c.number as name, t.name as type, m.name as customer,
           coalesce(c.weight_g, t.tare_g)::float8 as "weightG",
           jsonb_build_array(t.inner_mm[1] + ${2 * WALL_MM}::int, t.inner_mm[2] + ${2 * WALL_MM}::int, t.inner_mm[3] + ${2 * WALL_MM}::int) as size,
           ${outerOf} as outer, ${departureOf(sql`d.name`, sql`o.leaves_at`)} as departure, lo.stop, jsonb_build_array(o.id) as orders
    from carton c join carton_type t on t.id = c.type_id join customer_order o on o.id = c.order_id join customer m on m.id = o.customer_id
    left join departure d on d.id = o.departure_id left join pallet u on u.id = c.pallet_id left join load_order lo on lo.order_id = o.id
    left join run r on r.id = c.run_id where c.site_id = ${siteId} and ${which} order by o.number, c.number`,
  );

/** Pallets and crates of the site that a condition on pallet `p` selects. Their height is that of their plan. */
export async function palletUnits(on: Db | Tx, siteId: string, which: SQL): Promise<Unit[]> {
  const found = await rows<Omit<Unit, 'size'> & { length: number; width: number; top: number; deck: number }>(
    on,
    sql`
    with recursive inside as (
      select p.id as root, p.id from pallet p where p.site_id = ${siteId} and ${which}
      union all select i.root, q.id from inside i join pallet q on q.outer_id = i.id
    ), goods as (
      select i.root, jsonb_agg(distinct o.id) as orders, min(m.name) as customer, count(distinct m.id)::int as customers,
             min(d.name) as departure, min(o.leaves_at) as leaves, max(lo.stop) as stop
      from inside i join carton c on c.pallet_id = i.id join customer_order o on o.id = c.order_id join customer m on m.id = o.customer_id
      left join departure d on d.id = o.departure_id left join load_order lo on lo.order_id = o.id group by i.root
    )
    select p.id, 'pallet' as kind, p.state, coalesce(p.sscc, '') as sscc, p.number as name, t.name as type,
           case when g.customers > 1 then g.customers::text else coalesce(g.customer, '') end as customer, coalesce(p.weight_g, t.tare_g)::float8 as "weightG",
           t.length_mm as length, t.width_mm as width, t.height_mm as deck,
           coalesce((select max((x->'at'->>2)::float8 + (x->'size'->>2)::float8) from jsonb_array_elements(p.plan->'units') x), 0) as top,
           ${outerOf} as outer, ${departureOf(sql`g.departure`, sql`g.leaves`)} as departure, g.stop, coalesce(g.orders, '[]') as orders
    from pallet p join pallet_type t on t.id = p.type_id left join goods g on g.root = p.id left join pallet u on u.id = p.outer_id
    where p.site_id = ${siteId} and ${which} order by p.number`,
  );
  return found.map(({ length, width, top, deck, ...unit }) => ({
    ...unit,
    size: [length, width, Math.ceil(deck + top)] as [number, number, number],
  }));
}

/** What stands on a pallet, cartons and pallets. */
export const unitsOn = async (on: Db | Tx, siteId: string, pallet: string): Promise<Unit[]> => [
  ...(await cartonUnits(on, siteId, sql`c.pallet_id = ${pallet}`)),
  ...(await palletUnits(on, siteId, sql`p.outer_id = ${pallet}`)),
];

/** One text for a departure: what has the same one leaves together. */
export const departureKey = ({ departure }: Pick<Unit, 'departure'>): string | null =>
  departure && [departure.name, departure.leavesAt ?? ''].join(' ').trim();
