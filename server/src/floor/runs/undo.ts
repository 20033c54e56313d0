import { sql } from 'drizzle-orm';
import { freshProgress, goesBack, shortReasons } from '@hand-relay/core/handling/picking';
import { Refusal, rows, type Change } from '../../platform/index.ts';
import { booksOf, freeAccess, discrepancyPlaceOf, move } from '../../stock/index.ts';
import { settleReturned, surplusAmong } from '../../desk/orders/index.ts';
import { unreleaseUnits } from '../../desk/waves/index.ts';
import { takeFromCarton } from './intoCarton.ts';
import { reserveAgain, swapLot } from './reservations.ts';
import { lockRun, mustBeMine, type RunRow } from './lock.ts';

/**
 * Undoes the last confirmation of a run: the goods go back into the bin, a short is taken back. Without a
 * confirmation to undo, `pick` is null.
 *
 * @param begun an open pick: what is counted of it is undone in place of the last confirmation
 *
 * @throws Refusal 409 when the goods were packed in the meantime, or what a short gave back was promised to others
 */
export async function undoPick(change: Change, runId: string, begun?: string): Promise<{ pick: string | null }> {
  const run = await lockRun(change.tx, change.actor.siteId, runId);
  mustBeMine(run, change.actor.personId);
  if (begun !== undefined && (await beginAgain(change, run, begun))) return { pick: begun };
  let last = await undoLine(change, run, null);
  let pick = last?.id ?? null;
  // What was picked for several orders at once is undone at once; the first of them bears the pick.
  for (; last?.together; pick = last?.id ?? pick) last = await undoLine(change, run, last.together);
  return { pick };
}

/** Takes back what was counted of an open pick; false where it is confirmed already or nothing was counted. */
async function beginAgain(change: Change, run: RunRow, pickId: string): Promise<boolean> {
  const [pick] = await rows<{ order: string; item: string; counted: number }>(
    change.tx,
    sql`with was as (
          select k.id, k.order_id, i.name, (k.progress->>'counted')::int as counted from pick k join item i on i.id = k.item_id
          where k.id = ${pickId} and k.run_id = ${run.id} and k.state = 'open' and (k.progress->>'counted')::int > 0 for update of k
        )
        update pick k set progress = ${JSON.stringify(freshProgress)}::jsonb from was where k.id = was.id
        returning was.order_id as "order", was.name as item, was.counted`,
  );
  if (!pick) return false;
  change.journal({
    kind: 'undone',
    orderId: pick.order,
    runId: run.id,
    waveId: run.waveId,
    facts: { run: run.number, item: pick.item, units: pick.counted },
  });
  change.publish('picks', [run.id]);
  return true;
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
    itemId: string;
    bin: string;
    lot: string;
    units: number;
    picked: number;
    together: Confirmed | null;
  }>(
    tx,
    sql`select k.id, k.order_id as "order", k.line_id as line, i.name as item, k.item_id as "itemId", k.bin_id as bin, k.lot, k.units, k.picked,
               case when r.picking = 'consolidate' then jsonb_build_object('bin', k.bin_id, 'item', k.item_id, 'lot', k.lot, 'at', k.confirmed_at) end as together
        from pick k join run r on r.id = k.run_id join item i on i.id = k.item_id join order_line l on l.id = k.line_id
        where k.run_id = ${runId} and k.state in ('done', 'short') and k.units > 0 ${among} order by k.confirmed_at desc, k.sequence desc limit 1
        for update of k, l`,
  );
  if (!last) return null;
  await takeFromCarton(change, last.id, last.line);
  const made = await rows<Made>(
    tx,
    sql`select m.from_place as "from", m.to_place as "to", m.item_id as "itemId", m.lot, m.serial, sum(m.units)::int as units,
               coalesce((select b.units from balance b where b.place_id = m.to_place and b.item_id = m.item_id
                           and b.lot = m.lot and b.serial = m.serial), 0)::int as there
        from movement m where m.document in (${last.id}, ${`short ${last.id}`}) and m.id > coalesce(
          (select max(u.id) from movement u where u.document = ${`undo ${last.id}`}), 0)
        group by 1, 2, 3, 4, 5`,
  );
  const { back, gone } = goesBack(made, last.picked, discrepancyPlaceOf(actor.siteId));
  if (gone > 0) throw new Refusal('unpack-first', { units: gone, item: last.item });
  await move(
    change,
    back.map((m) => ({
      from: m.to,
      to: m.from,
      item: m.itemId,
      lot: m.lot,
      serial: m.serial,
      units: m.units,
    })),
    'undo',
    `undo ${last.id}`,
  );
  const again = await rejoin(change, run, last);
  const missing = last.units - last.picked;
  if (missing > 0) await reserveAgain(change, run.waveId, { ...last, units: missing });
  await tx.execute(sql`
    with reopened as (
      update pick set picked = 0, units = units + ${again}, state = 'open', progress = ${JSON.stringify(freshProgress)}::jsonb, confirmed_at = null, confirmed_by = null
      where id = ${last.id}
    )
    update order_line set picked = picked - ${last.picked} where id = ${last.line}`);
  // What of it nobody wants any more is not asked of the picker again.
  const surplus = await surplusAmong(tx, new Map([[last.line, last.picked]]));
  await unreleaseUnits(change, surplus, { begun: true });
  await settleReturned(change, last.order, surplus);
  // What somebody else did not find there waits for the same count.
  const doubtful = (await booksOf(tx, actor.siteId, { bin: last.bin, item: last.itemId, lot: last.lot })).some(
    (b) => b.doubtful > 0,
  );
  if (!doubtful)
    await tx.execute(
      sql`update bin_count set state = 'dropped', settled_at = ${change.now.toISOString()}, settled_by = ${actor.personId}
          where state = 'asked' and (pick_id = ${last.id} or (
            bin_id = ${last.bin} and item_id = ${last.itemId} and lot = ${last.lot} and reason in (${sql.join(
              shortReasons.filter((r) => r !== 'bin-blocked').map((r) => sql`${r}`),
              sql`, `,
            )})))`,
    );
  // What was not found is found after all.
  await tx.execute(sql`delete from exception where pick_id = ${last.id} and settled_at is null`);
  change.publish('exceptions', []);
  await freeAccess(change, last.bin);
  change.publish('counts', []);
  change.journal({
    kind: 'undone',
    orderId: last.order,
    runId,
    waveId: run.waveId,
    facts: { run: run.number, item: last.item, units: last.picked },
  });
  change.publish('picks', [runId]);
  change.publish('orders', [last.order]);
  change.publish('waves', [run.waveId]);
  return { id: last.id, together: last.together };
}

/** A movement that a confirmation made, and what lies where it led to. */
interface Made {
  from: string;
  to: string;
  itemId: string;
  lot: string;
  serial: string;
  units: number;
  there: number;
}

/**
 * What was to be taken from another bin is asked in the first one again.
 *
 * @returns units by which the pick grows
 */
async function rejoin(
  change: Change,
  run: RunRow,
  of: { id: string; line: string; item: string; itemId: string; lot: string },
): Promise<number> {
  const [rest] = await rows<{ units: number; lot: string }>(
    change.tx,
    sql`delete from pick where rest_of = ${of.id} and state = 'open' returning units, lot`,
  );
  if (!rest) return 0;
  if (rest.lot !== of.lot)
    await swapLot(change, run.waveId, {
      line: of.line,
      item: { id: of.itemId, name: of.item },
      units: rest.units,
      from: rest.lot,
      lot: of.lot,
    });
  return rest.units;
}
