import { sql, type SQL } from 'drizzle-orm';
import type { Waiting } from '@hand-relay/contract';
import {
  anyOf,
  iso,
  recordset,
  Refusal,
  rows,
  type Actor,
  type Change,
  type Db,
  type Tx,
} from '../../platform/index.ts';
import { cartForPlanning, endWaveIfDone, gatheredNeeds, moveUnits, newWave } from '../../desk/waves/index.ts';
import { settingsOf } from '../../setup/settings/index.ts';
import { fillRun, joinGathered, nameRun, reroute } from './arrange.ts';
import { lockRun } from './lock.ts';

/** Whether somebody may gather a trip of their own here: where the site allows it, and whoever arranges runs. */
export async function mayGather(on: Db | Tx, { siteId, rights }: Pick<Actor, 'siteId' | 'rights'>): Promise<boolean> {
  return rights.has('runs.arrange') || (rights.has('runs.pick') && (await settingsOf(on, siteId)).ownTrips);
}

/** Orders that wait for a picker: gathered in a wave, or in a run that nobody has begun and that is offered to this person. */
export async function waitingOrders(on: Db | Tx, siteId: string, offered: SQL): Promise<Waiting> {
  const orders = await rows<Waiting['orders'][number]>(
    on,
    sql`
    with parts as (
      select l.order_id, x.units, null::text as run from reservation x join wave w on w.id = x.wave_id and w.state = 'gathering'
      join order_line l on l.id = x.line_id where w.site_id = ${siteId} and x.units > 0
      union all
      select k.order_id, k.units, r.number from pick k join run r on r.id = k.run_id
      where r.site_id = ${siteId} and k.state = 'open' and ${offered}
    )
    select o.id, o.number, c.name as customer, o.priority, ${iso(sql`o.leaves_at`)} as "leavesAt", count(*)::int as lines,
           sum(p.units)::int as units, min(p.run) as run
    from parts p join customer_order o on o.id = p.order_id join customer c on c.id = o.customer_id
    where not exists (select 1 from order_hold h where h.order_id = o.id and h.lifted_at is null and 'picking' = any(h.stops))
    group by o.id, c.name order by o.priority, o.leaves_at nulls last, o.number limit 500`,
  );
  return { orders, positions: (await cartForPlanning(on, siteId)).positions };
}

/**
 * Makes a run of orders that somebody chose from what waits, theirs to pick: a wave of its own, started at once.
 *
 * @param offered runs that are offered to this person; orders of others are not to be had
 * @throws Refusal 403 `no-own-trips` where the site does not allow it, 409 `not-waiting` when an order was taken in the meantime,
 *   and as `fillRun`
 */
export async function gatherTrip(
  change: Change,
  orders: readonly string[],
  offered: SQL,
): Promise<{ run: string; number: string }> {
  const { tx, actor } = change;
  if (!(await mayGather(tx, actor))) throw new Refusal('no-own-trips');
  const { wave } = await newWave(change);
  const picking = orders.length === 1 ? 'single' : 'sort';
  await tx.execute(sql`update wave set state = 'started', picking = ${picking} where id = ${wave}`);
  await joinGathered(change, orders, wave);
  await joinUnbegun(change, orders, wave, offered);
  const needs = await gatheredNeeds(tx, wave);
  const [missing] = await rows<{ number: string }>(
    tx,
    sql`select o.number from customer_order o where o.id = ${anyOf(orders)}
        and o.id not in (select jsonb_array_elements_text(${recordset(needs.map((n) => n.order))})) order by 1 limit 1`,
  );
  if (missing || needs.length === 0) throw new Refusal('not-waiting', { order: missing?.number ?? '' });
  const cart = await cartForPlanning(tx, actor.siteId);
  const { id, number, sign } = await nameRun(change);
  await tx.execute(sql`
    insert into run (id, site_id, wave_id, number, call_sign, state, positions, metres, path, stops, assigned_id, picking)
    values (${id}, ${actor.siteId}, ${wave}, ${number}, ${sign}, 'waiting', ${Math.max(cart.positions, orders.length)}, 0, '[]', 0, ${actor.personId}, ${picking})`);
  await fillRun(change, await lockRun(tx, actor.siteId, id), needs);
  change.journal({ kind: 'trip-gathered', runId: id, waveId: wave, facts: { run: number, orders: orders.length } });
  change.publish('orders', []);
  return { run: id, number };
}

/** Takes orders out of runs that nobody has begun, into another wave; runs left with nothing are given up. */
async function joinUnbegun(change: Change, orders: readonly string[], into: string, offered: SQL): Promise<void> {
  const { tx, actor } = change;
  const runs = await rows<{ id: string; wave: string }>(
    tx,
    sql`select r.id, r.wave_id as wave from run r where r.site_id = ${actor.siteId} and ${offered} and exists (
          select 1 from pick k where k.run_id = r.id and k.state = 'open' and k.order_id = ${anyOf(orders)})
        order by r.id for update`,
  );
  for (const { id, wave } of runs) {
    const out = await rows<{ line: string; lot: string; units: number }>(
      tx,
      sql`update pick set state = 'out' where run_id = ${id} and state = 'open' and order_id = ${anyOf(orders)}
          returning line_id as line, lot, units`,
    );
    await tx.execute(sql`
      with gone as (
        delete from run_position q where q.run_id = ${id} and not exists (
          select 1 from pick k where k.run_id = q.run_id and k.order_id = q.order_id and k.state <> 'out') returning place_id
      ) delete from place p using gone g where p.id = g.place_id`);
    await moveUnits(tx, wave, into, out);
    await reroute(change, id);
    await endWaveIfDone(change, wave);
  }
  change.publish(
    'runs',
    runs.map((r) => r.id),
  );
  change.publish(
    'waves',
    runs.map((r) => r.wave),
  );
}

/** Gives a trip that its gatherer has not begun back to the Desk: its orders gather again. */
export async function putTripBack(change: Change, runId: string): Promise<void> {
  const { tx, actor } = change;
  const run = await lockRun(tx, actor.siteId, runId);
  const [own] = await rows<{ by: string; runs: number }>(
    tx,
    sql`select created_by as by, (select count(*)::int from run r where r.wave_id = w.id and r.state <> 'cancelled') as runs
        from wave w where w.id = ${run.waveId} and w.state = 'started' for update`,
  );
  if (run.state !== 'waiting') throw new Refusal('run-state', { run: run.number, state: run.state });
  if (own?.by !== actor.personId || own.runs > 1 || run.assignedId !== actor.personId)
    throw new Refusal('no-own-trip', { run: run.number });
  await tx.execute(sql`update pick set state = 'out' where run_id = ${runId} and state = 'open'`);
  await tx.execute(sql`update run set state = 'cancelled' where id = ${runId}`);
  await tx.execute(sql`update wave set state = 'gathering', version = version + 1 where id = ${run.waveId}`);
  change.journal({ kind: 'trip-put-back', runId, waveId: run.waveId, facts: { run: run.number } });
  change.publish('runs', [runId]);
  change.publish('waves', [run.waveId]);
}
