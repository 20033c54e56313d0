import { sql } from 'drizzle-orm';
import { adaptLine, type KnownItem, type LineDraft, type LineUnderWay } from '@hand-relay/core/intake';
import { recordset, Refusal, rows, notFound, type Change } from '../platform/index.ts';
import { endWaveIfDone, freeOrders, giveBack } from '../waves/index.ts';
import { closeIfDone } from './cancel.ts';

type Line = LineUnderWay & { id: string; line: number };

/**
 * Brings lines of an order under way to new quantities: what nobody has picked goes back to Desk, what is picked beyond
 * them becomes a task.
 *
 * @param wanted base units by line number; lines that are not named stay as they are
 */
async function adaptLines(change: Change, orderId: string, wanted: ReadonlyMap<number, number>): Promise<void> {
  const { tx, actor, now } = change;
  // What was kept before a release is promised anew by whoever keeps at intake.
  await freeOrders(change, [orderId]);
  const lines = await rows<Line>(
    tx,
    sql`select id, line, asked, cancelled, released, picked from order_line where order_id = ${orderId} order by line for update`,
  );
  const runs = new Set<string>();
  for (const line of lines) {
    const units = wanted.get(line.line);
    if (units === undefined) continue;
    const { asked, cancelled, back, surplus } = adaptLine(line, units);
    await takeBack(change, line.id, back, runs);
    await tx.execute(sql`update order_line set asked = ${asked}, cancelled = ${cancelled} where id = ${line.id}`);
    await tx.execute(sql`
      update desk_task set decision = 'void', decided_at = ${now.toISOString()} where line_id = ${line.id} and decision is null`);
    if (surplus > 0) {
      await tx.execute(sql`
        insert into desk_task (id, site_id, line_id, units, at)
        values (${change.newId()}, ${actor.siteId}, ${line.id}, ${surplus}, ${now.toISOString()})`);
      change.journal({ kind: 'surplus-picked', orderId, facts: { line: line.line, units: surplus } });
    }
  }
  await endRuns(change, [...runs]);
  await closeIfDone(change, orderId);
  change.tell('orders', [orderId]);
  change.tell('stock', []);
  change.tell('bench', [orderId]);
}

/**
 * Brings the lines of an order under way to a draft: new lines come in, changed ones adapt, those that are gone ask
 * nothing. What is not changed upstream stays as people left it, cancelled parts included.
 */
export async function adaptOrder(
  change: Change,
  orderId: string,
  lines: LineDraft[],
  items: ReadonlyMap<string, KnownItem>,
): Promise<void> {
  const { tx } = change;
  const there = await rows<{ line: number; sku: string; quantity: number; pack: string }>(
    tx,
    sql`select l.line, i.sku, l.quantity, l.pack from order_line l join item i on i.id = l.item_id where l.order_id = ${orderId}`,
  );
  const old = new Map(there.map((l) => [l.line, l]));
  const told = lines.map((line) => {
    const item = items.get(line.sku)!;
    return { ...line, id: change.newId(), item: item.id, asked: line.quantity * item.packs[line.pack]! };
  });
  const fresh = told.filter((l) => !old.has(l.line));
  await tx.execute(sql`
    insert into order_line (id, order_id, line, item_id, quantity, pack, note, asked)
    select id, ${orderId}, line, item, quantity, pack, note, asked
    from jsonb_to_recordset(${recordset(fresh)}) as l(id text, line int, item text, quantity int, pack text, note text, asked int)`);
  const changed = told.filter((l) => {
    const was = old.get(l.line);
    return was && (was.sku !== l.sku || was.quantity !== l.quantity || was.pack !== l.pack);
  });
  const gone = there.filter((l) => l.quantity > 0 && !lines.some((d) => d.line === l.line));
  await adaptLines(
    change,
    orderId,
    new Map([...changed.map((l) => [l.line, l.asked] as const), ...gone.map((l) => [l.line, 0] as const)]),
  );
  // A quantity of nothing says that the line is gone upstream: a repeat of the document finds nothing to change.
  await tx.execute(sql`update order_line set quantity = 0 where order_id = ${orderId} and line in (
    select value::int from jsonb_array_elements_text(${recordset(gone.map((l) => l.line))}))`);
  await tx.execute(sql`
    update order_line l set quantity = r.quantity, pack = r.pack, note = r.note, item_id = r.item
    from jsonb_to_recordset(${recordset(told)}) as r(line int, item text, quantity int, pack text, note text)
    where l.order_id = ${orderId} and l.line = r.line`);
}

