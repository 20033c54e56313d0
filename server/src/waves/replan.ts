import { sql } from 'drizzle-orm';
import type { PlanSums, ReplanLook } from '@hand-relay/contract';
import { forecast } from '@hand-relay/core/labour';
import type { WavePlan } from '@hand-relay/core/waves';
import {
  change,
  Refusal,
  rows,
  type Actor,
  type Change,
  type Db,
  type Platform,
  type Repeat,
  type Tx,
} from '../platform/index.ts';
import { dropRuns } from './arrange.ts';
import { ordersOf, unbegunNeeds, waveHead, type Need, type WaveHead } from './needs.ts';
import { searchSeconds } from './plan.ts';
import { asPlanJob } from './planJobs.ts';
import { waveProblem } from './problem.ts';
import { lockWave } from './release.ts';
import { endWaveIfDone } from './state.ts';
import { foreseen, plannedSums, StalePlan, writeRuns } from './writePlan.ts';

interface Draft {
  head: WaveHead;
  needs: Need[];
  plan: WavePlan;
  people: number;
  /** The runs that it would take the place of, as they were. */
  key: string;
}

/** Plans that were looked at and not put in place yet, by wave. After a restart the preview is computed again. */
const drafts = new WeakMap<Platform, Map<string, Draft>>();

interface Unbegun {
  run: string;
  order: string;
  line: string;
  bin: string;
  units: number;
  seconds: number;
  metres: number;
  stops: number;
}

const unbegunPicks = (on: Db | Tx, waveId: string): Promise<Unbegun[]> =>
  rows<Unbegun>(
    on,
    sql`select r.id as run, k.order_id as "order", k.line_id as line, b.code as bin, k.units, r.seconds, r.metres + coalesce(r.approach, 0) as metres, r.stops
        from pick k join run r on r.id = k.run_id join place b on b.id = k.bin_id
        where r.wave_id = ${waveId} and r.state in ('planned', 'waiting') and k.state = 'open' order by r.rank, r.id, k.sequence, k.id`,
  );
const keyOf = (picks: Unbegun[]) => JSON.stringify(picks.map(({ run, line, bin, units }) => [run, line, bin, units]));

function sumsOf(runs: { seconds: number; metres: number; stops: number }[], people: number, now: Date): PlanSums {
  const { ends, early, late } = forecast(
    runs.map(({ seconds }) => ({ seconds })),
    people,
  );
  const at = (seconds: number | null) => new Date(now.getTime() + 1000 * (seconds ?? 0)).toISOString();
  const sum = (of: 'seconds' | 'metres' | 'stops') => runs.reduce((n, r) => n + r[of], 0);
  return {
    runs: runs.length,
    stops: sum('stops'),
    metres: sum('metres'),
    seconds: sum('seconds'),
    ends: at(ends),
    early: at(early),
    late: at(late),
  };
}

/**
 * Replans the runs that nobody has started, for stock, floor and people as they are now, and says what would change.
 *
 * @throws Refusal 409 `wave-state` when the wave is not planned or started, `nothing-to-replan` when all is begun
 */
