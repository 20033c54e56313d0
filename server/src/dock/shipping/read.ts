import { sql, type SQL } from 'drizzle-orm';
import type { DockRow, ShipmentDetail } from '@hand-relay/contract';
import { closingOf, type DemandKind } from '@hand-relay/core/handling/shipping';
import { trackingExample, type TrackingForm } from '@hand-relay/core/reading/tracking';
import { cartsWith } from '../../stock/index.ts';
import { iso, match, notFound, recordset, rows, type Db, type Platform, type Tx } from '../../platform/index.ts';

/** Shipments as lists and heads show them, the earliest departure first where no other order is asked for. */
export function dockRows(
  on: Db | Tx,
  siteId: string,
  only: SQL,
  order: SQL = sql`o.leaves_at nulls last, o.number`,
): Promise<DockRow[]> {
  return rows<DockRow>(
    on,
    sql`
    select s.id as shipment, s.number, o.id as "order", o.number as "orderNumber", c.name as customer, d.name as departure,
           ${iso(sql`o.leaves_at`)} as "leavesAt", k.name as carrier, v.name as service, ${iso(sql`s.confirmed_at`)} as "confirmedAt",
           s.state = 'open' and s.service_id is null and not s.without_carrier and o.kind <> 'production' as "carrierMissing",
           u.cartons, u.open as "openCartons", s.loose, case when not s.loose then u.weight when s.state = 'open' then l.weight else coalesce((
             select sum(x.units::bigint * i.weight_g) from shipment_line x join order_line y on y.id = x.line_id join item i on i.id = y.item_id
             where x.shipment_id = s.id), 0)::float8 end as "weightG", l.picked, l.packed, l.released, l.asked, s.tracking, lane.code as lane, ${cartsWith(sql`o.id`)} as carts
    from shipment s join customer_order o on o.id = s.order_id join customer c on c.id = o.customer_id
    left join departure d on d.id = o.departure_id left join place lane on lane.id = coalesce(o.lane_id, d.lane_id)
    left join service v on v.id = s.service_id left join carrier k on k.id = v.carrier_id
    join lateral (
      select count(*)::int as cartons, (count(*) filter (where state = 'open'))::int as open, coalesce(sum(weight_g), 0)::float8 as weight
      from carton where shipment_id = s.id
    ) u on true
    join lateral (
      select sum(picked - shipped)::int as picked, sum(packed - shipped)::int as packed, sum(released - shipped)::int as released,
             sum(asked - cancelled - shipped)::int as asked,
             coalesce(sum((packed - shipped)::bigint * (select i.weight_g from item i where i.id = item_id)), 0)::float8 as weight
      from order_line where order_id = o.id
    ) l on true
    where s.site_id = ${siteId} and ${only}
    order by ${order}`,
  );
}

/** Confirmed shipments that a list shows at most. */
const MOST_LEFT = 500;
/** Hours back that count as just left. */
const JUST_LEFT_H = 48;

/**
 * Shipments that left, the newest first: those of the last two days, or all in whose order, shipment or tracking number
 * or customer a text occurs.
 */
export async function leftRows(on: Db | Tx, siteId: string, find: string, now: Date): Promise<DockRow[]> {
  const left = sql`f.site_id = ${siteId} and f.state = 'confirmed'`;
  const which =
    find === ''
      ? sql`select f.id, f.confirmed_at from shipment f
            where ${left} and f.confirmed_at > ${new Date(now.getTime() - JUST_LEFT_H * 3_600_000).toISOString()}`
      : sql`select f.id, f.confirmed_at from shipment f where ${left} and ${match(find, ['f.number', 'f.tracking']).is}
            union
            select f.id, f.confirmed_at from shipment f join customer_order q on q.id = f.order_id
            where ${left} and ${match(find, ['q.number', 'q.reference']).is}
            union
            select f.id, f.confirmed_at from shipment f join customer_order q on q.id = f.order_id
            where ${left} and q.customer_id in (select c.id from customer c where ${match(find, ['c.name']).is})`;
  // Found first, read afterwards by their ids: read at once, a year of shipments takes twice as long.
  const found = await rows<{ id: string }>(
    on,
    sql`select id from (${which}) found order by confirmed_at desc, id desc limit ${MOST_LEFT}`,
  );
  if (found.length === 0) return [];
  return dockRows(
    on,
    siteId,
    sql`s.id = any (array(select jsonb_array_elements_text(${recordset(found.map((f) => f.id))})))`,
    sql`s.confirmed_at desc, s.number desc`,
  );
}

