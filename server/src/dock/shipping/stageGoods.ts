import { sql } from 'drizzle-orm';
import { anyOf, Refusal, rows, type Change } from '../../platform/index.ts';
import { packedOrders } from '../../bench/packChoice/index.ts';
import { settingsOf } from '../../setup/settings/index.ts';
import { shipAtOnce } from './confirm.ts';
import { openShipment } from './open.ts';

/**
 * Where a site packs at no bench, and for orders that are not packed, what a left cart carries is ready for the dock; where
 * it picks and ships in one, each order of which nothing is left to pick leaves at once. What cannot leave waits at the
 * dock, with why.
 *
 * @returns orders that wait for no bench
 */
export async function stageGoods(change: Change, runId: string): Promise<Set<string>> {
  const { tx, actor } = change;
  const { stages } = await settingsOf(tx, actor.siteId);
  const carried = (
    await rows<{ id: string }>(tx, sql`select distinct order_id as id from pick where run_id = ${runId} and picked > 0`)
  ).map((o) => o.id);
  const packed = stages === 'pick-pack-ship' ? await packedOrders(tx, carried) : new Set<string>();
  const ready = carried.filter((id) => !packed.has(id));
  if (ready.length === 0) return new Set();
  const orders = await rows<{ id: string; service: string | null; loose: boolean }>(
    tx,
    sql`
    with carried as (
      select k.line_id, k.order_id, sum(k.picked) - coalesce((
        select sum(l.units) from carton c join carton_line l on l.carton_id = c.id and l.line_id = k.line_id where c.run_id = ${runId}), 0) as units
      from pick k where k.run_id = ${runId} and k.picked > 0 and k.order_id = ${anyOf(ready)} group by 1, 2),
    ready as (update order_line l set packed = l.packed + c.units from carried c where l.id = c.line_id)
    select o.id, d.service_id as service, exists (select 1 from carried c where c.order_id = o.id and c.units > 0) as loose from customer_order o left join departure d on d.id = o.departure_id
    where o.id in (select order_id from carried) order by o.number for update of o`,
  );
  for (const order of orders) {
    const shipment = await openShipment(change, order, order.loose);
    change.publish('shipments', [shipment]);
    if (stages === 'pick-and-ship')
      await shipAtOnce(change, shipment).catch((error: unknown) => {
        if (!(error instanceof Refusal)) throw error;
        change.journal({ kind: 'ship-waits', orderId: order.id, facts: { code: error.code } });
      });
  }
  change.publish(
    'orders',
    orders.map((o) => o.id),
  );
  return new Set(ready);
}
