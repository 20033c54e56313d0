import { sql } from 'drizzle-orm';
import type { z } from 'zod';
import type { inputBody, PickVerdictAnswer, RunPick } from '@hand-relay/contract';
import { localDate } from '@hand-relay/core/calendar';
import {
  atSameBin,
  judgePick,
  otherBin,
  outcomeOf,
  restProgress,
  type PickInput,
  type PickProgress,
  type PickStep,
} from '@hand-relay/core/handling/picking';
import { mustNotBeHeld } from '../../desk/holds/index.ts';
import { anyOf, notFound, Refusal, rows, type Change } from '../../platform/index.ts';
import { move, type Move } from '../../stock/index.ts';
import { cartonFor, writePacked } from './intoCarton.ts';
import { kindOfCode } from './kindOfCode.ts';
import { linePicks } from './read.ts';
import { addRest, reportShort, takeElsewhere } from './shortPick.ts';
import { settingsOf } from '../../setup/settings/index.ts';
import { hardAllocate, swapLot } from './reservations.ts';
import { lockRun, mustBeMine, type RunRow } from './lock.ts';
import { sharedOut, together } from './together.ts';

/**
 * Judges an input at a pick as the device did, and writes what it means. A refused input changes nothing and is
 * journalled like any other.
 *
 * @param agoMs milliseconds since it was done, where the device had kept it
 */
export async function pickInput(
  change: Change,
  runId: string,
  { pick: pickId, input }: z.output<typeof inputBody>,
  agoMs = 0,
): Promise<PickVerdictAnswer> {
  const { tx, actor, now } = change;
  const doneAt = doneWhen(agoMs, now);
  const run = await lockRun(tx, actor.siteId, runId);
  // What is asked of a pick must not change under the scan: the Desk may be taking units back.
  await tx.execute(sql`select 1 from pick where run_id = ${runId} and state = 'open' order by id for update`);
  const joined = together(
    await linePicks(tx, {
      siteId: actor.siteId,
      runId,
      pickId,
      rights: actor.rights,
      now,
      // Other bins are looked for only where the input may mean one.
      bins:
        (input.kind === 'short' && !!input.rest) ||
        (input.kind === 'scan' && (await settingsOf(tx, actor.siteId)).otherBins),
    }),
  ).find(({ lines }) => lines.some((l) => l.step.id === pickId));
  await asCaught(run, joined?.pick, input, async () => {
    mustBeMine(run, actor.personId);
    for (const order of new Set(joined?.lines.map((l) => l.order.id))) await mustNotBeHeld(tx, order, 'picking');
  });
  if (!joined) throw notFound('pick', pickId);
  const { pick, lines } = joined;
  if (pick.state !== 'open') throw new Refusal('pick-done', { state: pick.state, picked: pick.picked });
  const verdict = judgePick(pick.step, pick.progress, input, localDate(doneAt.getTime(), run.timeZone));
  const facts = {
    run: run.number,
    pick: pickId,
    item: pick.step.item.name,
    bin: pick.step.bin,
    input,
    ...(doneAt < now ? { doneAt: doneAt.toISOString() } : {}),
    ...(verdict.verdict === 'refused'
      ? { code: verdict.code, expected: verdict.expected, got: verdict.got, units: verdict.units }
      : { what: verdict.what }),
  };
  change.journal({
    kind: verdict.verdict === 'refused' ? 'scan-refused' : 'scan-accepted',
    orderId: pick.order.id,
    runId,
    waveId: run.waveId,
    facts,
  });
  let gotName: string | undefined;
  if (verdict.verdict === 'refused' && /^\d{14}$/.test(verdict.got)) {
    const [item] = await rows<{ name: string }>(
      tx,
      sql`select i.name from item_pack p join item i on i.id = p.item_id where p.gtin = ${verdict.got}`,
    );
    gotName = item?.name;
  }
  const named =
    verdict.verdict === 'refused' && input.kind === 'scan' && mayBeNamed.has(verdict.code)
      ? await kindOfCode(tx, actor.siteId, input.text)
      : null;
  if (verdict.verdict !== 'done' && verdict.progress !== pick.progress)
    await tx.execute(
      sql`update pick set progress = ${JSON.stringify(verdict.progress)}::jsonb where id = ${pick.step.id}`,
    );
  if (verdict.verdict === 'done') {
    // The device names the pick of the rest by the pick that it sees: the first of those that are done together.
    let restId: string | null = `${pick.step.id}.r`;
    const { rest } = verdict.progress;
    let there = (rest && otherBin(pick.step, rest)?.units) ?? 0;
    for (const { line, units, progress } of sharedOut(lines, verdict.progress, verdict.units)) {
      const elsewhere = line.step.elsewhere.map((o) => ({ ...o, units: Math.min(o.units, there) }));
      const taken = { ...line, step: { ...line.step, elsewhere } };
      await confirmPick(change, run, taken, { progress, units, doneAt, restId: restId ?? change.newId() });
      there -= Math.min(there, line.step.units - units);
      if (units < line.step.units) restId = null;
    }
  }
  if (verdict.verdict === 'done') await sameBin(change, runId, lines);
  if (verdict.verdict !== 'refused' || verdict.code === 'serial-taken') change.publish('picks', [runId]);
  const [open] = await rows<{ picks: number }>(
    tx,
    sql`select count(*)::int as picks from pick where run_id = ${runId} and state = 'open'`,
  );
  return {
    ...verdict,
    ...(gotName ? { gotName } : {}),
    ...(named ? { gotKind: named.kind, gotName: named.name } : {}),
    runComplete: open!.picks === 0,
  };
}

