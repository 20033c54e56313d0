import { sql } from 'drizzle-orm';
import type { z } from 'zod';
import type { confirmRunBody, RunPick } from '@hand-relay/contract';
import { freshProgress, type PickProgress } from '@hand-relay/core/handling/picking';
import { mustNotBeHeld } from '../../desk/holds/index.ts';
import { notFound, Refusal, rows, type Change } from '../../platform/index.ts';
import { confirmPick } from './input.ts';
import { lockRun, mustBeMine, type RunRow } from './lock.ts';
import { linePicks } from './read.ts';
import { freeCart, giveCart, journalRun, leaveLocked } from './take.ts';

type Body = z.output<typeof confirmRunBody>;
type Except = Body['except'][number];

/** Who picked it: as it was said, or whoever has the run, or for whom it waited. */
async function pickerOf({ tx, actor }: Change, run: RunRow, said: string | null): Promise<string> {
  const id = said ?? run.pickerId ?? run.assignedId ?? actor.personId;
  const [person] = await rows(
    tx,
    sql`select 1 from membership where site_id = ${actor.siteId} and person_id = ${id} and active`,
  );
  if (!person) throw notFound('person', id);
  return id;
}

/**
 * What a pick comes to: as planned, or as the exception says.
 *
 * @throws Refusal 422 with the field of the exception that cannot be
 */
function outcome(pick: RunPick, except: Except | undefined, at: number): { units: number; progress: PickProgress } {
  const { step } = pick;
  const item = step.item.name;
  const units = except?.units ?? step.units;
  const field = (name: string, message: string) => [{ path: `except.${at}.${name}`, message }];
  if (units > step.units)
    throw new Refusal('confirm-too-much', { item, units: step.units }, field('units', `at most ${step.units}`));
  if (units < step.units && !except?.reason) throw new Refusal('confirm-why', { item }, field('reason', 'required'));
  const lot = except?.lot ?? step.lot;
  if (lot !== step.lot && !step.otherLots.includes(lot!))
    throw new Refusal('confirm-lot', { item, lot: lot! }, field('lot', 'another lot of the bin that may be taken'));
  const serials = except?.serials ?? [];
  const known = new Set(step.serialsInBin);
  if (step.item.tracksSerial && (new Set(serials).size !== units || serials.some((s) => !known.has(s))))
    throw new Refusal('confirm-serials', { item, units }, except ? field('serials', `${units} of the bin`) : []);
  return {
    units,
    progress: {
      ...freshProgress,
      bin: true,
      lot: true,
      seen: true,
      counted: units,
      serials,
      swapped: lot === step.lot ? null : lot,
      ...(units < step.units ? { found: units, reason: except!.reason, note: except!.note } : {}),
    },
  };
}

/**
 * Confirms what is open of a run at once, as after picking by paper: all as planned, except what is said. The cart is left
 * in a lane, and the work passes on as after scans.
 *
 * @throws Refusal 409 `order-held`, `run-state`, `confirm-cartons` where goods go straight into cartons, 422 for an
 *   exception that cannot be
 */
export async function confirmRun(change: Change, runId: string, body: Body): Promise<void> {
  const { tx, actor, now } = change;
  const run = await lockRun(tx, actor.siteId, runId);
  if (!actor.rights.has('runs.arrange')) mustBeMine(run, actor.personId);
  if (run.state !== 'waiting' && run.state !== 'picking')
    throw new Refusal('run-state', { run: run.number, state: run.state });
  const picker = await pickerOf(change, run, body.picker);
  if (run.state === 'waiting')
    await giveCart(change, run, body.cart ?? run.cart ?? (await freeCart(change, run)), picker);
  await tx.execute(sql`select 1 from pick where run_id = ${runId} and state = 'open' order by id for update`);
  const open = (await linePicks(tx, { siteId: actor.siteId, runId, rights: actor.rights, now, bins: false })).filter(
    (p) => p.state === 'open',
  );
  const place = new Map(body.except.map((e, i) => [e.pick, i]));
  const unknown = body.except.find((e) => !open.some((p) => p.step.id === e.pick));
  if (unknown) throw notFound('pick', unknown.pick);
  for (const order of new Set(open.map((p) => p.order.id))) await mustNotBeHeld(tx, order, 'picking');
  for (const pick of open) {
    if (pick.step.carton) throw new Refusal('confirm-cartons', { run: run.number });
    const at = place.get(pick.step.id) ?? -1;
    const { units, progress } = outcome(pick, body.except[at], at);
    await confirmPick(change, run, pick, { progress, units, doneAt: now, restId: change.newId(), by: picker });
  }
  await journalRun(change, run, 'run-confirmed', { picks: open.length, except: body.except.length });
  change.publish('picks', [runId]);
  await leaveLocked(change, await lockRun(tx, actor.siteId, runId), body.lane);
}
