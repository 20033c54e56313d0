import { sql } from 'drizzle-orm';
import type { z } from 'zod';
import type { leftBody, settleCountBody, takeCountBody, wantCountBody } from '@hand-relay/contract';
import { notFound, recordset, Refusal, rows, type Change } from '../../platform/index.ts';
import { moveAway } from '../runs/index.ts';
import { requestCount, booksOf, freeAccess, discrepancyPlaceOf, move } from '../../stock/index.ts';
import { settingsOf } from '../../setup/settings/index.ts';
import { lockCount, settle, weighCount, type CountRow } from './settle.ts';

/** Somebody wants a bin counted for one item. */
export async function requestCountByHand(
  change: Change,
  { bin, item, lot }: z.output<typeof wantCountBody>,
): Promise<void> {
  const { tx, actor } = change;
  const [found] = await rows<{ bin: string; item: string }>(
    tx,
    sql`select p.id as bin, i.id as item from place p, item i
        where p.site_id = ${actor.siteId} and p.kind = 'bin' and upper(p.code) = upper(${bin}) and upper(i.sku) = upper(${item})`,
  );
  if (!found) throw notFound('bin', `${bin} ${item}`);
  await requestCount(change, { ...found, lot, reason: 'wanted' });
}

/**
 * Takes what was counted. Within the site's limit the books follow at once; beyond it, or where what is gone is promised
 * to orders, somebody has to agree.
 */
export async function takeCount(change: Change, id: string, { units, serials }: z.output<typeof takeCountBody>) {
  const { tx, actor, now } = change;
  const count = await lockCount(tx, actor.siteId, id);
  if (!count) throw notFound('count', id);
  if (count.state !== 'asked') throw new Refusal('count-state', { bin: count.binCode, state: count.state });
  const known = [...new Set(serials)];
  if (count.tracksSerial && known.length !== units)
    throw new Refusal('count-serials', { units, serials: known.length });
  const counted = new Map<string, number>(count.tracksSerial ? known.map((s) => [s, 1]) : [['', units]]);
  const books = await booksOf(tx, actor.siteId, count);
  const lines = [...new Set([...books.map((b) => b.serial), ...counted.keys()])].map((serial) => {
    const at = books.find((b) => b.serial === serial);
    return { serial, booked: (at?.booked ?? 0) + (at?.doubtful ?? 0), counted: counted.get(serial) ?? 0 };
  });
  await tx.execute(sql`
    with gone as (delete from bin_count_line where count_id = ${id})
    update bin_count set state = 'counted', counted_at = ${now.toISOString()}, counted_by = ${actor.personId} where id = ${id}`);
  await tx.execute(sql`
    insert into bin_count_line (count_id, serial, booked, counted)
    select ${id}, l.serial, l.booked, l.counted from jsonb_to_recordset(${recordset(lines)}) as l(serial text, booked int, counted int)`);
  change.journal({
    kind: 'counted',
    facts: {
      bin: count.binCode,
      item: count.name,
      sku: count.sku,
      lot: count.lot,
      counted: units,
      booked: lines.reduce((n, l) => n + l.booked, 0),
    },
  });
  await freeAccess(change, count.bin);
  await sendAway(change, count, units);
  const { moves, difference, mustNot } = await weighCount(tx, actor.siteId, count, counted);
  const { countLimit } = await settingsOf(tx, actor.siteId);
  if (difference <= countLimit && !mustNot) {
    await settle(change, count, moves, difference);
    return { state: 'settled' as const };
  }
  change.publish('counts', [id], {
    kind: 'count-differs',
    for: 'runs.arrange',
    facts: { bin: count.binCode, item: count.name, difference, picker: actor.name },
  });
  return { state: 'counted' as const };
}

