import { sql } from 'drizzle-orm';
import { notFound, recordset, Refusal, rows, type Change } from '../../platform/index.ts';
import { settleServed } from '../exceptions/index.ts';
import { reservesAtIntake, reserveOrders, trimReserved } from '../waves/index.ts';

const listed = (ids: readonly string[]) => sql`(select jsonb_array_elements_text(${recordset(ids)}))`;

/** Cancels what is asked and not released yet. An order of which nothing is left to do closes.
 *
 * @param lines only these lines; all of the order without any
 */
export async function cancelRest(
  change: Change,
  orderId: string,
  reason: string,
  lines: readonly string[] = [],
): Promise<void> {
  const { tx, actor } = change;
  const [order] = await rows<{ status: string }>(
    tx,
    sql`select status from customer_order where id = ${orderId} and site_id = ${actor.siteId} for update`,
  );
  if (!order) throw notFound('order', orderId);
  const chosen = lines.length > 0 ? sql`and id in ${listed(lines)}` : sql``;
  const cancelled = await rows<{ line: number; units: number }>(
    tx,
    sql`
    with open as (
      select id, asked - cancelled - released as units from order_line
      where order_id = ${orderId} and asked - cancelled - released > 0 ${chosen}
    )
    update order_line l set cancelled = l.cancelled + o.units, manually_allocated = null from open o where l.id = o.id returning l.line, o.units`,
  );
  // An order with nothing left to do, left open by an earlier version, is closed by this too.
  if (order.status === 'open' && cancelled.length === 0 && (await closeIfDone(change, orderId))) return;
  if (order.status !== 'open' || cancelled.length === 0) throw new Refusal('nothing-to-cancel');
  await trimReserved(change, [orderId]);
  await settleServed(change, [orderId], 'ship-short');
  await closeIfDone(change, orderId);
  change.journal({ kind: 'rest-cancelled', orderId, facts: { reason, lines: cancelled } });
  change.publish('orders', [orderId]);
}

/**
 * Takes a cancellation back: the lines ask so many units again, and an order that it closed is open again.
 *
 * @throws Refusal 409 `nothing-to-restore` where less than that is cancelled
 */
export async function restore(
  change: Change,
  orderId: string,
  lines: readonly { line: string; units: number }[],
): Promise<void> {
  const { tx, actor } = change;
  const reserves = await reservesAtIntake(change);
  const [order] = await rows<{ status: string }>(
    tx,
    sql`select status from customer_order where id = ${orderId} and site_id = ${actor.siteId} for update`,
  );
  if (!order) throw notFound('order', orderId);
  const restored = await rows<{ line: number; units: number }>(
    tx,
    sql`update order_line l set cancelled = l.cancelled - r.units
        from jsonb_to_recordset(${recordset(lines)}) as r(line text, units int)
        where l.id = r.line and l.order_id = ${orderId} and r.units between 1 and l.cancelled returning l.line, r.units`,
  );
  if (restored.length < lines.length) throw new Refusal('nothing-to-restore');
  await tx.execute(sql`update customer_order set status = 'open', version = version + 1 where id = ${orderId}`);
  if (reserves) await reserveOrders(change, [orderId]);
  change.journal({ kind: 'rest-restored', orderId, facts: { lines: restored } });
  change.publish('orders', [orderId]);
}

/**
 * Closes an order that has nothing open: as closed when something shipped, as cancelled when nothing did. A shipment that
 * was opened for it and in which nothing is goes with it.
 *
 * @returns whether it was closed
 */
export async function closeIfDone(change: Change, orderId: string): Promise<boolean> {
  const closed = await rows<{ id: string }>(
    change.tx,
    sql`
    update customer_order o set status = s.status, version = o.version + 1
    from (
      select case when sum(shipped) > 0 then 'closed' else 'cancelled' end as status
      from order_line where order_id = ${orderId} having bool_and(shipped = asked - cancelled)
    ) s where o.id = ${orderId} and o.status = 'open' returning o.id`,
  );
  if (closed.length === 0) return false;
  change.publish('orders', [orderId]);
  const dropped = await rows<{ id: string; number: string; tracking: string | null }>(
    change.tx,
    sql`
    delete from shipment s where s.order_id = ${orderId} and s.state = 'open'
      and not exists (select 1 from carton c where c.shipment_id = s.id)
      and not exists (select 1 from shipment_line l where l.shipment_id = s.id)
      and not exists (select 1 from order_line l where l.order_id = s.order_id and l.packed > l.shipped)
    returning s.id, s.number, s.tracking`,
  );
  for (const { id, number, tracking } of dropped) {
    change.journal({ kind: 'shipment-dropped', orderId, facts: { shipment: number, tracking } });
    change.publish('shipments', [id]);
  }
  return true;
}
