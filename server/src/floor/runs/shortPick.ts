import { sql } from 'drizzle-orm';
import type { RunPick } from '@hand-relay/contract';
import {
  freshProgress,
  sendsOthersAway,
  suspectStock,
  type PickProgress,
  type PickStep,
  type ShortReason,
} from '@hand-relay/core/handling/picking';
import { rows, type Change } from '../../platform/index.ts';
import { raiseException } from '../../desk/exceptions/index.ts';
import { requestCount, blockAccess, discrepancyPlaceOf, move } from '../../stock/index.ts';
import { freeReservation } from '../../desk/waves/index.ts';
import { moveAway } from './moveAway.ts';
import { swapLot } from './reservations.ts';
import type { RunRow } from './lock.ts';

/** Goods that were not in their bin. */
export interface ShortPick {
  /** Place id of the bin. */
  bin: string;
  line: string;
  missing: number;
  reason: ShortReason;
  note: string;
}

/**
 * Stock that a short puts in doubt is promised to nobody until it is counted, which is asked for. Picks that would find
 * nothing either go to another bin.
 *
 * @returns units that wait for the count
 */
async function suspect(change: Change, run: RunRow, { step }: RunPick, short: ShortPick): Promise<number> {
  const { tx, actor } = change;
  const { bin, reason, missing } = short;
  const [item, lot] = [step.item.id, step.lot ?? ''];
  if (sendsOthersAway(reason)) await moveAway(change, { bin, code: step.bin, item, lot, holds: 0, besides: step.id });
  if (reason === 'bin-blocked') await blockAccess(change, bin);
  const there = await rows<{ serial: string; units: number }>(
    tx,
    sql`select serial, units from balance where place_id = ${bin} and item_id = ${item} and lot = ${lot} order by serial for update`,
  );
  const [free] = await rows<{ units: number }>(
    tx,
    sql`select on_hand - reserved as units from stock_total where site_id = ${actor.siteId} and item_id = ${item} and lot = ${lot} for update`,
  );
  const [others] = await rows<{ units: number }>(
    tx,
    sql`select coalesce(sum(units), 0)::int as units from pick
        where bin_id = ${bin} and item_id = ${item} and lot = ${lot} and state = 'open' and id <> ${step.id}`,
  );
  const doubtful = suspectStock({ reason, missing, there, sentFor: others!.units, free: free?.units ?? 0 });
  await move(
    change,
    doubtful.map((s) => ({ from: bin, to: discrepancyPlaceOf(actor.siteId), item, lot, ...s })),
    reason,
    `short ${step.id}`,
  );
  await wantLook(change, run, step, short);
  if (doubtful.length > 0) change.publish('stock', []);
  return doubtful.reduce((n, s) => n + s.units, 0);
}

/** Somebody shall look at the bin, and count what is in it. */
async function wantLook(change: Change, run: RunRow, step: PickStep, { bin, reason, note }: ShortPick): Promise<void> {
  const lot = step.lot ?? '';
  await requestCount(change, { bin, item: step.item.id, lot, reason, note, runId: run.id, pickId: step.id });
}

/** What is missing goes back to Desk as open. */
export async function reportShort(change: Change, run: RunRow, pick: RunPick, short: ShortPick): Promise<void> {
  const { step } = pick;
  await freeReservation(change.tx, {
    waveId: run.waveId,
    lineId: short.line,
    lot: step.lot ?? '',
    units: short.missing,
  });
  await raise(change, run, pick, 'short', short);
  announceShort(change, run, pick, 'short', { ...short, toCount: await suspect(change, run, pick, short) });
}

/** An order leaves its run because of what was wrong at a bin: the Desk hears why, and the bin is counted. */
export async function reportOut(change: Change, run: RunRow, pick: RunPick, lack: ShortPick): Promise<void> {
  await raise(change, run, pick, 'out', lack);
  announceShort(change, run, pick, 'out', { ...lack, toCount: await suspect(change, run, pick, lack) });
}

/** It stands on the Desk's list until somebody deals with it. */
async function raise(
  change: Change,
  run: RunRow,
  { step, order }: RunPick,
  kind: 'short' | 'elsewhere' | 'out',
  { bin, line, missing, reason, note, other = '' }: ShortPick & { other?: string },
): Promise<void> {
  await raiseException(change, {
    kind,
    order: order.id,
    line: kind === 'out' ? null : line,
    run: run.id,
    pick: step.id,
    place: bin,
    item: step.item.id,
    lot: step.lot ?? '',
    units: missing,
    reason,
    note,
    facts: other ? { other } : {},
  });
}

/** What is missing is taken from another bin: a pick of its own, next in the run, with the promise that goes with it. */
export async function takeElsewhere(
  change: Change,
  run: RunRow,
  pick: RunPick,
  lack: ShortPick & { rest: PickStep; restId: string },
): Promise<void> {
  const { step } = pick;
  const { rest, restId } = lack;
  const lot = rest.lot ?? '';
  if (lot !== (step.lot ?? ''))
    await swapLot(change, run.waveId, {
      line: lack.line,
      item: step.item,
      units: rest.units,
      from: step.lot ?? '',
      lot,
    });
  await addRest(change, run, step.id, { ...rest, id: restId }, freshProgress);
  await raise(change, run, pick, 'elsewhere', { ...lack, other: rest.bin });
  announceShort(change, run, pick, 'elsewhere', {
    ...lack,
    toCount: await suspect(change, run, pick, lack),
    other: rest.bin,
  });
}

/** The pick of what is left of another, next in its run. */
export async function addRest(
  { tx, actor }: Change,
  run: RunRow,
  of: string,
  rest: PickStep,
  progress: PickProgress,
): Promise<void> {
  await tx.execute(sql`
    insert into pick (id, run_id, sequence, order_id, line_id, item_id, lot, bin_id, position, units, progress, why, rest_of)
    select ${rest.id}, k.run_id, k.sequence + 1, k.order_id, k.line_id, k.item_id, ${rest.lot ?? ''}, p.id, k.position, ${rest.units}, ${JSON.stringify(progress)}::jsonb, 'hand', k.id
    from pick k join place p on p.site_id = ${actor.siteId} and p.kind = 'bin' and p.code = ${rest.bin} where k.id = ${of}`);
  await tx.execute(sql`
    update pick set sequence = sequence + 1 where run_id = ${run.id} and id <> ${rest.id}
      and sequence > (select sequence from pick where id = ${of})`);
}

function announceShort(
  change: Change,
  run: RunRow,
  pick: RunPick,
  kind: 'short' | 'elsewhere' | 'out',
  { missing, reason, note, toCount, other = '' }: ShortPick & { toCount: number; other?: string },
): void {
  const { step, order } = pick;
  const { name: item, sku } = step.item;
  change.journal({
    kind,
    orderId: order.id,
    runId: run.id,
    waveId: run.waveId,
    facts: { run: run.number, item, sku, bin: step.bin, missing, reason, note, toCount, other },
  });
  change.publish('orders', [order.id], {
    kind,
    for: 'orders.see',
    facts: {
      order: order.number,
      orderId: order.id,
      item,
      missing,
      reason,
      note,
      bin: step.bin,
      other,
      picker: change.actor.name,
    },
  });
}