/** Takes units of a line that nobody has picked out of waves that gather, then out of runs, those not begun first. */
async function takeBack(change: Change, lineId: string, units: number, runs: Set<string>): Promise<void> {
  if (units === 0) return;
  const { tx } = change;
  let rest = units;
  const gathering = await rows<{ wave: string; lot: string; units: number }>(
    tx,
    sql`select r.wave_id as wave, r.lot, r.units from reservation r join wave w on w.id = r.wave_id
        where r.line_id = ${lineId} and w.state = 'gathering' and r.units > 0 order by w.number desc, r.lot`,
  );
  for (const from of gathering) {
    const some = Math.min(rest, from.units);
    rest -= some;
    await giveBack(tx, { waveId: from.wave, lineId, lot: from.lot, units: some });
    change.tell('waves', [from.wave]);
  }
  const picks = await rows<{ id: string; run: string; wave: string; lot: string; units: number; counted: number }>(
    tx,
    sql`select k.id, k.run_id as run, r.wave_id as wave, k.lot, k.units, coalesce((k.progress->>'counted')::int, 0) as counted
        from pick k join run r on r.id = k.run_id where k.line_id = ${lineId} and k.state = 'open'
        order by array_position(array['planned', 'waiting', 'picking'], r.state), k.sequence desc for update of k`,
  );
  for (const pick of picks) {
    if (rest === 0) break;
    const some = Math.min(rest, pick.units);
    rest -= some;
    const left = pick.units - some;
    // Whoever has counted more than is asked now counts again: what is too much stays in the bin.
    await tx.execute(
      left === 0
        ? sql`update pick set state = 'out' where id = ${pick.id}`
        : sql`update pick set units = ${left}, progress = case when ${pick.counted} > ${left} then '{}'::jsonb else progress end where id = ${pick.id}`,
    );
    await giveBack(tx, { waveId: pick.wave, lineId, lot: pick.lot, units: some });
    runs.add(pick.run);
    change.tell('waves', [pick.wave]);
  }
}

/** Ends runs of which nothing is left to do, and tells the devices that have the others. */
async function endRuns(change: Change, runs: string[]): Promise<void> {
  if (runs.length === 0) return;
  const empty = await rows<{ wave: string }>(
    change.tx,
    sql`update run r set state = 'cancelled' where r.id in (select jsonb_array_elements_text(${recordset(runs)}))
          and r.state in ('planned', 'waiting', 'picking') and not exists (select 1 from pick k where k.run_id = r.id and k.state <> 'out')
        returning r.wave_id as wave`,
  );
  for (const { wave } of empty) await endWaveIfDone(change, wave);
  change.tell('runs', runs);
}

/** Cancels an order at whatever stage: what is picked of it becomes a task. */
export async function cancelOrder(change: Change, orderId: string, reason: string): Promise<void> {
  const [order] = await rows<{ status: string }>(
    change.tx,
    sql`select status from customer_order where id = ${orderId} and site_id = ${change.actor.siteId} for update`,
  );
  if (!order) throw notFound('order', orderId);
  if (order.status !== 'open') throw new Refusal(409, 'nothing-to-cancel');
  change.journal({ kind: 'order-cancelled', orderId, facts: { reason } });
  const lines = await rows<{ line: number }>(change.tx, sql`select line from order_line where order_id = ${orderId}`);
  await adaptLines(change, orderId, new Map(lines.map((l) => [l.line, 0])));
}
