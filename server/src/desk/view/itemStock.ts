import { sql } from 'drizzle-orm';
import type { ItemStock } from '@hand-relay/contract';
import { notFound, rows, type Db } from '../../platform/index.ts';

/**
 * Where an item lies at a site and for whom it is reserved.
 *
 * @throws Refusal 404 where the item is none
 */
export async function itemStockOf(db: Db, siteId: string, item: string): Promise<ItemStock> {
  const there = await rows(db, sql`select 1 from item where id = ${item}`);
  if (there.length === 0) throw notFound('item', item);
  return {
    bins: await rows<ItemStock['bins'][number]>(
      db,
      sql`
      select p.id, p.code as bin, b.lot, l.best_before::text as "bestBefore", sum(b.units)::int as units, p.blocked,
             coalesce((select sum(k.units - k.picked) from pick k where k.bin_id = p.id and k.item_id = ${item} and k.lot = b.lot and k.state = 'open'), 0)::int as "toPick"
      from balance b join place p on p.id = b.place_id left join lot l on l.item_id = b.item_id and l.lot = b.lot
      where b.item_id = ${item} and p.site_id = ${siteId} and p.kind = 'bin' and b.units > 0
      group by p.id, b.lot, l.best_before order by l.best_before nulls last, b.lot, p.code`,
    ),
    reserved: await rows<ItemStock['reserved'][number]>(
      db,
      sql`
      select jsonb_build_object('id', o.id, 'number', o.number) as "order", c.name as customer, l.line, r.lot, r.hard_allocated as units,
             case when w.id is not null then jsonb_build_object('id', w.id, 'number', w.number, 'state', w.state) end as wave
      from reservation r join order_line l on l.id = r.line_id join customer_order o on o.id = l.order_id join customer c on c.id = o.customer_id
      left join wave w on w.id = r.wave_id
      where r.item_id = ${item} and r.site_id = ${siteId} and r.hard_allocated > 0 order by o.leaves_at nulls last, o.number, l.line, r.lot`,
    ),
  };
}
