import { sql } from 'drizzle-orm';
import type { z } from 'zod';
import type { walkFromBody } from '@hand-relay/contract';
import { UnreachableStop } from '@hand-relay/core/routing';
import { routeRun, type RoutedRun, type RunStop } from '@hand-relay/core/waves';
import { notFound, recordset, rows, type Change } from '../platform/index.ts';
import { floorOf } from '../floor/index.ts';
import { wayOf } from '../ways/index.ts';
import { openPicks, stopOf } from './arrange.ts';
import { lockRun, mustBeMine } from './lock.ts';

/**
 * A pick is done out of turn: it comes next, and what is left of the run is walked the shortest way from there. Where no
 * walk leads on, the order stays.
 *
 * @param last a pick that is put off to the end of the run
 */
export async function walkFrom(
  change: Change,
  runId: string,
  { pick: pickId, last }: z.output<typeof walkFromBody>,
): Promise<void> {
  const { tx, actor } = change;
  const run = await lockRun(tx, actor.siteId, runId);
  mustBeMine(run, actor.personId);
  const picks = await openPicks(tx, runId);
  const first = picks.find((p) => p.id === pickId);
  if (!first) throw notFound('pick', pickId);
  const later = picks.filter((p) => p !== first && p.id === last);
  const rest = picks.filter((p) => p !== first && p.id !== last);
  if (rest.length + later.length === 0) return;
  const { carry, walking } = await wayOf(tx, actor.siteId);
  const { floor, start, finish } = await floorOf(tx, actor.siteId);
  // Where runs chain, this one ends where it was planned to, so that the next begins well.
  const end = walking.between === 'chain' ? picks.at(-1)! : (finish ?? start);
  const walk = onward(
    { floor, start: first, finish: end, carry, walking: { ...walking, between: 'home' } },
    rest.map(stopOf),
  );
  const [at] = await rows<{ last: number }>(
    tx,
    sql`select coalesce(max(sequence), 0)::int as last from pick where run_id = ${runId} and state <> 'open'`,
  );
  const order = [first, ...(walk?.order ?? rest), ...later].map((p) => p.id);
  await tx.execute(sql`
    update pick k set sequence = ${at!.last} + o.n
    from (select value as id, ordinality::int as n from jsonb_array_elements_text(${recordset(order)}) with ordinality) o where k.id = o.id`);
  if (walk) await tx.execute(sql`update run set path = ${JSON.stringify(walk.path)}::jsonb where id = ${runId}`);
  change.journal({ kind: 'out-of-turn', runId, waveId: run.waveId, facts: { run: run.number, bin: first.bin } });
  change.tell('runs', [runId]);
}

function onward(problem: Parameters<typeof routeRun>[0], stops: RunStop[]): RoutedRun<RunStop> | null {
  try {
    return routeRun(problem, stops);
  } catch (error) {
    if (error instanceof UnreachableStop) return null;
    throw error;
  }
}
