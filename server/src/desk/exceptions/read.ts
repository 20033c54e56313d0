import { sql } from 'drizzle-orm';
import type { ExceptionRow } from '@hand-relay/contract';
import { iso, rows, type Actor, type Db, type Tx } from '../../platform/index.ts';

/** Most that are listed; a site with more has another trouble. */
const MOST = 1_000;

/** What waits for somebody, newest first, and behind it what was settled in the last day. */
export async function exceptionsOf(
  on: Db | Tx,
  { siteId }: Pick<Actor, 'siteId'>,
  now: Date,
): Promise<{ exceptions: ExceptionRow[] }> {
  const since = new Date(now.getTime() - 24 * 3_600_000).toISOString();
  const exceptions = await rows<ExceptionRow>(
    on,
    sql`
    with all_of as (
      select e.id, e.kind, e.at, e.person_id as by, e.order_id, e.line_id, e.run_id, e.pick_id, e.place_id, e.item_id, e.lot, e.units,
             e.reason, e.note, e.facts, e.settled_at, e.settled_by, e.settled_how, e.settled_note
      from exception e where e.site_id = ${siteId} and (e.settled_at is null or e.settled_at > ${since}::timestamptz)
      union all
      select c.id, 'count', c.counted_at, c.counted_by, null, null, c.run_id, c.pick_id, c.bin_id, c.item_id, c.lot,
             (select coalesce(sum(abs(l.counted - l.booked)), 0)::int from bin_count_line l where l.count_id = c.id),
             c.reason, c.note, (select jsonb_build_object('system', sum(l.booked), 'counted', sum(l.counted)) from bin_count_line l where l.count_id = c.id),
             null, null, null, ''
      from bin_count c where c.site_id = ${siteId} and c.state = 'counted'
      union all
      select t.id, 'surplus', t.at, null, l.order_id, l.id, null, null, null, l.item_id, '', t.units, '', '', '{}', null, null, null, ''
      from desk_task t join order_line l on l.id = t.line_id where t.site_id = ${siteId} and t.decision is null
      union all
      select b.id, 'put-away', b.asked_at, null, b.order_id, null, b.run_id, null, b.bin_id, b.item_id, b.lot, b.units, '', '', '{}', null, null, null, ''
      from put_away b where b.site_id = ${siteId} and b.done_at is null
    )
    select a.id, a.kind, ${iso(sql`a.at`)} as at, coalesce(p.name, '') as by,
           case when o.id is not null then jsonb_build_object('id', o.id, 'number', o.number, 'customer', c.name, 'departure', d.name,
             'leavesAt', ${iso(sql`o.leaves_at`)}) end as "order", l.line,
           case when r.id is not null then jsonb_build_object('id', r.id, 'number', r.number, 'cart', coalesce(r.cart_code, r.call_sign)) end as run,
           case when i.id is not null then jsonb_build_object('sku', i.sku, 'name', i.name, 'picture', i.picture, 'unit', i.unit) end as item,
           a.lot, coalesce(q.code, '') as place, a.units,
           coalesce(l.asked - l.cancelled - l.released, case when a.kind = 'out' then (
             select sum(x.asked - x.cancelled - x.released) from order_line x where x.order_id = a.order_id) end, 0)::int as open,
           a.reason, a.note, a.facts, coalesce(n.pictures, '[]') as pictures,
           case when a.settled_at is not null then jsonb_build_object('at', ${iso(sql`a.settled_at`)}, 'by', s.name, 'how', a.settled_how,
             'note', a.settled_note) end as settled, n.state as count
    from all_of a left join person p on p.id = a.by left join customer_order o on o.id = a.order_id
    left join customer c on c.id = o.customer_id left join departure d on d.id = o.departure_id left join order_line l on l.id = a.line_id
    left join run r on r.id = a.run_id left join item i on i.id = a.item_id left join place q on q.id = a.place_id
    left join person s on s.id = a.settled_by
    left join lateral (select state, pictures from bin_count n where n.bin_id = a.place_id and n.item_id = a.item_id and n.lot = a.lot
      and n.asked_at >= a.at - interval '1 minute' and a.kind <> 'put-away' order by n.asked_at desc limit 1) n on true
    order by a.settled_at is not null, a.at desc, a.id limit ${MOST}`,
  );
  return { exceptions };
}
