import { sql } from 'drizzle-orm';
import { Refusal, rows, type Change } from '../../platform/index.ts';
import { lockRun, mustBeMine } from './lock.ts';

/**
 * A run that is begun goes on with somebody else, at once in their hands; or it waits with its cart for whoever takes
 * that one next. A supervisor may do so with anybody's.
 *
 * @throws Refusal 422 `no-picker` where the person does not pick here
 */
export async function transferRun(change: Change, runId: string, person: string | null): Promise<void> {
  const { tx, actor } = change;
  const run = await lockRun(tx, actor.siteId, runId);
  if (!actor.rights.has('runs.arrange')) mustBeMine(run, actor.personId);
  else if (run.state !== 'picking') throw new Refusal('run-state', { run: run.number, state: run.state });
  const [to] = person
    ? await rows<{ name: string }>(
        tx,
        sql`select p.name from person p join membership m on m.person_id = p.id and m.site_id = ${actor.siteId} and m.active
            join role r on r.site_id = m.site_id and r.name = any(m.roles) and 'runs.pick' = any(r.rights) where p.id = ${person}`,
      )
    : [];
  if (person && !to) throw new Refusal('no-picker', { person });
  await tx.execute(
    person
      ? sql`update run set picker_id = ${person}, assigned_id = ${person} where id = ${runId}`
      : sql`update run set state = 'waiting', picker_id = null, assigned_id = null where id = ${runId}`,
  );
  change.journal({
    kind: 'run-passed-on',
    runId,
    waveId: run.waveId,
    facts: { run: run.number, from: run.picker, to: to?.name ?? '', cart: run.cart },
  });
  change.publish('runs', [runId]);
  change.publish('waves', [run.waveId]);
}

/** A note to whoever packs an order of a run. */
export async function noteForBench(change: Change, runId: string, order: string, note: string): Promise<void> {
  const { tx, actor } = change;
  const run = await lockRun(tx, actor.siteId, runId);
  const [noted] = await rows<{ number: string }>(
    tx,
    sql`update customer_order o set for_bench = ${note} where o.id = ${order}
        and exists (select 1 from run_position q where q.run_id = ${runId} and q.order_id = o.id) returning o.number`,
  );
  if (!noted) throw new Refusal('not-found', { what: 'order', id: order });
  change.journal({ kind: 'bench-note', orderId: order, runId, waveId: run.waveId, facts: { note } });
  change.publish('bench', [order]);
  change.publish('runs', [runId]);
}
