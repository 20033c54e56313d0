import { sql } from 'drizzle-orm';
import { anyOf, notFound, recordset, rows, type Change, type Tx } from '../../platform/index.ts';
import { lockTotals } from '../../stock/index.ts';
import { allocate, itemsOf } from './demand.ts';
import { lockStock } from './release.ts';
import { settingsOf } from '../../setup/settings/index.ts';

/**
 * Whether the site promises stock as orders come in. Where it does, its stock is locked at once, before any order is
 * touched: a release locks in this order too.
 */
export async function reservesAtIntake({ tx, actor }: Change): Promise<boolean> {
  const reserves = (await settingsOf(tx, actor.siteId)).reserve === 'intake';
  if (reserves) await lockStock(tx, actor.siteId);
  return reserves;
}

/** Promises free stock to orders that are not released: what they have already stays theirs. */
export async function reserveOrders(change: Change, orderIds: string[]): Promise<void> {
  const { tx, actor } = change;
  if (orderIds.length === 0) return;
  await lockStock(tx, actor.siteId);
  await lockTotals(tx, actor.siteId, itemsOf(orderIds));
  await promise(change, orderIds);
}

/** The same with the stock locked; `exact` names units that lines get in place of all that is open of them. */
async function promise(change: Change, orderIds: string[], exact?: ReadonlyMap<string, number>): Promise<void> {
  const { tx, actor } = change;
  const { lines } = await allocate(tx, actor.siteId, orderIds, {
    toRelease: false,
    now: change.now,
    ...(exact ? { exact } : {}),
  });
  const parts = lines.flatMap((l) =>
    l.allocation.lots.flatMap(({ lot, units }) => {
      const more = units - (l.reserved.find((k) => k.lot === lot)?.units ?? 0);
      return more > 0 ? [{ line: l.line, order: l.order, item: l.item, lot: lot ?? '', units: more }] : [];
    }),
  );
  await tx.execute(sql`
    insert into reservation (wave_id, line_id, site_id, item_id, lot, units, hard_allocated)
    select null, line, ${actor.siteId}, item, lot, units, units
    from jsonb_to_recordset(${recordset(parts)}) as r(line text, item text, lot text, units int)
    on conflict (line_id, wave_id, lot) do update set units = reservation.units + excluded.units, hard_allocated = reservation.hard_allocated + excluded.hard_allocated`);
  const sums = new Map<string, number>();
  for (const { order, units } of parts) sums.set(order, (sums.get(order) ?? 0) + units);
  change.journal(...[...sums].map(([orderId, units]) => ({ kind: 'reserved', orderId, facts: { units } })));
  change.publish('orders', [...sums.keys()]);
  change.publish('stock', []);
}

/** Frees what is promised to orders and not released. */
export async function freeOrders(change: Change, orderIds: string[]): Promise<void> {
  const freed = await rows<{ order: string; units: number }>(
    change.tx,
    sql`
    with freed as (
      delete from reservation r using order_line l where l.id = r.line_id and r.wave_id is null
        and l.order_id = ${anyOf(orderIds)} returning l.order_id, r.units
    )
    select order_id as "order", sum(units)::int as units from freed group by 1`,
  );
  if (freed.length === 0) return;
  change.journal(...freed.map(({ order, units }) => ({ kind: 'freed', orderId: order, facts: { units } })));
  change.publish(
    'orders',
    freed.map((f) => f.order),
  );
  change.publish('stock', []);
}

/** Frees what is promised to lines of orders beyond what is open of them, the last lots first. */
export async function trimReserved(change: Change, orderIds: string[]): Promise<void> {
  const open = await rows<{ line: string; units: number }>(
    change.tx,
    sql`select l.id as line, l.asked - l.cancelled - l.released as units from order_line l
        where l.order_id = ${anyOf(orderIds)}`,
  );
  if ((await trimTo(change, open)) > 0) change.publish('stock', []);
}

