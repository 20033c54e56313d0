import { sql } from 'drizzle-orm';
import type { OrdersCancelled } from '@hand-relay/contract';
import { anyOf, notFound, recordset, Refusal, rows, type Change } from '../../platform/index.ts';
import { settleServed } from '../exceptions/index.ts';
import { lockOrders, reservesAtIntake, reserveOrders, trimReserved } from '../waves/index.ts';

/** Lines of the journal by order. */
function linesByOrder(parts: readonly { order: string; line: number; units: number }[]) {
  const byOrder = new Map<string, { line: number; units: number }[]>();
  for (const { order, line, units } of parts) byOrder.set(order, [...(byOrder.get(order) ?? []), { line, units }]);
  return byOrder;
}

interface Cancelled {
  order: string;
  id: string;
  line: number;
  units: number;
}

/**
 * Cancels what is asked of orders and not released yet. An order of which nothing is left to do closes.
 *
 * @param lines only these lines; all of the orders without any
 * @param most units of a line, at most; all that is open without it
 * @returns what was cancelled; nothing of orders that are closed, or of which all is released
 */
async function cancelOpen(
  change: Change,
  orders: readonly string[],
  reason: string,
  lines: readonly string[] = [],
  most: number | null = null,
): Promise<Cancelled[]> {
  const { tx, actor } = change;
  await lockOrders(tx, actor.siteId, { ids: orders });
  const chosen = lines.length > 0 ? sql`and l.id = ${anyOf(lines)}` : sql``;
  const cancelled = await rows<Cancelled>(
    tx,
    sql`
    with open as (
      select l.id, least(l.asked - l.cancelled - l.released, ${most}::int) as units from order_line l join customer_order o on o.id = l.order_id
      where o.id = ${anyOf(orders)} and o.site_id = ${actor.siteId} and o.status = 'open' and l.asked - l.cancelled - l.released > 0 ${chosen}
    )
    update order_line l set cancelled = l.cancelled + o.units, manually_allocated = null from open o where l.id = o.id
    returning l.order_id as "order", l.id, l.line, o.units`,
  );
  const byOrder = linesByOrder(cancelled);
  const touched = [...byOrder.keys()];
  if (touched.length === 0) return [];
  await trimReserved(change, touched);
  await settleServed(change, touched, 'ship-short');
  await closeDone(change, touched);
  change.journal(
    ...[...byOrder].map(([orderId, of]) => ({ kind: 'rest-cancelled', orderId, facts: { reason, lines: of } })),
  );
  change.publish('orders', touched);
  return cancelled;
}

/**
 * Cancels the open quantity of an order, or of lines of it.
 *
 * @param units of the one line that is given; all that is open without it
 * @throws Refusal 409 `nothing-to-cancel`, `cancel-too-much` where less than that is open
 */
export async function cancelRest(
  change: Change,
  orderId: string,
  reason: string,
  lines: readonly string[] = [],
  units: number | null = null,
): Promise<void> {
  const [order] = await rows(
    change.tx,
    sql`select 1 from customer_order where id = ${orderId} and site_id = ${change.actor.siteId} for update`,
  );
  if (!order) throw notFound('order', orderId);
  if (units !== null) {
    const [line] = await rows<{ open: number }>(
      change.tx,
      sql`select asked - cancelled - released as open from order_line where order_id = ${orderId} and id = ${anyOf(lines)} for update`,
    );
    if (!line) throw notFound('line', lines[0] ?? '');
    if (units > line.open) throw new Refusal('cancel-too-much', { open: line.open });
  }
  if ((await cancelOpen(change, [orderId], reason, lines, units)).length > 0) return;
  // An order with nothing left to do, left open by an earlier version, is closed by this too.
  if (!(await closeIfDone(change, orderId))) throw new Refusal('nothing-to-cancel');
}

