import { sql } from 'drizzle-orm';
import { change, Refusal, type Actor, type Platform, type Repeat } from '../../platform/index.ts';
import { gatheredNeeds, ordersOf, waveHead } from './needs.ts';
import { planJob, type PlanRun } from './planJobs.ts';
import { waveProblem } from './problem.ts';
import { lockWave } from './release.ts';
import { foreseen, plannedSums, StalePlan, writeRuns } from './writePlan.ts';

/** Times a plan is computed again because stock or work moved while it was computed. */
const ATTEMPTS = 3;

/** Seconds of searching: more for more orders, and never so long that a supervisor waits. */
export const searchSeconds = (orders: number): number => Math.min(11, Math.max(0.4, orders / 50));

/**
 * Plans a wave: bins, runs and routes. The computing is a job, done outside the transaction in a thread of its own; the
 * writing checks that the wave and the bins are still as they were, else it computes again.
 *
 * @throws Refusal 409 `wave-state` when it does not gather, `plan-stale` when everything moved again and again,
 *   `plan-running`, `plan-stopped`
 */
export const planWave = (platform: Platform, actor: Actor, repeat: Repeat | null, waveId: string): Promise<void> =>
  planJob(platform, { actor, repeat, waveId, replan: false }, ({ state, number }) => {
    if (state !== 'gathering') throw new Refusal('wave-state', { state, number });
  });

/** What the job of a plan does: it ends when the runs are written. */
export async function makePlan(platform: Platform, run: PlanRun): Promise<void> {
  for (let attempt = 1; ; attempt++) {
    if (await planOnce(platform, run)) return;
    if (attempt === ATTEMPTS) throw new Refusal('plan-stale');
  }
}

async function planOnce(platform: Platform, { actor, waveId, job, ...progress }: PlanRun): Promise<boolean> {
  const head = await waveHead(platform.db, actor.siteId, waveId);
  const needs = await gatheredNeeds(platform.db, waveId);
  const orders = ordersOf(needs);
  const problem = await waveProblem(platform.db, actor.siteId, {
    orders,
    needs,
    settings: head,
    now: platform.clock(),
  });
  const plan = await platform.compute.planWave(problem, { seconds: searchSeconds(orders.length), ...progress });
  return change(platform, actor, null, async (current) => {
    const wave = await lockWave(current.tx, actor.siteId, waveId);
    if (wave.state !== 'gathering') throw new Refusal('wave-state', { state: wave.state, number: wave.number });
    if (wave.version !== head.version) throw new StalePlan();
    await job.advance(current.tx, 1);
    const made = await writeRuns(current, { wave: head, waveId, plan, needs, state: 'planned' });
    const facts = foreseen(plannedSums(plan), problem.crew!.people, current.now);
    await current.tx.execute(
      sql`update wave set state = 'planned', version = version + 1, foreseen = ${JSON.stringify(facts)}::jsonb where id = ${waveId}`,
    );
    current.journal({
      kind: 'wave-planned',
      waveId,
      facts: { wave: wave.number, ...made, metres: Math.round(facts.metres) },
    });
    current.publish('waves', [waveId]);
    current.publish('runs', []);
    return true;
  }).catch((error: unknown) => {
    if (error instanceof StalePlan) return false;
    throw error;
  });
}