/** Refusals of codes that may be something else of the house. */
const mayBeNamed: ReadonlySet<string> = new Set(['unknown-code', 'not-awaited', 'wrong-lot', 'wrong-serial']);

/** What follows at the bin of picks that are done needs no second scan of it. */
async function sameBin({ tx }: Change, runId: string, done: readonly RunPick[]): Promise<void> {
  const picks = await rows<{ id: string; bin: string; open: boolean }>(
    tx,
    sql`select id, bin_id as bin, state = 'open' as open from pick where run_id = ${runId} order by sequence`,
  );
  const last = picks.findLastIndex((p) => done.some((d) => d.step.id === p.id));
  const following = atSameBin(picks, last).map((n) => picks[n]!.id);
  if (following.length > 0)
    await tx.execute(sql`
      update pick set progress = coalesce(progress, '{}'::jsonb) || '{"bin": true}'::jsonb
      where id = ${anyOf(following)}`);
}

/** A scan that may not be made at all is a caught error like one that is judged: of another's run, or for what is held. */
async function asCaught(
  run: RunRow,
  pick: RunPick | undefined,
  input: PickInput,
  may: () => Promise<void>,
): Promise<void> {
  try {
    await may();
  } catch (error) {
    if (error instanceof Refusal && input.kind === 'scan')
      error.caught = {
        kind: 'scan-refused',
        orderId: pick?.order.id ?? null,
        runId: run.id,
        waveId: run.waveId,
        facts: {
          ...error.facts,
          run: run.number,
          ...(pick ? { pick: pick.step.id, item: pick.step.item.name, bin: pick.step.bin } : {}),
          input,
          code: error.code,
          got: input.text,
        },
      };
    throw error;
  }
}

/** Milliseconds by which a device may be late with telling before it says so; and as long as it is believed at all. */
const LATE = 5000;
const BELIEVED = 24 * 3_600_000;

