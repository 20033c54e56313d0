import { sql } from 'drizzle-orm';
import type { OrderDetail, TrailEntry } from '@hand-relay/contract';
import { cartsWith, freeStock, mustKeepUntil } from '../../stock/index.ts';
import { iso, notFound, rows, type Platform } from '../../platform/index.ts';
import { settingsOf } from '../../setup/settings/index.ts';

type Head = Omit<
  OrderDetail,
  'charges' | 'parts' | 'customer' | 'shipTo' | 'lines' | 'waves' | 'runs' | 'cartons' | 'shipments'
> & {
  customerNumber: string;
  customerName: string;
  customerClass: string;
  minShelfDays: number;
  shipName: string;
  shipStreet: string;
  shipPostcode: string;
  shipCity: string;
  shipCountry: string;
};

/** One order with its lines and everything that was made of it. */
export async function orderDetail({ db, clock }: Platform, siteId: string, id: string): Promise<OrderDetail> {
  const [head] = await rows<Head>(
    db,
    sql`
    select o.id, o.number, o.kind, o.to_site as "toSite", o.channel, o.reference, o.status, o.due::text as due, d.name as departure,
           ${iso(sql`o.leaves_at`)} as "leavesAt", lane.code as lane, ${cartsWith(sql`o.id`)} as carts, k.name || ', ' || v.name as carrier,
           o.priority, o.ship_complete as "shipComplete", o.packing, o.note, o.document, o.link, o.tags,
           case when r.id is null then null else json_build_object('id', r.id, 'number', r.number) end as "splitOf",
           case when ld.id is null then null else json_build_object('id', ld.id, 'number', ld.number) end as load,
           c.number as "customerNumber", c.name as "customerName", c.class as "customerClass", c.min_shelf_days as "minShelfDays",
           o.ship_name as "shipName", o.ship_street as "shipStreet", o.ship_postcode as "shipPostcode",
           o.ship_city as "shipCity", o.ship_country as "shipCountry"
    from customer_order o join customer c on c.id = o.customer_id
    left join departure d on d.id = o.departure_id left join place lane on lane.id = coalesce(o.lane_id, d.lane_id)
    left join service v on v.id = d.service_id left join carrier k on k.id = v.carrier_id
    left join customer_order r on r.id = o.split_of
    left join load_order lo on lo.order_id = o.id
    left join load ld on ld.id = coalesce(lo.load_id, (
      select s.load_id from shipment s where s.order_id = o.id and s.load_id is not null order by s.confirmed_at desc limit 1))
    where o.id = ${id} and o.site_id = ${siteId}`,
  );
  if (!head) throw notFound('order', id);
  // What a release would find: where that does not reserve, what is released may count as taken all the same.
  const settings = await settingsOf(db, siteId);
  const soft = settings.reserve === 'scan' && settings.countReleased;
  const lines = await rows<OrderDetail['lines'][number]>(
    db,
    sql`
    select l.id, l.line, l.item_id as item, i.sku, i.name, i.unit, i.picture, l.quantity, l.pack, l.note,
           l.asked, l.cancelled, l.released, l.picked, l.packed, l.shipped,
           coalesce((select sum(r.hard_allocated) from reservation r where r.line_id = l.id), 0)::int as reserved,
           coalesce((select sum(r.units) from reservation r where r.line_id = l.id and r.wave_id is null), 0)::int as "reservedAhead",
           (coalesce((select sum(r.units) from reservation r join wave w on w.id = r.wave_id and w.state = 'gathering' where r.line_id = l.id), 0)
             + coalesce((select sum(k.units) from pick k join run r on r.id = k.run_id and r.state in ('planned', 'waiting')
                         where k.line_id = l.id and k.state = 'open'), 0))::int as waits,
           coalesce((
             select sum(greatest(f.units, 0)) from (${freeStock(siteId, soft)}) f
             where f.item_id = l.item_id
               and (f.best_before is null or f.best_before >= ${mustKeepUntil(siteId, sql`l.item_id`, clock())})
           ), 0)::int as free,
           -- A serial number that is back in a bin belongs to no line.
           coalesce((
             select jsonb_agg(distinct jsonb_build_object('lot', k.lot, 'serial', n.serial))
             from pick k left join lateral jsonb_array_elements_text(coalesce(k.progress->'serials', '[]')) as s(serial) on true
             cross join lateral (select coalesce(s.serial, '') as serial) n
             where k.line_id = l.id and k.picked > 0 and (k.lot <> '' or n.serial <> '') and not exists (
               select 1 from balance b join place p on p.id = b.place_id and p.kind = 'bin' where b.item_id = k.item_id and b.serial = n.serial and n.serial <> '' and b.units > 0)
           ), '[]') as lots
    from order_line l join item i on i.id = l.item_id join customer_order o on o.id = l.order_id join customer c on c.id = o.customer_id
    where l.order_id = ${id} order by l.line`,
  );
  const charges = await rows<OrderDetail['charges'][number]>(
    db,
    sql`select g.line, i.sku, i.name, i.unit, g.quantity, g.note from order_charge g join item i on i.id = g.item_id
        where g.order_id = ${id} order by g.line`,
  );
  const parts = await rows<OrderDetail['parts'][number]>(
    db,
    sql`select o.id, o.number, o.due::text as due, o.status, coalesce(sum(l.asked - l.cancelled), 0)::int as units
        from customer_order o join order_line l on l.order_id = o.id where o.split_of = ${id} group by o.id order by o.created_at`,
  );
  const waves = await rows<OrderDetail['waves'][number]>(
    db,
    sql`select distinct w.id, w.number, w.state from wave w join wave_line x on x.wave_id = w.id
        join order_line l on l.id = x.line_id where l.order_id = ${id} order by w.number`,
  );
  const runs = await rows<OrderDetail['runs'][number]>(
    db,
    sql`select r.id, r.number, r.state, p.name as picker from run r join run_position q on q.run_id = r.id
        left join person p on p.id = r.picker_id where q.order_id = ${id} and r.state <> 'cancelled' order by r.number`,
  );
  const cartons = await rows<OrderDetail['cartons'][number]>(
    db,
    sql`select c.id, c.number, c.sscc, t.name as type, c.state, c.weight_g as "weightG"
        from carton c join carton_type t on t.id = c.type_id where c.order_id = ${id} order by c.number`,
  );
  const shipments = await rows<OrderDetail['shipments'][number]>(
    db,
    sql`select id, number, state, tracking from shipment where order_id = ${id} order by number`,
  );
  const {
    customerNumber,
    customerName,
    customerClass,
    minShelfDays,
    shipName,
    shipStreet,
    shipPostcode,
    shipCity,
    shipCountry,
    ...rest
  } = head;
  return {
    ...rest,
    customer: { number: customerNumber, name: customerName, class: customerClass, minShelfDays },
    shipTo: { name: shipName, street: shipStreet, postcode: shipPostcode, city: shipCity, country: shipCountry },
    lines,
    charges,
    parts,
    waves,
    runs,
    cartons,
    shipments,
  };
}

/** Everything that happened to an order, in order: what names it, and what happened to its waves. */
export async function orderTrail({ db }: Platform, siteId: string, id: string): Promise<{ entries: TrailEntry[] }> {
  const entries = await rows<TrailEntry>(
    db,
    sql`
    select j.id::int as id, ${iso(sql`j.at`)} as at, p.name as person, j.device, j.kind, j.facts
    from journal j left join person p on p.id = j.person_id
    where j.site_id = ${siteId} and (j.order_id = ${id} or (j.order_id is null and j.wave_id in (
      select x.wave_id from wave_line x join order_line l on l.id = x.line_id where l.order_id = ${id})))
    order by j.id`,
  );
  return { entries };
}
