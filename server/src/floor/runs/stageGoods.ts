import { sql } from 'drizzle-orm';
import { Refusal, rows, type Change } from '../../platform/index.ts';
import { openShipment, shipAtOnce } from '../../dock/shipping/index.ts';
import { settingsOf } from '../../setup/settings/index.ts';

/**
 * Where a site packs at no bench, what a left cart carries is ready for the dock; where it picks and ships in one,
 * each order of which nothing is left to pick leaves at once. What cannot leave waits at the dock, with why.
 */
export async function stageGoods(change: Change, runId: string): Promise<void> {
  const { tx, actor } = change;
  const { stages } = await settingsOf(tx, actor.siteId);
  if (stages === 'pick-pack-ship') return;
  const orders = await rows<{ id: string; service: string | null; loose: boolean }>(
    tx,
    sql`
    with carried as (
      select k.line_id, k.order_id, sum(k.picked) - coalesce((
        select sum(l.units) from carton c join carton_line l on l.carton_id = c.id and l.line_id = k.line_id where c.run_id = ${runId}), 0) as units
      from pick k where k.run_id = ${runId} and k.picked > 0 group by 1, 2),
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
}
