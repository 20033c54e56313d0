import { sql } from 'drizzle-orm';
import type { z } from 'zod';
import type { walkFromBody } from '@hand-relay/contract';
import { notFound, recordset, rows, type Change } from '../../platform/index.ts';
import { floorOf } from '../plan/index.ts';
import { settingsOf } from '../../setup/settings/index.ts';
import { openPicks, searchWalk } from './arrange.ts';
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
  const { carry, walking } = await settingsOf(tx, actor.siteId);
  const { floor, start, finish } = await floorOf(tx, actor.siteId);
  // Where runs chain, this one ends where it was planned to, so that the next begins well.
  const end = walking.between === 'chain' ? picks.at(-1)! : (finish ?? start);
  const problem = { floor, start: first, finish: end, carry, walking: { ...walking, between: 'home' as const } };
  const found = await searchWalk(change, problem, rest);
  const onward = 'walk' in found ? found : null;
  const [at] = await rows<{ last: number }>(
    tx,
    sql`select coalesce(max(sequence), 0)::int as last from pick where run_id = ${runId} and state <> 'open'`,
  );
  const order = [first.id, ...(onward?.order ?? rest.map((p) => p.id)), ...later.map((p) => p.id)];
  await tx.execute(sql`
    update pick k set sequence = ${at!.last} + o.n
    from (select value as id, ordinality::int as n from jsonb_array_elements_text(${recordset(order)}) with ordinality) o where k.id = o.id`);
  if (onward)
    await tx.execute(sql`update run set path = ${JSON.stringify(onward.walk.path)}::jsonb where id = ${runId}`);
  change.journal({ kind: 'out-of-turn', runId, waveId: run.waveId, facts: { run: run.number, bin: first.bin } });
  change.publish('picks', [runId]);
}
