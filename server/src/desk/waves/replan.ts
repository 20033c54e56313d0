import { sql } from 'drizzle-orm';
import type { PlanSums, ReplanPreview } from '@hand-relay/contract';
import { forecast } from '@hand-relay/core/walking/labour';
import type { WavePlan } from '@hand-relay/core/walking/waves';
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
} from '../../platform/index.ts';
import { dropRuns } from './arrange.ts';
import { ordersOf, unbegunNeeds, waveHead, type Need, type WaveHead } from './needs.ts';
import { searchSeconds } from './plan.ts';
import { planJob, type PlanRun } from './planJobs.ts';
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
export async function previewReplan(
  platform: Platform,
  actor: Actor,
  repeat: Repeat | null,
  waveId: string,
): Promise<ReplanPreview> {
  const { db } = platform;
  const before = await unbegunPicks(db, waveId);
  await planJob(platform, { actor, repeat, waveId, replan: true }, ({ state, number }) => {
    if (state !== 'planned' && state !== 'started') throw new Refusal('wave-state', { state, number });
    if (before.length === 0) throw new Refusal('nothing-to-replan', { number });
  });
  const draft = await draftOf(db, waveId);
  if (!draft) throw new Refusal('plan-stale');
  const { plan, people, needs } = draft;
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

async function shortsOf(db: Db, plan: WavePlan, needOf: ReadonlyMap<string, Need>): Promise<ReplanPreview['shorts']> {
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

/** What the job of a new plan does: the draft is there for whichever server is asked to put it in place. */
export async function makeDraft(platform: Platform, { actor, waveId, job, ...progress }: PlanRun): Promise<void> {
  const { db } = platform;
  const head = await waveHead(db, actor.siteId, waveId);
  const key = keyOf(await unbegunPicks(db, waveId));
  const needs = await unbegunNeeds(db, waveId);
  const orders = ordersOf(needs);
  const problem = await waveProblem(db, actor.siteId, {
    orders,
    needs,
    settings: head,
    now: platform.clock(),
    besides: waveId,
  });
  const plan = await platform.compute.planWave(problem, { seconds: searchSeconds(orders.length), ...progress });
  const draft: Draft = { head, needs, plan, people: problem.crew!.people, key };
  await change(platform, actor, null, async ({ tx, now }) => {
    await job.advance(tx, 1);
    await tx.execute(
      sql`insert into replan_draft (wave_id, at, draft) values (${waveId}, ${now.toISOString()}, ${JSON.stringify(draft)}::jsonb)
          on conflict (wave_id) do update set at = excluded.at, draft = excluded.draft`,
    );
  });
}

async function draftOf(on: Db | Tx, waveId: string): Promise<Draft | undefined> {
  const [stored] = await rows<{ draft: Draft }>(on, sql`select draft from replan_draft where wave_id = ${waveId}`);
  return stored?.draft;
}

/**
 * Puts the plan that was looked at last in place.
 *
 * @throws Refusal 409 `plan-stale` when there is none, or runs, stock or the wave moved since
 */
export async function replan(platform: Platform, actor: Actor, repeat: Repeat, waveId: string): Promise<void> {
  await change(platform, actor, repeat, async (current) => {
    const draft = await draftOf(current.tx, waveId);
    if (!draft) throw new Refusal('plan-stale');
    const { head, needs, plan, people, key } = draft;
    const wave = await lockWave(current.tx, actor.siteId, waveId);
    await current.tx.execute(
      sql`select 1 from run where wave_id = ${waveId} and state in ('planned', 'waiting') order by id for update`,
    );
    if (wave.version !== head.version || keyOf(await unbegunPicks(current.tx, waveId)) !== key) throw new StalePlan();
    await current.tx.execute(sql`delete from replan_draft where wave_id = ${waveId}`);
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
    current.publish('waves', [waveId]);
    current.publish('runs', []);
  }).catch((error: unknown) => {
    if (error instanceof StalePlan) throw new Refusal('plan-stale');
    throw error;
  });
}

/** Nothing is left to plan: a wave that nobody has begun is over, one that is started ends with its last run. */
async function endEmpty(current: Change, waveId: string): Promise<void> {
  await current.tx.execute(sql`
    update wave w set state = 'cancelled' where w.id = ${waveId} and w.state = 'planned'
      and not exists (select 1 from reservation r where r.wave_id = w.id and r.units > 0)`);
  await endWaveIfDone(current, waveId);
}
