import { sql } from 'drizzle-orm';
import { notFound, Refusal, rows, type Change } from '../../platform/index.ts';
import { reroute } from './arrange.ts';
import { lockRun, mustBeMine } from './lock.ts';
import { reserveAgain } from './reservations.ts';

/**
 * Takes back that orders were taken out of a run: their picks are open again where they were, promised as before, and
 * the rest is rerouted.
 *
 * @throws Refusal 409 `undo-begun` when goods of it lay on the cart, `undo-short` when they were promised to others
 */
export async function putIn(change: Change, runId: string, orders: readonly string[]): Promise<void> {
  const { tx, actor } = change;
  const run = await lockRun(tx, actor.siteId, runId);
  if (!['planned', 'waiting', 'picking'].includes(run.state))
    throw new Refusal('run-state', { run: run.number, state: run.state });
  if (!actor.rights.has('runs.arrange')) mustBeMine(run, actor.personId);
  for (const order of orders) {
    const picks = await rows<{
      id: string;
      order: string;
      line: string;
      itemId: string;
      item: string;
      lot: string;
      units: number;
      begun: boolean;
    }>(
      tx,
      sql`select k.id, o.number as "order", k.line_id as line, k.item_id as "itemId", i.name as item, k.lot, k.units,
                 k.confirmed_at is not null or exists (select 1 from pick s where s.run_id = k.run_id and s.order_id = k.order_id and s.state <> 'out') as begun
          from pick k join customer_order o on o.id = k.order_id join order_line l on l.id = k.line_id join item i on i.id = k.item_id
          where k.run_id = ${runId} and k.order_id = ${order} and k.state = 'out' order by k.id for update of k, l`,
    );
    if (picks.length === 0) throw notFound('order', order);
    // What lay on the cart is on its way back into its bins.
    if (picks.some((p) => p.begun)) throw new Refusal('undo-begun', { order: picks[0]!.order });
    for (const pick of picks) await reserveAgain(change, run.waveId, pick);
    await tx.execute(
      sql`update pick set state = 'open' where run_id = ${runId} and order_id = ${order} and state = 'out'`,
    );
    change.journal({
      kind: 'put-in',
      orderId: order,
      runId,
      waveId: run.waveId,
      facts: { run: run.number, picks: picks.length },
    });
  }
  await reroute(change, runId);
  change.publish('runs', [runId]);
  change.publish('orders', [...orders]);
  change.publish('waves', [run.waveId]);
}