/** A picker chose another bin: nothing is in doubt, and the pick goes on there. */
async function takeFrom(change: Change, run: RunRow, pick: RunPick, rest: PickStep, restId: string): Promise<void> {
  await addRest(change, run, pick.step.id, { ...rest, id: restId }, restProgress({ ...pick.progress, moved: true }));
  change.journal({
    kind: 'bin-changed',
    orderId: pick.order.id,
    runId: run.id,
    waveId: run.waveId,
    facts: { run: run.number, from: pick.step.bin, bin: rest.bin, units: rest.units },
  });
}

/** When something was done, as the device says: earlier than now where it was kept for a while, never later. */
const doneWhen = (agoMs: number, now: Date): Date =>
  agoMs > LATE && agoMs < BELIEVED ? new Date(now.getTime() - agoMs) : now;

interface Done {
  doneAt: Date;
  progress: PickProgress;
  units: number;
  /** The id of the pick of the rest, where there is one. */
  restId: string;
  /** Who picked it, where that is not whoever confirms it. */
  by?: string;
}

/** Writes what a pick came to: goods move, what is missing goes back to the Desk or to another bin. */
export async function confirmPick(
  change: Change,
  run: RunRow,
  pick: RunPick,
  { progress, units, doneAt, restId, by = change.actor.personId }: Done,
): Promise<void> {
  const { tx } = change;
  const { step } = pick;
  const { state, missing: short, keeps, rest } = outcomeOf(step, progress, units);
  const [at] = await rows<{ bin: string; place: string; line: string }>(
    tx,
    sql`select k.bin_id as bin, q.place_id as place, k.line_id as line from pick k
        join run_position q on q.run_id = k.run_id and q.number = k.position where k.id = ${step.id}`,
  );
  const lot = progress.swapped ?? step.lot ?? '';
  if (progress.swapped && units > 0)
    await swapLot(change, run.waveId, { line: at!.line, item: step.item, units, from: step.lot ?? '', lot });
  const carton = step.carton && units > 0 ? await cartonFor(change, run, pick, progress) : null;
  const one = { from: at!.bin, to: carton?.place ?? at!.place, item: step.item.id, lot };
  let moves: Move[] = [];
  if (units > 0) {
    await hardAllocate(change, run.waveId, { line: at!.line, item: step.item.id, lot, units });
    moves = step.item.tracksSerial
      ? progress.serials.map((serial) => ({ ...one, serial, units: 1 }))
      : [{ ...one, serial: '', units }];
    await move(change, moves, 'pick', step.id);
  }
  await tx.execute(sql`
    with done as (
      update pick set picked = ${units}, units = ${keeps}, lot = ${lot}, state = ${state}, progress = ${JSON.stringify(progress)}::jsonb,
        confirmed_at = ${doneAt.toISOString()}, confirmed_by = ${by} where id = ${step.id}
    )
    update order_line set picked = picked + ${units} where id = ${at!.line}`);
  if (carton) await writePacked(change, carton.id, at!.line, moves);
  const facts = {
    run: run.number,
    item: step.item.name,
    sku: step.item.sku,
    bin: step.bin,
    lot,
    units,
    asked: step.units,
    position: step.position.number,
    ...(step.item.tracksSerial && units > 0 ? { serials: progress.serials } : {}),
    ...(progress.touched.length > 0 ? { touched: progress.touched } : {}),
  };
  if (units > 0 || !rest)
    change.journal({
      kind: 'picked',
      orderId: pick.order.id,
      runId: run.id,
      waveId: run.waveId,
      facts: { ...facts, pick: step.id },
    });
  const { reason, note } = progress;
  const lack = { bin: at!.bin, line: at!.line, reason: reason!, note };
  if (rest && progress.full) await addRest(change, run, step.id, { ...rest, id: restId }, restProgress(progress));
  else if (rest && progress.moved) await takeFrom(change, run, pick, rest, restId);
  else if (rest) await takeElsewhere(change, run, pick, { ...lack, missing: rest.units, rest, restId });
  if (short > 0) await reportShort(change, run, pick, { ...lack, missing: short });
  change.publish('progress', [pick.order.id]);
}