/** Frees what is promised to lines ahead of a release beyond so many units, the last lots first; answers with the sum. */
async function trimTo(change: Change, lines: readonly { line: string; units: number }[]): Promise<number> {
  const freed = await rows<{ order: string; units: number }>(
    change.tx,
    sql`
    with most as (select * from jsonb_to_recordset(${recordset(lines)}) as m(line text, units int)),
    kept as (
      select r.line_id, r.lot, r.units, l.order_id, m.units as most,
             sum(r.units) over (partition by r.line_id order by r.lot rows unbounded preceding) as upto
      from reservation r join most m on m.line = r.line_id join order_line l on l.id = r.line_id where r.wave_id is null
    ), less as (
      select line_id, lot, order_id, units, greatest(0, least(units, most - (upto - units)))::int as stays from kept where upto > most
    ), gone as (
      delete from reservation r using less s where r.wave_id is null and r.line_id = s.line_id and r.lot = s.lot and s.stays = 0
    ), trimmed as (
      update reservation r set units = s.stays, hard_allocated = least(r.hard_allocated, s.stays) from less s
      where r.wave_id is null and r.line_id = s.line_id and r.lot = s.lot and s.stays > 0
    )
    select order_id as "order", sum(units - stays)::int as units from less group by 1`,
  );
  change.journal(...freed.map(({ order, units }) => ({ kind: 'freed', orderId: order, facts: { units } })));
  return freed.reduce((n, f) => n + f.units, 0);
}

/**
 * Reserves so many units of lines ahead of a release, as far as there is stock, or frees what they have beyond that.
 * Other lines of their orders keep what they have.
 *
 * @throws Refusal 404 where a line is none of an open order of the site
 */
export async function reserveLines(
  change: Change,
  wanted: readonly { line: string; units: number }[],
): Promise<{ line: string; before: number; after: number }[]> {
  const { tx, actor } = change;
  await lockStock(tx, actor.siteId);
  const orders = await rows<{ line: string; order: string }>(
    tx,
    sql`select l.id as line, o.id as "order" from customer_order o join order_line l on l.order_id = o.id
        where o.site_id = ${actor.siteId} and o.status = 'open' and l.id = ${anyOf(wanted.map((w) => w.line))}
        order by o.id for update of o`,
  );
  const missing = wanted.find((w) => !orders.some((o) => o.line === w.line));
  if (missing) throw notFound('line', missing.line);
  const ids = [...new Set(orders.map((o) => o.order))];
  await lockTotals(tx, actor.siteId, itemsOf(ids));
  const before = await aheadOf(tx, ids);
  await trimTo(change, wanted);
  await promise(change, ids, new Map([...before, ...wanted.map((w) => [w.line, w.units] as const)]));
  const after = await aheadOf(tx, ids);
  change.publish('orders', ids);
  change.publish('stock', []);
  return wanted.map(({ line }) => ({ line, before: before.get(line) ?? 0, after: after.get(line) ?? 0 }));
}

/** Units of each line of orders that are promised ahead of a release. */
async function aheadOf(on: Tx, orderIds: string[]): Promise<Map<string, number>> {
  const found = await rows<{ line: string; units: number }>(
    on,
    sql`select l.id as line, coalesce((select sum(r.units) from reservation r where r.line_id = l.id and r.wave_id is null), 0)::int as units
        from order_line l where l.order_id = ${anyOf(orderIds)}`,
  );
  return new Map(found.map(({ line, units }) => [line, units]));
}

/** What is promised to an order's lines, released or not. */
export function reservedOf(on: Tx, siteId: string, orderId: string) {
  return rows<{ line: number; asked: number; reserved: number }>(
    on,
    sql`select l.line, l.asked - l.cancelled as asked, coalesce((select sum(r.hard_allocated) from reservation r where r.line_id = l.id), 0)::int as reserved
        from order_line l join customer_order o on o.id = l.order_id where l.order_id = ${orderId} and o.site_id = ${siteId} order by l.line`,
  );
}
