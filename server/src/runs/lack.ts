import { sql } from 'drizzle-orm';
import type { RunPick } from '@hand-relay/contract';
import { freshProgress, type PickProgress, type PickStep, type ShortReason } from '@hand-relay/core/picking';
import { rows, type Change } from '../platform/index.ts';
import { raiseException } from '../exceptions/index.ts';
import { askCount, blockAccess, inquiryOf, move } from '../stock/index.ts';
import { giveBack } from '../waves/index.ts';
import { moveAway } from './moveAway.ts';
import { swapLot } from './promises.ts';
import type { RunRow } from './lock.ts';

/** Goods that were not in their bin. */
export interface Lack {
  /** Place id of the bin. */
  bin: string;
  line: string;
  missing: number;
  reason: ShortReason;
  note: string;
}

/**
 * The books stop promising what nobody finds: the units that a damaged report names, or all that the bin should still
 * hold and that is promised to nobody, wait for a count, for which the bin is put up. Of a bin that nobody gets at nothing
 * is in doubt: it is not proposed until somebody was there.
 */
async function doubt(change: Change, run: RunRow, { step }: RunPick, short: Lack): Promise<number> {
  const { tx, actor } = change;
  const lot = step.lot ?? '';
  if (short.reason === 'bin-blocked') {
    // What nobody gets at is still there.
    await moveAway(change, { bin: short.bin, code: step.bin, item: step.item.id, lot, holds: 0, besides: step.id });
    await blockAccess(change, short.bin);
    await wantLook(change, run, step, short);
    return 0;
  }
  // Damaged goods say nothing of those beside them; otherwise whoever is sent here would find nothing either.
  if (short.reason !== 'damaged')
    await moveAway(change, { bin: short.bin, code: step.bin, item: step.item.id, lot, holds: 0, besides: step.id });
  const there = await rows<{ serial: string; units: number }>(
    tx,
    sql`select serial, units from balance where place_id = ${short.bin} and item_id = ${step.item.id} and lot = ${lot} order by serial for update`,
  );
  const [free] = await rows<{ units: number }>(
    tx,
    sql`select on_hand - reserved as units from stock_total where site_id = ${actor.siteId} and item_id = ${step.item.id} and lot = ${lot} for update`,
  );
  // What other pickers are sent here for stays on the books: each of them says what they find.
  const [others] = await rows<{ units: number }>(
    tx,
    sql`select coalesce(sum(units), 0)::int as units from pick
        where bin_id = ${short.bin} and item_id = ${step.item.id} and lot = ${lot} and state = 'open' and id <> ${step.id}`,
  );
  const inBin = Math.max(0, there.reduce((n, b) => n + b.units, 0) - others!.units);
  let doubtful = Math.min(short.reason === 'damaged' ? short.missing : inBin, inBin, free?.units ?? 0);
  const moves = there.flatMap((b) => {
    const units = Math.min(doubtful, b.units);
    doubtful -= units;
    return units > 0
      ? [{ from: short.bin, to: inquiryOf(actor.siteId), item: step.item.id, lot, serial: b.serial, units }]
      : [];
  });
  await move(change, moves, short.reason, `short ${step.id}`);
  await wantLook(change, run, step, short);
  change.tell('stock', []);
  return moves.reduce((n, m) => n + m.units, 0);
}

/** Somebody shall look at the bin, and count what is in it. */
async function wantLook(change: Change, run: RunRow, step: PickStep, { bin, reason, note }: Lack): Promise<void> {
  const lot = step.lot ?? '';
  await askCount(change, { bin, item: step.item.id, lot, reason, note, runId: run.id, pickId: step.id });
}

/** What is missing goes back to Desk as open. */
export async function reportShort(change: Change, run: RunRow, pick: RunPick, short: Lack): Promise<void> {
  const { step } = pick;
  await giveBack(change.tx, { waveId: run.waveId, lineId: short.line, lot: step.lot ?? '', units: short.missing });
  await raise(change, run, pick, 'short', short);
  tellLack(change, run, pick, 'short', { ...short, toCount: await doubt(change, run, pick, short) });
}

/** An order leaves its run because of what was wrong at a bin: the Desk hears why, and the bin is counted. */
export async function reportOut(change: Change, run: RunRow, pick: RunPick, lack: Lack): Promise<void> {
  await raise(change, run, pick, 'out', lack);
  tellLack(change, run, pick, 'out', { ...lack, toCount: await doubt(change, run, pick, lack) });
}

/** It stands on the Desk's list until somebody deals with it. */
async function raise(
  change: Change,
  run: RunRow,
  { step, order }: RunPick,
  kind: 'short' | 'elsewhere' | 'out',
  { bin, line, missing, reason, note, other = '' }: Lack & { other?: string },
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
  lack: Lack & { rest: PickStep; restId: string },
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
  tellLack(change, run, pick, 'elsewhere', { ...lack, toCount: await doubt(change, run, pick, lack), other: rest.bin });
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

function tellLack(
  change: Change,
  run: RunRow,
  pick: RunPick,
  kind: 'short' | 'elsewhere' | 'out',
  { missing, reason, note, toCount, other = '' }: Lack & { toCount: number; other?: string },
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
  change.tell('orders', [order.id], {
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
