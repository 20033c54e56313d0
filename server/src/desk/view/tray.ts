import { sql } from 'drizzle-orm';
import type { Tray } from '@hand-relay/contract';
import { rows, type Actor, type Change, type Db, type Tx } from '../../platform/index.ts';

/** A person's tray at a site, without orders that are not open any more and lines of which nothing is. */
export async function trayOf(on: Db | Tx, { personId, siteId }: Pick<Actor, 'personId' | 'siteId'>): Promise<Tray> {
  const [found] = await rows<Tray>(
    on,
    sql`
    select coalesce((
             select jsonb_agg(x.id order by x.n) from jsonb_array_elements_text(t.orders) with ordinality as x(id, n)
             join customer_order o on o.id = x.id and o.site_id = t.site_id and o.status = 'open'), '[]') as orders,
           coalesce((
             select jsonb_object_agg(x.key, x.value) from jsonb_each(t.lines) x
             join order_line l on l.id = x.key and l.asked - l.cancelled > l.released), '{}') as lines
    from tray t where t.person_id = ${personId} and t.site_id = ${siteId}`,
  );
  return found ?? { orders: [], lines: {} };
}

/** Replaces a person's tray; their other devices hear of it. */
export async function saveTray(change: Change, { orders, lines }: Tray): Promise<void> {
  const { tx, actor } = change;
  await tx.execute(sql`
    insert into tray (person_id, site_id, orders, lines)
    values (${actor.personId}, ${actor.siteId}, ${JSON.stringify(orders)}::jsonb, ${JSON.stringify(lines)}::jsonb)
    on conflict (person_id, site_id) do update set orders = excluded.orders, lines = excluded.lines`);
  change.publish('tray', [actor.personId]);
}
