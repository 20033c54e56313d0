import { sql } from 'drizzle-orm';
import type { z } from 'zod';
import type { tagBody } from '@hand-relay/contract';
import { anyOf, recordset, rows, type Change } from '../../platform/index.ts';
import { judgeOrders } from '../holds/index.ts';

/** Marks orders with tags, and takes tags off; answers with the orders that it changed. */
export async function tagOrders(
  change: Change,
  { orders, add, remove }: z.output<typeof tagBody>,
): Promise<{ changed: number; orders: string[] }> {
  const { tx, actor } = change;
  const tagged = await rows<{ id: string }>(
    tx,
    sql`
    with after as (
      select o.id, o.tags as before, array(
        select distinct t from unnest(o.tags || array(select jsonb_array_elements_text(${recordset(add)}))) t
        where t not in (select jsonb_array_elements_text(${recordset(remove)})) order by t
      ) as tags
      from customer_order o where o.site_id = ${actor.siteId} and o.id = ${anyOf(orders)}
    )
    update customer_order o set tags = a.tags, version = o.version + 1 from after a where o.id = a.id and a.tags <> a.before returning o.id`,
  );
  // A rule can hold what is tagged.
  await judgeOrders(
    change,
    tagged.map((t) => t.id),
  );
  change.journal(...tagged.map(({ id }) => ({ kind: 'tagged', orderId: id, facts: { add, remove } })));
  change.publish(
    'orders',
    tagged.map((t) => t.id),
  );
  return { changed: tagged.length, orders: tagged.map((t) => t.id) };
}