export async function shipmentDetail({ db }: Platform, siteId: string, id: string): Promise<ShipmentDetail> {
  const [row] = await dockRows(db, siteId, sql`s.id = ${id}`);
  if (!row) throw notFound('shipment', id);
  const [more] = await rows<
    Omit<ShipmentDetail, 'row' | 'lines' | 'cartons' | 'trackingExample' | 'needsTracking' | 'services'> & {
      kind: DemandKind;
      form: TrackingForm | null;
    }
  >(
    db,
    sql`
    select s.state, ${iso(sql`s.confirmed_at`)} as "confirmedAt", s.without_carrier as "withoutCarrier", p.name as "confirmedBy", o.ship_complete as "shipComplete", o.kind, k.tracking as form,
           jsonb_build_object('name', o.ship_name, 'street', o.ship_street, 'postcode', o.ship_postcode, 'city', o.ship_city, 'country', o.ship_country) as "shipTo"
    from shipment s join customer_order o on o.id = s.order_id left join person p on p.id = s.confirmed_by
    left join service v on v.id = s.service_id left join carrier k on k.id = v.carrier_id where s.id = ${id}`,
  );
  const { form: ofCarrier, kind, ...rest } = more!;
  const form = closingOf(kind).carried ? ofCarrier : null;
  const confirmed = rest.state === 'confirmed';
  const lines = await rows<ShipmentDetail['lines'][number]>(
    db,
    sql`
    select l.id, l.line, i.sku, i.name, i.unit, l.asked - l.cancelled as asked, l.picked - l.shipped as picked, l.packed - l.shipped as packed,
           ${confirmed ? sql`coalesce((select x.units from shipment_line x where x.shipment_id = ${id} and x.line_id = l.id), 0)` : sql`l.shipped`}::int as shipped,
           l.asked - l.cancelled - l.shipped as open,
           coalesce((
             select jsonb_agg(distinct jsonb_build_object('lot', g.lot, 'serial', g.serial)) from (
               select x.lot, x.serial from carton c join carton_line x on x.carton_id = c.id
               where c.shipment_id = ${id} and x.line_id = l.id and x.units > 0
               -- What leaves in no carton is what was picked.
               union select k.lot, coalesce(s.serial, '') from pick k
               left join lateral jsonb_array_elements_text(coalesce(k.progress->'serials', '[]')) as s(serial) on true
               where ${row.loose} and k.line_id = l.id and k.picked > 0
             ) g where g.lot <> '' or g.serial <> ''
           ), '[]') as lots
    from order_line l join item i on i.id = l.item_id where l.order_id = ${row.order} order by l.line`,
  );
  const cartons = await rows<ShipmentDetail['cartons'][number]>(
    db,
    sql`select c.id, c.number, c.sscc, t.name as type, c.state, c.weight_g as "weightG" from carton c join carton_type t on t.id = c.type_id
        where c.shipment_id = ${id} order by c.number`,
  );
  const choosable = !confirmed && row.tracking === null && closingOf(kind).carried;
  const services = choosable
    ? await rows<ShipmentDetail['services'][number]>(
        db,
        sql`select v.id, k.name as carrier, v.name as service from service v join carrier k on k.id = v.carrier_id where not v.retired
            order by k.name, v.name`,
      )
    : [];
  return {
    row,
    ...rest,
    services,
    trackingExample: trackingExample(form ?? { kind: 'none' }),
    needsTracking: (form?.kind ?? 'none') !== 'none',
    lines,
    cartons,
  };
}
