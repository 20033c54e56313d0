import { sql } from 'drizzle-orm';
import type { DeskTask } from '@hand-relay/contract';
import { iso, notFound, rows, type Change, type Db, type Tx } from '../../platform/index.ts';
import { endEmptyRuns } from '../waves/index.ts';
import { closeIfDone } from '../orders/index.ts';
import { putAwaySurplus } from './putAway.ts';

/** Decisions that are owed at a site, the oldest first. */
export async function tasksOf(on: Db | Tx, siteId: string): Promise<{ tasks: DeskTask[] }> {
  const tasks = await rows<DeskTask>(
    on,
    sql`
    select t.id, o.id as "order", o.number, c.name as customer, l.line, i.sku, i.name, i.unit, t.units, ${iso(sql`t.at`)} as at,
           coalesce((
             select string_agg(distinct coalesce(r.cart_code, r.call_sign) || case when r.picking = 'consolidate' then '' else '-' || q.number end, '; ') from run_position q join run r on r.id = q.run_id
             join balance b on b.place_id = q.place_id and b.item_id = l.item_id where q.order_id = o.id
           ), '') as "where", coalesce((
             select jsonb_agg(distinct c.number order by c.number) from carton_line k join carton c on c.id = k.carton_id
             where k.line_id = l.id and k.units > 0 and c.state <> 'shipped'
           ), '[]') as cartons
    from desk_task t join order_line l on l.id = t.line_id join item i on i.id = l.item_id
    join customer_order o on o.id = l.order_id join customer c on c.id = o.customer_id
    where t.site_id = ${siteId} and t.decision is null order by t.at, o.number, l.line`,
  );
  return { tasks };
}

/**
 * Settles a task: the goods are put back into the bins that they came from, or are asked again and ship.
 *
 * What lies loose on a cart goes first, then what is in cartons of the order.
 *
 * @throws Refusal 409 `unpack-first` where fewer of them are within reach: in a carton in a picker's hands
 */
export async function settleTask(change: Change, id: string, decision: 'put-back' | 'ship-anyway') {
  const { tx, actor, now } = change;
  // A picker who leaves the cart at this moment, and the cart's end once nothing is on it, wait for one another.
  await tx.execute(sql`
    select 1 from run where id in (select k.run_id from pick k join desk_task t on t.line_id = k.line_id where t.id = ${id}) order by id for update`);
  const [task] = await rows<{ line: string; number: number; order: string; units: number; name: string }>(
    tx,
    sql`select t.line_id as line, l.line as number, l.order_id as "order", t.units, i.name from desk_task t
        join order_line l on l.id = t.line_id join item i on i.id = l.item_id
        where t.id = ${id} and t.site_id = ${actor.siteId} and t.decision is null for update of t, l`,
  );
  if (!task) throw notFound('task', id);
  if (decision === 'put-back') {
    await putAwaySurplus(change, task, 'no-more');
    await endEmptyRuns(change, task.order);
  }
  await tx.execute(sql`
    update desk_task set decision = ${decision}, decided_at = ${now.toISOString()}, decided_by = ${actor.personId} where id = ${id}`);
  const { order, number, units, name } = task;
  change.journal(
    decision === 'put-back'
      ? { kind: 'surplus-put-back', orderId: order, facts: { line: number, units, item: name } }
      : { kind: 'surplus-ships', orderId: order, facts: { line: number, units, item: name } },
  );
  await closeIfDone(change, order);
  change.publish('orders', [order]);
  change.publish('exceptions', []);
  change.publish('bench', [order]);
  change.publish('stock', []);
  return tasksOf(tx, actor.siteId);
}
