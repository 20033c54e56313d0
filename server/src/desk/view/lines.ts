import { sql } from 'drizzle-orm';
import { deskLineFields, type DeskLine, type DeskView } from '@hand-relay/contract';
import { iso, rows, type Db } from '../../platform/index.ts';
import { freeStock } from '../../stock/index.ts';
import { settingsOf } from '../../setup/settings/index.ts';
import { openIn } from './read.ts';

/** Orders of which the lines are listed at once: those that leave first. */
const MOST_ORDERS = 3_000;

/** Open lines of the orders in view, whole orders, those that leave first. */
export async function linesIn(
  db: Db,
  siteId: string,
  view: DeskView,
): Promise<{ rows: (string | number | null)[][]; more: boolean }> {
  const settings = await settingsOf(db, siteId);
  const found = await rows<DeskLine & { orders: number }>(
    db,
    sql`
    with page as (
      select o.id, o.number, o.due, o.leaves_at, o.priority, c.name as customer, c.class, d.name as departure
      from customer_order o join customer c on c.id = o.customer_id
      left join departure d on d.id = o.departure_id left join service v on v.id = d.service_id left join carrier k on k.id = v.carrier_id
      where ${openIn(siteId, view)} and exists (select 1 from order_line x where x.order_id = o.id and x.asked - x.cancelled > x.released)
      order by o.leaves_at nulls last, o.number limit ${MOST_ORDERS + 1}
    ),
    line as (
      select l.id, l.order_id, l.line, l.item_id, l.asked - l.cancelled - l.released as open from page p join order_line l on l.order_id = p.id
      where l.asked - l.cancelled > l.released
    ),
    free as (
      select f.item_id, sum(greatest(f.units, 0))::int as units from (${freeStock(siteId, settings.reserve === 'scan' && settings.countReleased)}) f
      where f.item_id in (select item_id from line) group by 1
    ),
    ahead as (
      select r.line_id, sum(r.units)::int as units from reservation r join line l on l.id = r.line_id where r.wave_id is null group by 1
    )
    select l.id, p.id as "order", p.number, l.line, p.customer, p.class, p.due::text as due, p.departure, ${iso(sql`p.leaves_at`)} as "leavesAt", p.priority,
           i.id as item, i.sku, i.name, l.open, coalesce(a.units, 0) as reserved, coalesce(f.units, 0) as free,
           coalesce((select h.text from order_hold h where h.order_id = p.id and h.lifted_at is null and 'release' = any(h.stops) order by h.held_at limit 1), '') as held,
           (select count(*) from page)::int as orders
    from line l join page p on p.id = l.order_id join item i on i.id = l.item_id
    left join free f on f.item_id = l.item_id left join ahead a on a.line_id = l.id
    order by p.leaves_at nulls last, p.number, l.line`,
  );
  const more = (found[0]?.orders ?? 0) > MOST_ORDERS;
  // The last order is only there to tell that there are more.
  const last = more ? found.at(-1)!.order : null;
  return {
    rows: found.filter((l) => l.order !== last).map((l) => deskLineFields.map((field) => l[field])),
    more,
  };
}