/** What a supervisor says to a count that differs: agreed, counted again, or dropped as if nobody had asked. */
export async function settleCount(change: Change, id: string, { decision }: z.output<typeof settleCountBody>) {
  const { tx, actor, now } = change;
  const count = await lockCount(tx, actor.siteId, id);
  if (!count) throw notFound('count', id);
  const open = decision === 'drop' ? ['asked', 'counted'] : ['counted'];
  if (!open.includes(count.state)) throw new Refusal('count-state', { bin: count.binCode, state: count.state });
  if (decision === 'agree') return agree(change, count);
  await tx.execute(
    decision === 'drop'
      ? sql`update bin_count set state = 'dropped', settled_at = ${now.toISOString()}, settled_by = ${actor.personId} where id = ${id}`
      : sql`update bin_count set state = 'asked', counted_at = null, counted_by = null where id = ${id}`,
  );
  if (decision === 'drop') await asBefore(change, count);
  change.journal({ kind: `count-${decision}`, facts: { bin: count.binCode, item: count.name } });
  change.publish('counts', [id]);
}

/** Nobody doubts any more: what waited for this count lies in its bin again, and the bin is proposed. */
async function asBefore(change: Change, count: CountRow): Promise<void> {
  const { bin, item, lot } = count;
  const doubtful = (await booksOf(change.tx, change.actor.siteId, count)).filter((b) => b.doubtful > 0);
  const back = { from: discrepancyPlaceOf(change.actor.siteId), to: bin, item, lot };
  await move(
    change,
    doubtful.map(({ serial, doubtful: units }) => ({ ...back, serial, units })),
    'count',
    `count ${bin}`,
  );
  await freeAccess(change, bin);
  change.publish('stock', []);
}

/** Whoever is sent to the bin for more than lies there goes to another. */
const sendAway = (change: Change, { bin, binCode: code, item, lot }: CountRow, holds: number): Promise<void> =>
  moveAway(change, { bin, code, item, lot, holds });

async function agree(change: Change, count: CountRow): Promise<void> {
  const { tx, actor } = change;
  const lines = await rows<{ serial: string; booked: number; counted: number }>(
    tx,
    sql`select serial, booked, counted from bin_count_line where count_id = ${count.id}`,
  );
  const now = await booksOf(tx, actor.siteId, count);
  // What was picked from the bin or put there since the count is none of its doing.
  const counted = new Map(
    lines.map(({ serial, booked, counted }) => {
      const at = now.find((b) => b.serial === serial);
      const since = (at?.booked ?? 0) + (at?.doubtful ?? 0) - booked;
      return [serial, Math.max(0, counted + since)];
    }),
  );
  await sendAway(
    change,
    count,
    [...counted.values()].reduce((n, c) => n + c, 0),
  );
  const { moves, difference, mustNot } = await weighCount(tx, actor.siteId, count, counted);
  if (mustNot) throw mustNot;
  await settle(change, count, moves, difference);
}

/**
 * What is left in a bin after a pick. As reckoned, it is journalled as a count that agreed; otherwise the bin is put up
 * for a count and this is the first one.
 */
export async function binLeft(change: Change, runId: string, { pick, expected, units }: z.output<typeof leftBody>) {
  const { tx, actor } = change;
  const [at] = await rows<{
    bin: string;
    code: string;
    item: string;
    name: string;
    lot: string;
    serials: boolean;
    order: string;
  }>(
    tx,
    sql`select k.bin_id as bin, b.code, k.item_id as item, i.name, k.lot, i.tracks_serial as serials, k.order_id as "order" from pick k join run r on r.id = k.run_id
        join place b on b.id = k.bin_id join item i on i.id = k.item_id where k.id = ${pick} and k.run_id = ${runId} and r.site_id = ${actor.siteId}`,
  );
  if (!at) throw notFound('pick', pick);
  change.journal({
    kind: 'bin-left',
    orderId: at.order,
    runId,
    facts: { bin: at.code, item: at.name, lot: at.lot, expected, units },
  });
  if (units === expected) return;
  const id = await requestCount(change, { ...at, reason: 'nearly-empty', runId, pickId: pick });
  if (at.serials) return;
  const books = await booksOf(tx, actor.siteId, at);
  // Said as a difference: others may have been at the bin before it was heard.
  const total = books.reduce((n, b) => n + b.booked + b.doubtful, 0);
  await takeCount(change, id, { units: Math.max(0, total + units - expected), serials: [] });
}
