import { sql } from 'drizzle-orm';
import type { BinCount } from '@hand-relay/contract';
import { iso, rows, type Actor, type Db, type Tx } from '../../platform/index.ts';

/** Bins to be counted in walking order; what the books have is told only to those who settle counts. */
export async function countsOf(on: Db | Tx, { siteId, rights }: Actor): Promise<{ counts: BinCount[] }> {
  const seesResult = rights.has('runs.arrange');
  const counts = await rows<BinCount>(
    on,
    sql`
    select c.id, b.code as bin, c.lot, c.state, c.reason, c.note, c.pictures, r.number as run,
           jsonb_build_object('sku', i.sku, 'name', i.name, 'picture', i.picture, 'unit', i.unit, 'tracksSerial', i.tracks_serial) as item,
           ${iso(sql`c.asked_at`)} as "askedAt", a.name as "askedBy", ${iso(sql`c.counted_at`)} as "countedAt", k.name as "countedBy",
           case when ${seesResult} and c.state = 'counted' then (select sum(l.booked)::int from bin_count_line l where l.count_id = c.id) end as booked,
           case when ${seesResult} and c.state = 'counted' then (select sum(l.counted)::int from bin_count_line l where l.count_id = c.id) end as counted
    from bin_count c join place b on b.id = c.bin_id join item i on i.id = c.item_id join person a on a.id = c.asked_by
    left join person k on k.id = c.counted_by left join run r on r.id = c.run_id
    where c.site_id = ${siteId} and c.state ${seesResult ? sql`in ('asked', 'counted')` : sql`= 'asked'`} order by c.state desc, b.aisle, b.y, b.code, i.sku`,
  );
  return { counts };
}
