import { sql } from 'drizzle-orm';
import type { Stuck } from '@hand-relay/contract';
import { iso, rows, type Db, type Tx } from '../../platform/index.ts';
import { discrepancyPlaceOf } from '../../stock/index.ts';

/** Work that nobody touched for so long has been forgotten. */
const FORGOTTEN_H = 24;
/** A picker of whom nothing was heard for so long has gone home. */
const GONE_H = 12;

/**
 * Work that does not go on by itself, or that everybody has forgotten, the oldest first: each with the place where it is
 * dealt with. Where all is well the list is empty.
 */
export async function stuckAt(on: Db | Tx, siteId: string, now: Date): Promise<{ stuck: Stuck[] }> {
  const before = (hours: number) => sql`${new Date(now.getTime() - hours * 3_600_000).toISOString()}::timestamptz`;
  const stuck = await rows<Stuck>(
    on,
    sql`
    with all_of as (
      select 'run-nobody' as kind, r.id, r.number || ' · ' || coalesce(p.name, '') as name, r.started_at as since, '/waves/' || r.wave_id as link
      from run r left join person p on p.id = r.picker_id
      where r.site_id = ${siteId} and r.state = 'picking' and not exists (
        select 1 from journal j where j.site_id = r.site_id and j.run_id = r.id and j.at > ${before(GONE_H)}) and r.started_at < ${before(GONE_H)}
      union all
      select 'cart-empty', r.id, coalesce(r.cart_code, r.call_sign), r.left_at, '/waves/' || r.wave_id from run r
      where r.site_id = ${siteId} and r.state = 'left' and not exists (
        select 1 from run_position q join balance b on b.place_id = q.place_id and b.units > 0 where q.run_id = r.id)
        and not exists (select 1 from run_position q join carton c on c.order_id = q.order_id and c.state = 'open' where q.run_id = r.id)
      union all
      select 'cart-unwanted', q.run_id || q.number, coalesce(r.cart_code, r.call_sign) || '-' || q.number || ' · ' || o.number, r.left_at, '/desk/orders/' || o.id
      from run_position q join run r on r.id = q.run_id and r.state = 'left' join customer_order o on o.id = q.order_id and o.status <> 'open'
      where r.site_id = ${siteId} and exists (select 1 from balance b where b.place_id = q.place_id and b.units > 0)
        and not exists (select 1 from desk_task t join order_line l on l.id = t.line_id where l.order_id = o.id and t.decision is null)
      union all
      select 'carton-empty', c.id, o.number || ' · ' || c.number, null, '/bench/orders/' || o.id
      from carton c join customer_order o on o.id = c.order_id
      where c.site_id = ${siteId} and c.state = 'open' and o.status <> 'open' and not exists (select 1 from balance b where b.place_id = c.place_id and b.units > 0)
      union all
      select 'carton-unwanted', c.id, o.number || ' · ' || c.number, c.closed_at, '/desk/orders/' || o.id
      from carton c join customer_order o on o.id = c.order_id
      where c.site_id = ${siteId} and c.state <> 'shipped' and o.status <> 'open' and exists (select 1 from balance b where b.place_id = c.place_id and b.units > 0)
        and not exists (select 1 from desk_task t join order_line l on l.id = t.line_id where l.order_id = o.id and t.decision is null)
      union all
      select 'wave-empty', w.id, w.number::text, w.created_at, '/waves/' || w.id from wave w
      where w.site_id = ${siteId} and w.state in ('planned', 'started')
        and not exists (select 1 from run r where r.wave_id = w.id and r.state in ('planned', 'waiting', 'picking', 'left'))
      union all
      select 'shipment-empty', s.id, s.number || ' · ' || o.number, null, '/dock/' || s.id from shipment s join customer_order o on o.id = s.order_id
      where s.site_id = ${siteId} and s.state = 'open' and o.status <> 'open'
      union all
      select 'order-done', o.id, o.number, null, '/desk/orders/' || o.id from customer_order o
      where o.site_id = ${siteId} and o.status = 'open' and not exists (
        select 1 from order_line l where l.order_id = o.id and l.shipped <> l.asked - l.cancelled)
      union all
      select 'stock-reserved', o.id, o.number, null, '/desk/orders/' || o.id from customer_order o
      where o.site_id = ${siteId} and o.status <> 'open' and exists (
        select 1 from reservation r join order_line l on l.id = r.line_id where l.order_id = o.id and r.hard_allocated > 0)
      union all
      select 'stock-doubted', b.item_id || b.lot, i.sku || case when b.lot = '' then '' else ' · ' || b.lot end, null, '/desk/counts'
      from balance b join item i on i.id = b.item_id where b.place_id = ${discrepancyPlaceOf(siteId)} and b.units > 0 and not exists (
        select 1 from bin_count c where c.site_id = ${siteId} and c.item_id = b.item_id and c.lot = b.lot and c.state in ('asked', 'counted'))
      union all
      select 'count-old', c.id, p.code || ' · ' || i.sku, c.asked_at, '/desk/counts' from bin_count c join place p on p.id = c.bin_id join item i on i.id = c.item_id
      where c.site_id = ${siteId} and c.state in ('asked', 'counted') and c.asked_at < ${before(FORGOTTEN_H)}
      union all
      select 'surplus-old', t.id, o.number, t.at, '/desk/surplus' from desk_task t join order_line l on l.id = t.line_id join customer_order o on o.id = l.order_id
      where t.site_id = ${siteId} and t.decision is null and t.at < ${before(FORGOTTEN_H)}
      union all
      select 'put-away-old', b.id, p.code || ' · ' || i.sku, b.asked_at, '/floor' from put_away b join place p on p.id = b.bin_id join item i on i.id = b.item_id
      where b.site_id = ${siteId} and b.done_at is null and b.asked_at < ${before(FORGOTTEN_H)}
      union all
      select 'exception-old', e.id, coalesce(o.number, e.kind), e.at, '/desk/exceptions' from exception e left join customer_order o on o.id = e.order_id
      where e.site_id = ${siteId} and e.settled_at is null and e.at < ${before(FORGOTTEN_H)}
    )
    select kind, id, name, ${iso(sql`since`)} as since, link from all_of order by since nulls first, kind, name limit 500`,
  );
  return { stuck };
}
