import { sql } from 'drizzle-orm';
import type { BenchOrder, BenchQueue, Found } from '@hand-relay/contract';
import { readCode } from '@hand-relay/core/reading/codes';
import { undecidedOf } from '../../desk/orders/index.ts';
import { iso, notFound, rows, type Actor, type Db, type Platform, type Tx } from '../../platform/index.ts';
import { settingsOf } from '../../setup/settings/index.ts';
import { cartFrontOf } from '../../stock/index.ts';
import { expectedWeights } from '../weighing/index.ts';

/** Carts that were left for packing: urgent ones, then the earliest departure first. */
export async function benchQueue({ db }: Platform, siteId: string): Promise<BenchQueue> {
  const runs = await rows<BenchQueue['runs'][number]>(
    db,
    sql`
    select r.id, r.number, r.call_sign as "callSign", r.cart_code as cart, lane.code as lane, p.name as picker,
           coalesce(lane.kind = 'bench', false) as "atBench", r.priority > 0 as urgent, ${iso(sql`min(o.leaves_at)`)} as "leavesAt",
           coalesce(jsonb_agg(o.number || ': ' || o.for_bench order by q.number) filter (where o.for_bench <> ''), '[]') as notes,
           jsonb_agg(jsonb_build_object('id', o.id, 'number', o.number, 'position', q.number, 'customer', c.name,
             'units', k.units, 'packed', greatest(0, k.packed)) order by q.number) as orders
    from run r left join place lane on lane.id = r.lane_id left join person p on p.id = r.picker_id
    -- What leaves as it was picked waits at the dock: no bench packs it.
    join run_position q on q.run_id = r.id and not exists (
      select 1 from shipment s where s.order_id = q.order_id and s.loose and s.state = 'open')
    join customer_order o on o.id = q.order_id join customer c on c.id = o.customer_id
    join lateral (
      select coalesce(sum(k.picked), 0)::int as units,
             (coalesce(sum(k.picked), 0) - coalesce((select sum(b.units) from balance b where b.place_id = q.place_id), 0))::int as packed
      from pick k where k.run_id = r.id and k.order_id = q.order_id
    ) k on true
    where r.site_id = ${siteId} and r.state = 'left' and k.units > 0
    group by r.id, lane.code, lane.kind, p.name order by r.priority > 0 desc, min(o.leaves_at) nulls last, r.number`,
  );
  return { benches: await benches(db, siteId), runs };
}

/** The site's benches, by their signs. */
function benches(on: Db, siteId: string): Promise<BenchQueue['benches']> {
  return rows(
    on,
    sql`select code, name from place where site_id = ${siteId} and kind = 'bench' and not retired order by code`,
  );
}

type Bench = BenchOrder['bench'];
type OpenCarton = NonNullable<Bench['carton']>;

