import { sql } from 'drizzle-orm';
import type { z } from 'zod';
import type { Cancellations, cancellationsBody } from '@hand-relay/contract';
import {
  adaptLine,
  shareSplit,
  type KnownItem,
  type LineDraft,
  type LineUnderWay,
  type SplitPart,
} from '@hand-relay/core/reading/intake';
import { anyOf, recordset, Refusal, rows, notFound, type Change } from '../../platform/index.ts';
import { settleServed } from '../exceptions/index.ts';
import { freeOrders, unreleaseUnits } from '../waves/index.ts';
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
  // What was kept before a release is reserved again at sites that reserve at intake.
  await freeOrders(change, [orderId]);
  const lines = await rows<Line>(
    tx,
    sql`select id, line, asked, cancelled, released, picked, shipped from order_line where order_id = ${orderId} order by line for update`,
  );
  const adapted = lines.flatMap((line) => {
    const units = wanted.get(line.line);
    return units === undefined ? [] : [{ line, ...adaptLine(line, units) }];
  });
  await unreleaseUnits(change, new Map(adapted.map(({ line, back }) => [line.id, back])), { begun: true });
  for (const { line, asked, cancelled, surplus } of adapted) {
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
  await settleServed(change, [orderId], 'ship-short');
  await closeIfDone(change, orderId);
  change.publish('orders', [orderId]);
  change.publish('exceptions', []);
  change.publish('stock', []);
  change.publish('bench', [orderId]);
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
  const inDocument = lines.map((line) => {
    const item = items.get(line.sku)!;
    return { ...line, id: change.newId(), item: item.id, asked: line.quantity * item.packs[line.pack]! };
  });
  const fresh = inDocument.filter((l) => !old.has(l.line));
  await tx.execute(sql`
    insert into order_line (id, order_id, line, item_id, quantity, pack, note, asked)
    select id, ${orderId}, line, item, quantity, pack, note, asked
    from jsonb_to_recordset(${recordset(fresh)}) as l(id text, line int, item text, quantity int, pack text, note text, asked int)`);
  const changed = inDocument.filter((l) => {
    const was = old.get(l.line);
    return was && (was.sku !== l.sku || was.quantity !== l.quantity || was.pack !== l.pack);
  });
  const gone = there.filter((l) => l.quantity > 0 && !lines.some((d) => d.line === l.line));
  const wanted = new Map([...changed.map((l) => [l.line, l.asked] as const), ...gone.map((l) => [l.line, 0] as const)]);
  const otherItem = new Set(changed.filter((l) => old.get(l.line)!.sku !== l.sku).map((l) => l.line));
  for (const [order, share] of await sharesOf(change, orderId, wanted, otherItem))
    await adaptLines(change, order, share);
  // A quantity of nothing says that the line is gone upstream: a repeat of the document finds nothing to change.
  await tx.execute(sql`update order_line set quantity = 0 where order_id = ${orderId} and line in (
    select value::int from jsonb_array_elements_text(${recordset(gone.map((l) => l.line))}))`);
  const others = [...otherItem];
  await tx.execute(sql`
    delete from reservation where units = 0 and line_id in (
      select id from order_line where order_id = ${orderId} and line in (select value::int from jsonb_array_elements_text(${recordset(others)})))`);
  await tx.execute(sql`
    update order_line l set quantity = r.quantity, pack = r.pack, note = r.note, item_id = r.item
    from jsonb_to_recordset(${recordset(inDocument)}) as r(line int, item text, quantity int, pack text, note text)
    where l.order_id = ${orderId} and l.line = r.line`);
}

/**
 * What lines of an order and of those split off from it ask, once the document asks so much: by order, then by line.
 *
 * @param otherItem lines that ask another item now: nothing of them is left in the parts
 */
async function sharesOf(
  { tx }: Change,
  orderId: string,
  wanted: ReadonlyMap<number, number>,
  otherItem: ReadonlySet<number>,
): Promise<Map<string, Map<number, number>>> {
  const shares = new Map([[orderId, new Map(wanted)]]);
  const parts = await rows<SplitPart & { line: number; own: boolean }>(
    tx,
    sql`select o.id as "order", l.line, l.asked - l.cancelled as asked, l.picked, o.id = ${orderId} as own
        from order_line l join customer_order o on o.id = l.order_id
        where (o.id = ${orderId} or (o.split_of = ${orderId} and o.status = 'open'))
        order by o.created_at desc, o.id desc`,
  );
  for (const [line, units] of wanted) {
    const own = parts.find((p) => p.own && p.line === line);
    const off = parts.filter((p) => !p.own && p.line === line);
    if (!own || off.length === 0) continue;
    const shared = otherItem.has(line)
      ? { own: units, parts: new Map(off.map((p) => [p.order, 0])) }
      : shareSplit(units, own, off);
    shares.get(orderId)!.set(line, shared.own);
    for (const [order, share] of shared.parts)
      shares.set(order, (shares.get(order) ?? new Map<number, number>()).set(line, share));
  }
  return shares;
}

/** Cancels orders by number, with all that was split off from them, as a channel or host asks it. */
export async function cancelByNumber(
  change: Change,
  { document, orders }: z.output<typeof cancellationsBody>,
): Promise<Cancellations> {
  const { tx, actor } = change;
  const outcomes: Cancellations['orders'] = [];
  for (const { number, reason } of orders) {
    const family = await rows<{ id: string; status: string }>(
      tx,
      sql`select o.id, o.status from customer_order o left join customer_order r on r.id = o.split_of
          where o.site_id = ${actor.siteId} and (o.number = ${number} or r.number = ${number}) order by o.id for update of o`,
    );
    const open = family.filter((o) => o.status === 'open');
    for (const { id } of open) await cancelOrder(change, id, reason || document);
    const [owed] = await rows<{ units: number }>(
      tx,
      sql`select coalesce(sum(t.units), 0)::int as units from desk_task t join order_line l on l.id = t.line_id
          where t.decision is null and l.order_id = ${anyOf(open.map((o) => o.id))}`,
    );
    const outcome = family.length === 0 ? 'unknown' : open.length === 0 ? 'closed' : 'cancelled';
    outcomes.push({ number, outcome, surplus: owed!.units });
  }
  return { orders: outcomes };
}

/** Cancels an order at whatever stage: what is picked of it becomes a task. */
export async function cancelOrder(change: Change, orderId: string, reason: string): Promise<void> {
  const [order] = await rows<{ status: string }>(
    change.tx,
    sql`select status from customer_order where id = ${orderId} and site_id = ${change.actor.siteId} for update`,
  );
  if (!order) throw notFound('order', orderId);
  if (order.status !== 'open') throw new Refusal('nothing-to-cancel');
  change.journal({ kind: 'order-cancelled', orderId, facts: { reason } });
  const lines = await rows<{ line: number }>(change.tx, sql`select line from order_line where order_id = ${orderId}`);
  await adaptLines(change, orderId, new Map(lines.map((l) => [l.line, 0])));
}