export async function lookReplan(platform: Platform, actor: Actor, waveId: string): Promise<ReplanLook> {
  const { db } = platform;
  const head = await waveHead(db, actor.siteId, waveId);
  if (head.state !== 'planned' && head.state !== 'started')
    throw new Refusal(409, 'wave-state', { state: head.state, number: head.number });
  const before = await unbegunPicks(db, waveId);
  if (before.length === 0) throw new Refusal(409, 'nothing-to-replan', { number: head.number });
  let draft: Draft | undefined;
  await asPlanJob(platform, actor, waveId, async (progress) => {
    const needs = await unbegunNeeds(db, waveId);
    const orders = ordersOf(needs);
    const problem = await waveProblem(db, actor.siteId, {
      orders,
      needs,
      way: head,
      now: platform.clock(),
      besides: waveId,
    });
    const plan = await platform.compute.planWave(problem, { seconds: searchSeconds(orders.length), ...progress });
    draft = { head, needs, plan, people: problem.crew!.people, key: keyOf(before) };
  });
  const { plan, people, needs } = draft!;
  const kept = drafts.get(platform) ?? new Map<string, Draft>();
  drafts.set(platform, kept.set(waveId, draft!));
  const now = platform.clock();
  const runs = [...new Map(before.map((p) => [p.run, p])).values()];
  const needOf = new Map(needs.map((n) => [n.id, n]));
  const binsOf = new Set(before.map((p) => `${p.line} ${p.bin}`));
  const mates = (groups: string[][]) =>
    new Map(groups.flatMap((g) => g.map((o) => [o, [...g].sort().join()] as const)));
  const old = mates(runs.map(({ run }) => [...new Set(before.filter((p) => p.run === run).map((p) => p.order))]));
  const next = mates(plan.runs.map((r) => r.orders));
  const missing = await shortsOf(db, plan, needOf);
  return {
    before: sumsOf(runs, people, now),
    after: sumsOf(
      plan.runs.map((r) => ({ seconds: r.seconds, metres: r.distance + r.approach, stops: r.stops })),
      people,
      now,
    ),
    bins: plan.runs.flatMap((r) => r.picks).filter((k) => !binsOf.has(`${needOf.get(k.need)!.line} ${k.bin}`)).length,
    orders: [...next].filter(([order, group]) => old.get(order) !== group).length,
    shorts: missing,
  };
}

async function shortsOf(db: Db, plan: WavePlan, needOf: ReadonlyMap<string, Need>): Promise<ReplanLook['shorts']> {
  const missing = plan.missing.map((m) => ({ ...m, need: needOf.get(m.need)! }));
  if (missing.length === 0) return [];
  const names = await rows<{ line: string; order: string; sku: string }>(
    db,
    sql`select l.id as line, o.number as "order", i.sku from order_line l join customer_order o on o.id = l.order_id join item i on i.id = l.item_id
        where l.id in (select jsonb_array_elements_text(${JSON.stringify(missing.map((m) => m.need.line))}::jsonb))`,
  );
  return missing.map(({ need, units }) => {
    const { order, sku } = names.find((n) => n.line === need.line)!;
    return { order, sku, units };
  });
}

/**
 * Puts the plan that was looked at last in place.
 *
 * @throws Refusal 409 `plan-stale` when there is none, or runs, stock or the wave moved since
 */
export async function replan(platform: Platform, actor: Actor, repeat: Repeat, waveId: string): Promise<void> {
  const draft = drafts.get(platform)?.get(waveId);
  await change(platform, actor, repeat, async (current) => {
    if (!draft) throw new Refusal(409, 'plan-stale');
    const { head, needs, plan, people, key } = draft;
    const wave = await lockWave(current.tx, actor.siteId, waveId);
    await current.tx.execute(
      sql`select 1 from run where wave_id = ${waveId} and state in ('planned', 'waiting') order by id for update`,
    );
    if (wave.version !== head.version || keyOf(await unbegunPicks(current.tx, waveId)) !== key) throw new StalePlan();
    await dropRuns(current, waveId);
    const state = wave.state === 'started' ? 'waiting' : 'planned';
    const made = await writeRuns(current, { wave: head, waveId, plan, needs, state });
    const facts = foreseen(plannedSums(plan), people, current.now);
    await current.tx.execute(
      sql`update wave set version = version + 1, foreseen = ${JSON.stringify(facts)}::jsonb where id = ${waveId}`,
    );
    if (made.runs === 0) await endEmpty(current, waveId);
    current.journal({
      kind: 'wave-replanned',
      waveId,
      facts: { wave: wave.number, ...made, metres: Math.round(facts.metres) },
    });
    current.tell('waves', [waveId]);
    current.tell('runs', []);
  }).catch((error: unknown) => {
    if (error instanceof StalePlan) throw new Refusal(409, 'plan-stale');
    throw error;
  });
  drafts.get(platform)?.delete(waveId);
}

/** Nothing is left to plan: a wave that nobody has begun is over, one that is started ends with its last run. */
async function endEmpty(current: Change, waveId: string): Promise<void> {
  await current.tx.execute(sql`
    update wave w set state = 'cancelled' where w.id = ${waveId} and w.state = 'planned'
      and not exists (select 1 from reservation r where r.wave_id = w.id and r.units > 0)`);
  await endWaveIfDone(current, waveId);
}
