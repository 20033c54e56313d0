import { sql } from 'drizzle-orm';
import { notFound, Refusal, rows, type Change } from '../platform/index.ts';
import { freeOrders } from '../waves/index.ts';

/** Cancels what is asked and not released yet. An order of which nothing is left to do closes. */
export async function cancelRest(change: Change, orderId: string, reason: string): Promise<void> {
  const { tx, actor } = change;
  const [order] = await rows<{ status: string }>(
    tx,
    sql`select status from customer_order where id = ${orderId} and site_id = ${actor.siteId} for update`,
  );
  if (!order) throw notFound('order', orderId);
  const cancelled = await rows<{ line: number; units: number }>(
    tx,
    sql`
    with open as (
      select id, asked - cancelled - released as units from order_line
      where order_id = ${orderId} and asked - cancelled - released > 0
    )
    update order_line l set cancelled = l.cancelled + o.units from open o where l.id = o.id returning l.line, o.units`,
  );
  if (order.status !== 'open' || cancelled.length === 0) throw new Refusal(409, 'nothing-to-cancel');
  await freeOrders(change, [orderId]);
  await closeIfDone(change, orderId);
  change.journal({ kind: 'rest-cancelled', orderId, facts: { reason, lines: cancelled } });
  change.tell('orders', [orderId]);
}

/** Closes an order that has nothing open: as closed when something shipped, as cancelled when nothing did. */
export async function closeIfDone(change: Change, orderId: string): Promise<void> {
  await change.tx.execute(sql`
    update customer_order o set status = s.status, version = o.version + 1
    from (
      select case when sum(shipped) > 0 then 'closed' else 'cancelled' end as status
      from order_line where order_id = ${orderId} having bool_and(shipped = asked - cancelled)
    ) s where o.id = ${orderId} and o.status = 'open'`);
}
