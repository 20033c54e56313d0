import { sql } from 'drizzle-orm';
import { holdsOf } from '../holds/index.ts';
import { mustBeDecided } from '../orders/index.ts';
import { notFound, Refusal, rows, type Change } from '../../platform/index.ts';
import { endEmptyRuns, reservesAtIntake, reserveOrders } from '../waves/index.ts';
import { putAwaySurplus } from './putAway.ts';

/**
 * Sends the goods of an order that is on hold at the bench or the dock back into their bins, so that cart, bench and
 * lane are free. The order keeps what it asks and waits at the Desk; once the hold is lifted it is released again.
 *
 * @throws Refusal 409 `not-held` where nothing stops packing or shipping it, `run-state` while it is still picked,
 *   `nothing-picked`, `surplus-undecided`
 */
export async function returnGoods(change: Change, orderId: string, reason: string): Promise<{ units: number }> {
  const { tx, actor } = change;
  await tx.execute(sql`
    select 1 from run where id in (select run_id from pick where order_id = ${orderId}) order by id for update`);
  const [order] = await rows<{ number: string; status: string }>(
    tx,
    sql`select number, status from customer_order where id = ${orderId} and site_id = ${actor.siteId} for update`,
  );
  if (!order) throw notFound('order', orderId);
  const holds = await holdsOf(tx, actor, orderId);
  if (!holds.some((h) => h.stops.includes('packing') || h.stops.includes('shipping')))
    throw new Refusal('not-held', { order: order.number });
  const [run] = await rows<{ number: string }>(
    tx,
    sql`select r.number from run r join pick k on k.run_id = r.id
        where k.order_id = ${orderId} and k.state <> 'out' and r.state = 'picking' limit 1`,
  );
  if (run) throw new Refusal('run-state', { run: run.number, state: 'picking' });
  await mustBeDecided(tx, orderId);
  const lines = await rows<{ line: string; name: string; units: number }>(
    tx,
    sql`select l.id as line, i.name, l.picked - l.shipped as units from order_line l join item i on i.id = l.item_id
        where l.order_id = ${orderId} and l.picked > l.shipped order by l.line`,
  );
  if (lines.length === 0) throw new Refusal('nothing-picked', { order: order.number });
  for (const line of lines) await putAwaySurplus(change, { ...line, order: orderId }, 'again');
  await endEmptyRuns(change, orderId);
  if (await reservesAtIntake(change)) await reserveOrders(change, [orderId]);
  const units = lines.reduce((n, l) => n + l.units, 0);
  change.journal({ kind: 'goods-returned', orderId, facts: { units, reason } });
  change.publish('orders', [orderId]);
  change.publish('bench', [orderId]);
  change.publish('shipments', []);
  change.publish('stock', []);
  return { units };
}