/** Picked goods of an order that stand on carts left for packing, and its open cartons. */
export async function benchState(on: Db | Tx, siteId: string, orderId: string): Promise<Bench> {
  const loose = await rows<Bench['loose'][number]>(
    on,
    sql`
    select jsonb_build_object('id', i.id, 'sku', i.sku, 'name', i.name, 'tracksLot', i.tracks_lot, 'tracksSerial', i.tracks_serial, 'group', i.apart,
             'packs', (select jsonb_agg(jsonb_build_object('gtin', p.gtin, 'level', p.level, 'units', p.units) order by p.units)
                       from item_pack p where p.item_id = i.id)) as item,
           nullif(b.lot, '') as lot, nullif(b.serial, '') as serial, sum(b.units)::int as units
    from run_position q join run r on r.id = q.run_id and r.state = 'left' join balance b on b.place_id = q.place_id join item i on i.id = b.item_id
    where q.order_id = ${orderId} group by i.id, b.lot, b.serial order by i.name, b.lot, b.serial`,
  );
  const cartons = await rows<Omit<OpenCarton, 'weight'> & { measuredG: number | null }>(
    on,
    sql`
    select c.id, t.code as "typeCode", c.number, c.sscc, c.measured_g::float8 as "measuredG", coalesce((
      select jsonb_agg(jsonb_build_object('item', i.id, 'name', i.name, 'group', i.apart, 'units', s.units) order by i.name)
      from (select item_id, sum(units)::int as units from balance where place_id = c.place_id group by item_id) s join item i on i.id = s.item_id
    ), '[]') as contents
    from carton c join carton_type t on t.id = c.type_id where c.order_id = ${orderId} and c.site_id = ${siteId} and c.state = 'open' and c.run_id is null
    order by c.number desc`,
  );
  const expected = await expectedWeights(
    on,
    cartons.map((c) => c.id),
  );
  const [carton = null, ...others] = cartons.flatMap(({ measuredG, ...c }): OpenCarton[] => {
    const weight = expected.get(c.id);
    // One that somebody discarded between the two questions is none any more.
    return weight ? [{ ...c, weight: { expectedG: weight.grams, toleranceG: weight.toleranceG, measuredG } }] : [];
  });
  const boxes = await rows<Bench['boxes'][number]>(
    on,
    sql`select code, name from carton_type where not retired order by cost_minor, code`,
  );
  const { weighing, confirmLane } = await settingsOf(on, siteId);
  const [toLane = null] = confirmLane
    ? await rows<NonNullable<Bench['toLane']>>(
        on,
        sql`
    select lane.code as lane, jsonb_agg(jsonb_build_object('id', c.id, 'number', c.number) order by c.number) as cartons
    from carton c join customer_order o on o.id = c.order_id left join departure d on d.id = o.departure_id
    join place lane on lane.id = coalesce(o.lane_id, d.lane_id) left join run r on r.id = c.run_id
    where c.order_id = ${orderId} and c.state = 'closed' and c.lane_id is null and c.pallet_id is null and r.state is distinct from 'picking'
    group by lane.code`,
      )
    : [];
  const lanes = await rows<{ code: string }>(
    on,
    sql`select code from place where site_id = ${siteId} and kind = 'lane' and not retired order by code`,
  );
  return { loose, carton, others, weighing, boxes, toLane, lanes: lanes.map((l) => l.code) };
}

export async function benchOrder({ db }: Platform, siteId: string, orderId: string): Promise<BenchOrder> {
  const [head] = await rows<
    Pick<
      BenchOrder,
      'id' | 'number' | 'customer' | 'note' | 'forBench' | 'wishes' | 'shipTo' | 'leavesAt' | 'lane' | 'shipment'
    >
  >(
    db,
    sql`
    select o.id, o.number, c.name as customer, o.note, o.for_bench as "forBench", c.wishes, ${iso(sql`o.leaves_at`)} as "leavesAt", lane.code as lane,
           jsonb_build_object('name', o.ship_name, 'street', o.ship_street, 'postcode', o.ship_postcode, 'city', o.ship_city, 'country', o.ship_country) as "shipTo",
           (select s.id from shipment s where s.order_id = o.id and s.state = 'open') as shipment
    from customer_order o join customer c on c.id = o.customer_id left join departure d on d.id = o.departure_id left join place lane on lane.id = coalesce(o.lane_id, d.lane_id)
    where o.id = ${orderId} and o.site_id = ${siteId}`,
  );
  if (!head) throw notFound('order', orderId);
  const where = await rows<BenchOrder['where'][number]>(
    db,
    sql`select r.number as run, r.call_sign as "callSign", coalesce(r.cart_code, case when r.state = 'left' then r.call_sign else '' end) as cart,
               case when r.picking = 'consolidate' then 0 else q.number end as position, r.state, ${cartFrontOf} as front from run_position q
        join run r on r.id = q.run_id where q.order_id = ${orderId} and r.state in ('waiting', 'picking', 'left') order by r.number`,
  );
  const lines = await rows<BenchOrder['lines'][number]>(
    db,
    sql`select l.line, i.sku, i.name, i.unit, i.picture, l.note, l.released, l.picked, l.packed, l.shipped
        from order_line l join item i on i.id = l.item_id where l.order_id = ${orderId} order by l.line`,
  );
  const cartons = await rows<BenchOrder['cartons'][number]>(
    db,
    sql`
    select c.id, c.number, t.name as type, c.sscc, c.state, stands.code as "inLane", p.number as pallet, coalesce(c.weight_g, c.measured_g, t.tare_g + s.weight, t.tare_g)::float8 as "weightG", coalesce(s.contents, '[]') as contents
    from carton c join carton_type t on t.id = c.type_id left join place stands on stands.id = c.lane_id left join pallet p on p.id = c.pallet_id
    left join lateral (
      select sum(x.units::bigint * i.weight_g) as weight, jsonb_agg(jsonb_build_object('item', i.id, 'sku', i.sku, 'name', i.name, 'lot', x.lot, 'serial', x.serial, 'units', x.units) order by i.name, x.lot, x.serial) as contents
      from (select l.item_id, k.lot, k.serial, sum(k.units)::int as units from carton_line k join order_line l on l.id = k.line_id
            where k.carton_id = c.id and k.units > 0 group by 1, 2, 3) x join item i on i.id = x.item_id
    ) s on true
    where c.order_id = ${orderId} order by c.number`,
  );
  const bench = await benchState(db, siteId, orderId);
  return {
    ...head,
    where,
    lines,
    bench,
    cartons,
    benches: await benches(db, siteId),
    surplus: await undecidedOf(db, orderId),
  };
}

