import { sql } from 'drizzle-orm';
import type { z } from 'zod';
import { orderRowFields, type OrderRow, type orderPage, type orderPageQuery } from '@hand-relay/contract';
import { freeStock, mustKeepUntil } from '../../stock/index.ts';
import { anyOf, iso, rows, type Platform } from '../../platform/index.ts';

type Query = z.output<typeof orderPageQuery>;

/**
 * One page of orders with the sums of their lines and how many lines could be promised now. Pages follow due day and
 * id; a page is short enough that a scan waiting behind it hardly notices.
 */
export async function listOrders(
  { db, clock }: Platform,
  siteId: string,
  query: Query,
): Promise<z.input<typeof orderPage>> {
  const [afterDue, afterId] = (query.after ?? '').split('~');
  const ids = query.ids?.split(',').filter(Boolean);
  const chosen = ids ? sql`o.id = ${anyOf(ids)}` : query.status === 'all' ? sql`true` : sql`o.status = ${query.status}`;
  const after = afterId ? sql`and (o.due, o.id) > (${afterDue}::date, ${afterId})` : sql``;
  const found = await rows<OrderRow & { id: string }>(
    db,
    sql`
    with page as (
      select o.id, o.number, o.kind, o.channel, o.reference, o.ship_city, o.due, o.leaves_at, o.priority, o.status, o.departure_id, o.tags,
             o.lane_id, c.name as customer, c.class, coalesce(g.rank, 32767) as class_rank
      from customer_order o join customer c on c.id = o.customer_id left join customer_class g on g.code = c.class
      where o.site_id = ${siteId} and ${chosen} ${after}
      order by o.due, o.id limit ${query.limit + 1}
    ), free as (
      ${freeStock(siteId, false)}
    ), kept as (
      select line_id, sum(units) as units from reservation where wave_id is null and site_id = ${siteId} group by 1
    ), line as (
      select l.order_id, l.asked, l.cancelled, l.released, l.picked, l.packed, l.shipped,
             (l.asked - l.cancelled)::bigint * max(i.value_minor) as value, coalesce(max(k.units), 0) as reserved,
             l.asked - l.cancelled - l.released as open, coalesce(sum(f.units), 0) + coalesce(max(k.units), 0) as free
      from order_line l join page p on p.id = l.order_id
      join customer_order o on o.id = l.order_id join customer c on c.id = o.customer_id
      join item i on i.id = l.item_id
      left join free f on f.item_id = l.item_id and (f.best_before is null or f.best_before >= ${mustKeepUntil(siteId, sql`l.item_id`, clock())})
      left join kept k on k.line_id = l.id
      group by l.id
    ), sums as (
      select order_id, count(*)::int as lines, (count(*) filter (where open <= free))::int as covered,
             sum(asked - cancelled)::int as asked, sum(released)::int as released, sum(picked)::int as picked,
             sum(packed)::int as packed, sum(shipped)::int as shipped,
             sum(reserved)::int as reserved, sum(value)::float8 as value
      from line group by order_id
    ), begun as (
      select p.id, l.id as line from page p join order_line l on l.order_id = p.id where p.status = 'open' and l.released > 0
    ), wave_of as (
      select b.id, string_agg(distinct w.number::text, ', ') as waves
      from begun b join wave_line x on x.line_id = b.line join wave w on w.id = x.wave_id where w.state <> 'cancelled' group by 1
    ), picker_of as (
      select b.id, string_agg(distinct n.name, ', ') as pickers, string_agg(distinct r.number, ', ') as runs
      from begun b join pick k on k.line_id = b.line join run r on r.id = k.run_id left join person n on n.id = coalesce(r.picker_id, r.assigned_id) where r.state <> 'cancelled' group by 1
    )
    select p.id, p.number, p.kind, p.channel, p.reference, p.ship_city as city, k.name as carrier, s.reserved, s.value, p.customer, p.class as "customerClass", p.due::text as due, d.name as departure,
           ${iso(sql`p.leaves_at`)} as "leavesAt", p.priority, s.lines, s.covered as "coveredLines",
           s.asked, s.released, s.picked, s.packed, s.shipped, p.status, array_to_string(p.tags, ', ') as tags,
           v.name as service, coalesce(own.code, lane.code) as lane, coalesce(wave_of.waves, '') as waves, coalesce(picker_of.pickers, '') as pickers, p.class_rank as "classRank", coalesce(picker_of.runs, '') as runs
    from page p join sums s on s.order_id = p.id left join departure d on d.id = p.departure_id
    left join service v on v.id = d.service_id left join carrier k on k.id = v.carrier_id
    left join place own on own.id = p.lane_id left join place lane on lane.id = d.lane_id
    left join wave_of on wave_of.id = p.id left join picker_of on picker_of.id = p.id
    order by p.due, p.id`,
  );
  const [{ total } = { total: 0 }] = ids
    ? [{ total: found.length }]
    : await rows<{ total: number }>(
        db,
        sql`select count(*)::int as total from customer_order o where o.site_id = ${siteId} and ${chosen}`,
      );
  const page = found.slice(0, query.limit);
  const last = found.length > query.limit ? page.at(-1) : undefined;
  return {
    rows: page.map((row) => orderRowFields.map((field) => row[field])),
    next: last ? `${last.due}~${last.id}` : null,
    total,
  };
}
