import { sql } from 'drizzle-orm';
import { notFound, Refusal, rows, type Change } from '../../platform/index.ts';
import { freeOrders, reservedOf, reserveOrders } from '../waves/index.ts';

/** Promises stock to an order that is not released, or frees it; answers with what each line has. */
export async function reserve(change: Change, orderId: string, wanted: boolean) {
  const { tx, actor } = change;
  const [order] = await rows<{ status: string }>(
    tx,
    sql`select status from customer_order where id = ${orderId} and site_id = ${actor.siteId} for update`,
  );
  if (!order) throw notFound('order', orderId);
  if (order.status !== 'open') throw new Refusal('nothing-to-release');
  await (wanted ? reserveOrders(change, [orderId]) : freeOrders(change, [orderId]));
  return { lines: await reservedOf(tx, actor.siteId, orderId) };
}