/** Cancels the open quantity of orders; those of which nothing is open are left as they are. */
export async function cancelOrders(
  change: Change,
  orders: readonly string[],
  reason: string,
): Promise<OrdersCancelled> {
  const cancelled = await cancelOpen(change, orders, reason);
  const touched = new Set(cancelled.map((c) => c.order)).size;
  return {
    cancelled: touched,
    nothing: new Set(orders).size - touched,
    units: cancelled.reduce((n, c) => n + c.units, 0),
    lines: cancelled.map(({ id, units }) => ({ line: id, units })),
  };
}

/**
 * Takes cancellations back: the lines ask so many units again, and an order that was closed by one is open again.
 *
 * @param order only of this order
 * @returns the orders
 * @throws Refusal 409 `nothing-to-restore` where less than that is cancelled
 */
export async function restore(
  change: Change,
  lines: readonly { line: string; units: number }[],
  order: string | null = null,
): Promise<{ orders: number }> {
  const { tx, actor } = change;
  const reserves = await reservesAtIntake(change);
  const ids = anyOf(lines.map((l) => l.line));
  const there = await rows<{ id: string }>(
    tx,
    sql`select o.id from customer_order o where o.site_id = ${actor.siteId}
        and ${order === null ? sql`o.id = any(array(select order_id from order_line where id = ${ids}))` : sql`o.id = ${order}`} order by o.id for update`,
  );
  if (order !== null && there.length === 0) throw notFound('order', order);
  const orders = there.map((o) => o.id);
  const restored = await rows<{ order: string; line: number; units: number }>(
    tx,
    sql`update order_line l set cancelled = l.cancelled - r.units
        from jsonb_to_recordset(${recordset(lines)}) as r(line text, units int)
        where l.id = r.line and l.order_id = ${anyOf(orders)} and r.units between 1 and l.cancelled
        returning l.order_id as "order", l.line, r.units`,
  );
  if (restored.length < lines.length) throw new Refusal('nothing-to-restore');
  await tx.execute(sql`update customer_order set status = 'open', version = version + 1 where id = ${anyOf(orders)}`);
  if (reserves) await reserveOrders(change, orders);
  change.journal(
    ...[...linesByOrder(restored)].map(([orderId, of]) => ({ kind: 'rest-restored', orderId, facts: { lines: of } })),
  );
  change.publish('orders', orders);
  return { orders: orders.length };
}

/**
 * Closes orders that have nothing open: as closed when something shipped, as cancelled when nothing did. A shipment that
 * was opened for one and in which nothing is goes with it.
 *
 * @returns those that were closed
 */
async function closeDone(change: Change, orders: readonly string[]): Promise<string[]> {
  const closed = await rows<{ id: string }>(
    change.tx,
    sql`
    update customer_order o set status = s.status, version = o.version + 1
    from (
      select order_id, case when sum(shipped) > 0 then 'closed' else 'cancelled' end as status
      from order_line where order_id = ${anyOf(orders)} group by order_id having bool_and(shipped = asked - cancelled)
    ) s where o.id = s.order_id and o.status = 'open' returning o.id`,
  );
  if (closed.length === 0) return [];
  const ids = closed.map((o) => o.id);
  change.publish('orders', ids);
  const dropped = await rows<{ id: string; order: string; number: string; tracking: string | null }>(
    change.tx,
    sql`
    delete from shipment s where s.order_id = ${anyOf(ids)} and s.state = 'open'
      and not exists (select 1 from carton c where c.shipment_id = s.id)
      and not exists (select 1 from shipment_line l where l.shipment_id = s.id)
      and not exists (select 1 from order_line l where l.order_id = s.order_id and l.packed > l.shipped)
    returning s.id, s.order_id as "order", s.number, s.tracking`,
  );
  for (const { id, order, number, tracking } of dropped) {
    change.journal({ kind: 'shipment-dropped', orderId: order, facts: { shipment: number, tracking } });
    change.publish('shipments', [id]);
  }
  return ids;
}

/** Closes an order where nothing of it is open; answers whether it did. */
export const closeIfDone = async (change: Change, orderId: string): Promise<boolean> =>
  (await closeDone(change, [orderId])).length > 0;