type Named = Omit<Found, 'runs'>;

/** What a code scanned anywhere names, with the orders and the runs that it leads to. */
export async function find(platform: Platform, actor: Actor, scanned: string): Promise<Found> {
  const named = await nameOf(platform, actor, scanned);
  const runs = await rows<{ id: string }>(
    platform.db,
    sql`select r.id from run r where r.site_id = ${actor.siteId} and r.state in ('waiting', 'picking') and exists (
          select 1 from run_position q where q.run_id = r.id
            and q.order_id in (select jsonb_array_elements_text(${JSON.stringify(named.orders)}::jsonb))) order by r.number`,
  );
  return { ...named, runs: runs.map((r) => r.id) };
}

async function nameOf({ db, clock }: Platform, actor: Actor, scanned: string): Promise<Named> {
  const code = readCode(scanned, clock().getUTCFullYear());
  const nothing: Named = { kind: 'nothing', id: null, name: scanned, orders: [] };
  const one = async (kind: Found['kind'], statement: ReturnType<typeof sql>): Promise<Named> => {
    const [row] = await rows<{ id: string; name: string; orders: string[] | null }>(db, statement);
    return row ? { kind, id: row.id, name: row.name, orders: row.orders ?? [] } : nothing;
  };
  const site = actor.siteId;
  const placeCalled = (called: string) =>
    sql`select id, code as name, '[]'::jsonb as orders from place
        where site_id = ${site} and kind in ('lane', 'bench', 'door') and upper(code) = upper(${called}) and not retired`;
  const runWhere = (condition: ReturnType<typeof sql>) => sql`
    select r.id, r.number as name, (select jsonb_agg(q.order_id order by q.number) from run_position q where q.run_id = r.id) as orders
    from run r where r.site_id = ${site} and ${condition} order by r.number desc limit 1`;
  if (code.kind === 'cart') return cartOrItsRun(code.cart);
  if (code.kind === 'run') return one('run', runWhere(sql`r.number = ${code.number}`));
  if (code.kind === 'position')
    return one(
      'order',
      sql`select o.id, o.number as name, jsonb_build_array(o.id) as orders from run r join run_position q on q.run_id = r.id and q.number = ${code.number}
          join customer_order o on o.id = q.order_id where r.site_id = ${site} and r.cart_code = ${code.cart} and r.state in ('picking', 'left')`,
    );
  if (code.kind === 'gs1' && code.sscc) {
    const carton = await one(
      'carton',
      sql`select c.shipment_id as id, c.sscc as name, jsonb_build_array(c.order_id) as orders from carton c where c.site_id = ${site} and c.sscc = ${code.sscc}`,
    );
    if (carton.kind !== 'nothing') return carton;
    const pallet = await one(
      'pallet',
      sql`select p.id, p.number as name, (select jsonb_agg(distinct c.order_id) from carton c where c.pallet_id = p.id) as orders
          from pallet p where p.site_id = ${site} and p.sscc = ${code.sscc}`,
    );
    if (pallet.kind !== 'nothing') return pallet;
    return one(
      'void',
      sql`select v.sscc as id, v.name, case when v.order_id is null then '[]' else jsonb_build_array(v.order_id) end as orders
          from void_label v where v.site_id = ${site} and v.sscc = ${code.sscc}`,
    );
  }
  if (code.kind === 'gs1' && code.gtin)
    return one(
      'item',
      sql`select i.id, i.name, '[]'::jsonb as orders from item_pack p join item i on i.id = p.item_id where p.gtin = ${code.gtin}`,
    );
  if (code.kind === 'lane' || code.kind === 'bench' || code.kind === 'door')
    return one('place', placeCalled(code.code));
  if (code.kind === 'bin')
    return one(
      'bin',
      sql`select id, code as name, '[]'::jsonb as orders from place where site_id = ${site} and kind = 'bin' and code = ${code.bin}`,
    );
  const number = code.kind === 'order' ? code.number : code.kind === 'text' ? code.text : '';
  const order = await one(
    'order',
    sql`select id, number as name, jsonb_build_array(id) as orders from customer_order where site_id = ${site} and upper(number) = upper(${number})`,
  );
  return order.kind === 'nothing' && code.kind === 'text' ? own(code.text) : order;

  /** The run that a cart is on; a cart that nobody has is one too. */
  async function cartOrItsRun(cart: string): Promise<Named> {
    const run = await one('run', runWhere(sql`upper(r.cart_code) = upper(${cart}) and r.state in ('picking', 'left')`));
    if (run.kind !== 'nothing') return run;
    return one(
      'cart',
      sql`select code as id, code as name, '[]'::jsonb as orders from cart where site_id = ${site} and upper(code) = upper(${cart}) and not retired`,
    );
  }

  /** A code of the house's own form: a bin, a cart or one of its places, an item. */
  async function own(text: string): Promise<Named> {
    const shipment = await one(
      'shipment',
      sql`select id, number as name, jsonb_build_array(order_id) as orders from shipment
          where site_id = ${site} and (number = upper(${text}) or tracking = upper(${text.replaceAll(' ', '')}))`,
    );
    if (shipment.kind !== 'nothing') return shipment;
    const bin = await one(
      'bin',
      sql`select id, code as name, '[]'::jsonb as orders from place where site_id = ${site} and kind = 'bin' and upper(code) = upper(${text})`,
    );
    if (bin.kind !== 'nothing') return bin;
    const cart = await cartOrItsRun(text);
    if (cart.kind !== 'nothing') return cart;
    const position = await one(
      'order',
      sql`select o.id, o.number as name, jsonb_build_array(o.id) as orders from run r join run_position q on q.run_id = r.id
          join customer_order o on o.id = q.order_id
          where r.site_id = ${site} and upper(coalesce(r.cart_code, r.call_sign) || '-' || q.number) = upper(${text}) and r.state in ('picking', 'left')`,
    );
    if (position.kind !== 'nothing') return position;
    const place = await one('place', placeCalled(text));
    if (place.kind !== 'nothing') return place;
    return one('item', sql`select id, name, '[]'::jsonb as orders from item where upper(sku) = upper(${text})`);
  }
}
