import { sql } from 'drizzle-orm';
import { isPacked, type PackingChoice } from '@hand-relay/core/handling/packing';
import { anyOf, rows, type Db, type Tx } from '../../platform/index.ts';

/** Those of some orders that are packed at a bench, at a site that packs. */
export async function packedOrders(on: Db | Tx, orders: readonly string[]): Promise<Set<string>> {
  const found = await rows<Record<'order' | 'customer' | 'channel', PackingChoice> & { id: string; ownBoxes: boolean }>(
    on,
    sql`
    select o.id, o.packing as "order", c.packing as customer, coalesce(h.packing, 'usual') as channel,
           coalesce((select bool_and(i.own_box) from order_line l join item i on i.id = l.item_id
             where l.order_id = o.id and not i.service and l.asked > l.cancelled), false) as "ownBoxes"
    from customer_order o join customer c on c.id = o.customer_id left join channel h on h.code = o.channel where o.id = ${anyOf([...new Set(orders)])}`,
  );
  return new Set(found.filter((o) => isPacked(o, o.ownBoxes)).map((o) => o.id));
}
