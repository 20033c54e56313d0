import { sql } from 'drizzle-orm';
import type { PickVerdictAnswer, RunPick } from '@hand-relay/contract';
import {
  freshProgress,
  judgePick,
  type PickInput,
  type PickProgress,
  type ShortReason,
} from '@hand-relay/core/picking';
import { mustNotBeHeld } from '../holds/index.ts';
import { notFound, Refusal, rows, type Change } from '../platform/index.ts';
import { inquiryOf, move } from '../stock/index.ts';
import { giveBack } from '../waves/index.ts';
import { wayOf } from '../ways/index.ts';
import { linePicks } from './read.ts';
import { lockRun, mustBeMine, type RunRow } from './take.ts';
import { sharedOut, together } from './together.ts';

/**
 * Judges an input at a pick as the device did, and writes what it means. A refused input changes nothing and is
 * journalled like any other.
 */
export async function pickInput(
  change: Change,
  runId: string,
  pickId: string,
  input: PickInput,
): Promise<PickVerdictAnswer> {
  const { tx, actor, now } = change;
  const run = await lockRun(tx, actor.siteId, runId);
  mustBeMine(run, actor.personId);
  const joined = together(await linePicks(tx, { siteId: actor.siteId, runId, pickId })).find(({ lines }) =>
    lines.some((l) => l.step.id === pickId),
  );
  if (!joined) throw notFound('pick', pickId);
  const { pick, lines } = joined;
  if (pick.state !== 'open') throw new Refusal(409, 'pick-done', { state: pick.state, picked: pick.picked });
  for (const order of new Set(lines.map((l) => l.order.id))) await mustNotBeHeld(tx, order, 'picking');
  const verdict = judgePick(pick.step, pick.progress, input, now.toISOString().slice(0, 10));
  const facts = {
    run: run.number,
    pick: pickId,
    item: pick.step.item.name,
    bin: pick.step.bin,
    input,
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
  if (verdict.verdict === 'accepted')
    await tx.execute(
      sql`update pick set progress = ${JSON.stringify(verdict.progress)}::jsonb where id = ${pick.step.id}`,
    );
  if (verdict.verdict === 'done')
    for (const { line, units, progress } of sharedOut(lines, verdict.progress, verdict.units))
      await confirm(change, run, line, progress, units);
  if (verdict.verdict !== 'refused') change.tell('runs', [runId]);
  const [open] = await rows<{ picks: number }>(
    tx,
    sql`select count(*)::int as picks from pick where run_id = ${runId} and state = 'open'`,
  );
  return { ...verdict, ...(gotName ? { gotName } : {}), runComplete: open!.picks === 0 };
}

async function confirm(
  change: Change,
  run: RunRow,
  pick: RunPick,
  progress: PickProgress,
  units: number,
): Promise<void> {
  const { tx, actor, now } = change;
  const { step } = pick;
  const [at] = await rows<{ bin: string; place: string; line: string }>(
    tx,
    sql`select k.bin_id as bin, q.place_id as place, k.line_id as line from pick k
        join run_position q on q.run_id = k.run_id and q.number = k.position where k.id = ${step.id}`,
  );
  const lot = progress.swapped ?? step.lot ?? '';
  if (progress.swapped && units > 0) await swapLot(change, run, { line: at!.line, pick, units, lot });
  const one = { from: at!.bin, to: at!.place, item: step.item.id, lot };
  if (units > 0) {
    await firmUp(change, run.waveId, { line: at!.line, item: step.item.id, lot, units });
    const moves = step.item.tracksSerial
      ? progress.serials.map((serial) => ({ ...one, serial, units: 1 }))
      : [{ ...one, serial: '', units }];
    await move(change, moves, 'pick', step.id);
  }
  await tx.execute(sql`
    with done as (
      update pick set picked = ${units}, lot = ${lot}, state = ${units < step.units ? 'short' : 'done'}, progress = ${JSON.stringify(progress)}::jsonb,
        confirmed_at = ${now.toISOString()}, confirmed_by = ${actor.personId} where id = ${step.id}
    )
    update order_line set picked = picked + ${units} where id = ${at!.line}`);
  const facts = {
    run: run.number,
    item: step.item.name,
    sku: step.item.sku,
    bin: step.bin,
    lot,
    units,
    asked: step.units,
    position: step.position.number,
  };
  change.journal({
    kind: 'picked',
    orderId: pick.order.id,
    runId: run.id,
    waveId: run.waveId,
    facts: { ...facts, pick: step.id },
  });
  if (units < step.units)
    await reportShort(change, run, pick, {
      bin: at!.bin,
      line: at!.line,
      missing: step.units - units,
      reason: progress.reason!,
    });
  change.tell('orders', [pick.order.id]);
  change.tell('waves', [run.waveId]);
}

/**
 * What is picked is promised firmly, where release did not do so.
 *
 * @throws Refusal 409 `promised-away` when others were promised it meanwhile
 */
async function firmUp(
  { tx, actor }: Change,
  waveId: string,
  { line, item, lot, units }: { line: string; item: string; lot: string; units: number },
): Promise<void> {
  const [soft] = await rows<{ free: number }>(
    tx,
    sql`select (t.on_hand - t.reserved)::int as free from reservation r
        join stock_total t on t.site_id = ${actor.siteId} and t.item_id = ${item} and t.lot = ${lot}
        where r.wave_id = ${waveId} and r.line_id = ${line} and r.lot = ${lot} and r.firm + ${units} <= r.units for update`,
  );
  if (!soft) return;
  if (soft.free < units) throw new Refusal(409, 'promised-away', { item, units: soft.free });
  await tx.execute(
    sql`update reservation set firm = firm + ${units} where wave_id = ${waveId} and line_id = ${line} and lot = ${lot}`,
  );
}

/**
 * The promise moves to the lot that is taken.
 *
 * @throws Refusal 409 `lot-promised` when the other lot was promised to others meanwhile
 */
async function swapLot(
  { tx, actor }: Change,
  run: RunRow,
  { line, pick, units, lot }: { line: string; pick: RunPick; units: number; lot: string },
): Promise<void> {
  const { step } = pick;
  const [free] = await rows<{ units: number }>(
    tx,
    sql`select on_hand - reserved as units from stock_total where site_id = ${actor.siteId} and item_id = ${step.item.id} and lot = ${lot} for update`,
  );
  if ((free?.units ?? 0) < units) throw new Refusal(409, 'lot-promised', { lot, item: step.item.name });
  await tx.execute(sql`
    with less as (
      update reservation set units = units - ${units}, firm = least(firm, units - ${units})
      where wave_id = ${run.waveId} and line_id = ${line} and lot = ${step.lot ?? ''}
    )
    insert into reservation (wave_id, line_id, site_id, item_id, lot, units, firm)
    values (${run.waveId}, ${line}, ${actor.siteId}, ${step.item.id}, ${lot}, ${units}, ${units})
    on conflict (line_id, wave_id, lot) do update set units = reservation.units + excluded.units, firm = reservation.firm + excluded.firm`);
}

/**
 * What is missing goes back to Desk as open, and the books stop promising what nobody finds: the units a damaged
 * report names, or all that the bin should still hold and that is promised to nobody, wait for a count.
 */
async function reportShort(
  change: Change,
  run: RunRow,
  pick: RunPick,
  short: { bin: string; line: string; missing: number; reason: ShortReason },
): Promise<void> {
  const { tx, actor } = change;
  const { step } = pick;
  const lot = step.lot ?? '';
  await giveBack(tx, { waveId: run.waveId, lineId: short.line, lot, units: short.missing });
  const there = await rows<{ serial: string; units: number }>(
    tx,
    sql`select serial, units from balance where place_id = ${short.bin} and item_id = ${step.item.id} and lot = ${lot} order by serial`,
  );
  const [free] = await rows<{ units: number }>(
    tx,
    sql`select on_hand - reserved as units from stock_total where site_id = ${actor.siteId} and item_id = ${step.item.id} and lot = ${lot}`,
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
  change.journal({
    kind: 'short',
    orderId: pick.order.id,
    runId: run.id,
    waveId: run.waveId,
    facts: {
      run: run.number,
      item: step.item.name,
      sku: step.item.sku,
      bin: step.bin,
      missing: short.missing,
      reason: short.reason,
      toCount: moves.reduce((n, m) => n + m.units, 0),
    },
  });
  change.tell('orders', [pick.order.id], {
    kind: 'short',
    facts: {
      order: pick.order.number,
      orderId: pick.order.id,
      item: step.item.name,
      missing: short.missing,
      reason: short.reason,
      picker: actor.name,
    },
  });
  change.tell('stock', []);
}

/**
 * Undoes the last confirmation of a run: the goods go back into the bin, a short is taken back. Without a
 * confirmation to undo, `pick` is null.
 *
 * @throws Refusal 409 when the goods were packed meanwhile, or what a short gave back was promised to others
 */
export async function undoPick(change: Change, runId: string): Promise<{ pick: string | null }> {
  const run = await lockRun(change.tx, change.actor.siteId, runId);
  mustBeMine(run, change.actor.personId);
  let last = await undoLine(change, run, null);
  let pick = last?.id ?? null;
  // What was picked for several orders at once is undone at once; the first of them bears the pick.
  for (; last?.together; pick = last?.id ?? pick) last = await undoLine(change, run, last.together);
  return { pick };
}

interface Confirmed {
  bin: string;
  item: string;
  lot: string;
  at: string;
}

/** Undoes the last confirmation of one line, or the last of those that were confirmed with it; null where there is none. */
async function undoLine(
  change: Change,
  run: RunRow,
  group: Confirmed | null,
): Promise<{ id: string; together: Confirmed | null } | null> {
  const { tx, actor } = change;
  const runId = run.id;
  const among = group
    ? sql`and k.bin_id = ${group.bin} and k.item_id = ${group.item} and k.lot = ${group.lot} and k.confirmed_at = ${group.at}`
    : sql``;
  const [last] = await rows<{
    id: string;
    order: string;
    line: string;
    item: string;
    lot: string;
    units: number;
    picked: number;
    free: number;
    open: number;
    together: Confirmed | null;
  }>(
    tx,
    sql`select k.id, k.order_id as "order", k.line_id as line, i.name as item, k.lot, k.units, k.picked,
               coalesce(t.on_hand - t.reserved, 0)::int as free, (l.asked - l.cancelled - l.released)::int as open,
               case when r.picking = 'consolidate' then jsonb_build_object('bin', k.bin_id, 'item', k.item_id, 'lot', k.lot, 'at', k.confirmed_at) end as together
        from pick k join run r on r.id = k.run_id join item i on i.id = k.item_id join order_line l on l.id = k.line_id
        left join stock_total t on t.site_id = ${actor.siteId} and t.item_id = k.item_id and t.lot = k.lot
        where k.run_id = ${runId} and k.state in ('done', 'short') ${among} order by k.confirmed_at desc, k.sequence desc limit 1
        for update of k, l`,
  );
  if (!last) return null;
  const made = await rows<{ from: string; to: string; itemId: string; lot: string; serial: string; units: number }>(
    tx,
    sql`select m.from_place as "from", m.to_place as "to", m.item_id as "itemId", m.lot, m.serial, sum(m.units)::int as units
        from movement m where m.document in (${last.id}, ${`short ${last.id}`}) and m.id > coalesce(
          (select max(u.id) from movement u where u.document = ${`undo ${last.id}`}), 0)
        group by 1, 2, 3, 4, 5`,
  );
  await move(
    change,
    made.map((m) => ({ from: m.to, to: m.from, item: m.itemId, lot: m.lot, serial: m.serial, units: m.units })),
    'undo',
    `undo ${last.id}`,
  );
  const missing = last.units - last.picked;
  if (missing > 0) {
    const back = made.filter((m) => m.to === inquiryOf(actor.siteId)).reduce((n, m) => n + m.units, 0);
    const firm = (await wayOf(tx, actor.siteId)).reserve !== 'scan';
    if (last.open < missing || (firm && last.free + back < missing))
      throw new Refusal(409, 'undo-short', { item: last.item });
    await tx.execute(sql`
      with again as (
        insert into reservation (wave_id, line_id, site_id, item_id, lot, units, firm)
        select ${run.waveId}, k.line_id, ${actor.siteId}, k.item_id, k.lot, ${missing}, ${firm ? missing : 0} from pick k where k.id = ${last.id}
        on conflict (line_id, wave_id, lot) do update set units = reservation.units + excluded.units, firm = reservation.firm + excluded.firm
      ), more as (
        update wave_line set units = units + ${missing} where wave_id = ${run.waveId} and line_id = ${last.line}
      )
      update order_line set released = released + ${missing} where id = ${last.line}`);
  }
  await tx.execute(sql`
    with reopened as (
      update pick set picked = 0, state = 'open', progress = ${JSON.stringify(freshProgress)}::jsonb, confirmed_at = null, confirmed_by = null
      where id = ${last.id}
    )
    update order_line set picked = picked - ${last.picked} where id = ${last.line}`);
  change.journal({
    kind: 'undone',
    orderId: last.order,
    runId,
    waveId: run.waveId,
    facts: { run: run.number, item: last.item, units: last.picked },
  });
  change.tell('runs', [runId]);
  change.tell('orders', [last.order]);
  change.tell('waves', [run.waveId]);
  return { id: last.id, together: last.together };
}
