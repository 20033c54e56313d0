import { sql } from 'drizzle-orm';
import type { z } from 'zod';
import type { splitBody } from '@hand-relay/contract';
import { departureFor, type Departure } from '@hand-relay/core/calendar';
import { judgeOrders } from '../holds/index.ts';
import { notFound, recordset, Refusal, rows, type Change } from '../../platform/index.ts';
import { reservesAtIntake, reserveOrders, trimReserved } from '../waves/index.ts';
import { closeIfDone } from './cancel.ts';

interface Line {
  id: string;
  line: number;
  item: string;
  note: string;
  open: number;
}

/**
 * Splits an order: so many units of these lines wait, as an order of their own with its own day; the rest goes now.
 *
 * @returns the id of the order that waits
 * @throws Refusal 409 `split-too-much` where a line has less open, `split-all` where nothing would be left
 */
export async function splitOrder(
  change: Change,
  orderId: string,
  { lines: asked, due }: z.output<typeof splitBody>,
): Promise<string> {
  const { tx, actor, now } = change;
  const reserves = await reservesAtIntake(change);
  const [order] = await rows<{
    number: string;
    channel: string;
    priority: number;
    status: string;
    root: string;
    timeZone: string;
  }>(
    tx,
    sql`select o.number, o.channel, o.priority, o.status, coalesce(o.split_of, o.id) as root, s.time_zone as "timeZone"
        from customer_order o join site s on s.id = o.site_id where o.id = ${orderId} and o.site_id = ${actor.siteId} for update of o`,
  );
  if (!order || order.status !== 'open') throw notFound('order', orderId);
  const lines = await rows<Line>(
    tx,
    sql`select id, line, item_id as item, note, asked - cancelled - released as open from order_line where order_id = ${orderId} order by line for update`,
  );
  const waits = new Map(asked.map((a) => [a.line, a.units]));
  for (const [id, units] of waits) {
    const line = lines.find((l) => l.id === id);
    if (!line) throw notFound('line', id);
    if (units > line.open) throw new Refusal('split-too-much', { line: line.line, open: line.open });
  }
  const left = lines.reduce((n, l) => n + l.open - (waits.get(l.id) ?? 0), 0);
  const [begun] = await rows<{ units: number }>(
    tx,
    sql`select coalesce(sum(released), 0)::int as units from order_line where order_id = ${orderId}`,
  );
  if (left === 0 && begun!.units === 0) throw new Refusal('split-all');

  const [root] = await rows<{ number: string; parts: number }>(
    tx,
    sql`select number, (select count(*)::int from customer_order p where p.split_of = r.id) as parts from customer_order r where r.id = ${order.root}`,
  );
  const id = change.newId();
  const number = `${root!.number}/${root!.parts + 2}`;
  const timetable = await rows<Departure>(
    tx,
    sql`select id, cut_off as "cutOff", days, channel from departure where site_id = ${actor.siteId} and not retired`,
  );
  const leaves = departureFor({ ...order, due }, timetable, order.timeZone);
  await tx.execute(sql`
    insert into customer_order (id, site_id, number, kind, to_site, channel, customer_id, reference, due, leaves_at, departure_id, priority,
      ship_complete, ship_name, ship_street, ship_postcode, ship_city, ship_country, note, document, link, tags, split_of, created_at)
    select ${id}, site_id, ${number}, kind, to_site, channel, customer_id, reference, ${due}, ${leaves ? new Date(leaves.leavesAt).toISOString() : null},
      ${leaves?.id ?? null}, priority, ship_complete, ship_name, ship_street, ship_postcode, ship_city, ship_country, note, document, link, tags,
      ${order.root}, ${now.toISOString()} from customer_order where id = ${orderId}`);
  const parts = lines.flatMap((l) => {
    const units = waits.get(l.id);
    return units === undefined ? [] : [{ ...l, fresh: change.newId(), units }];
  });
  await tx.execute(sql`
    with part as (select * from jsonb_to_recordset(${recordset(parts)}) as p(fresh text, id text, line int, item text, note text, units int)),
    less as (update order_line l set asked = l.asked - p.units, manually_allocated = null from part p where l.id = p.id)
    insert into order_line (id, order_id, line, item_id, quantity, pack, note, asked)
    select fresh, ${id}, line, item, units, 'unit', note, units from part`);
  await trimReserved(change, [orderId]);
  // Where the rest was all that was open of a part that has left, the order is done.
  await closeIfDone(change, orderId);
  // What holds an order holds its parts, and what was lifted for it stays lifted.
  const holds = await rows<{ id: string }>(tx, sql`select id from order_hold where order_id = ${orderId}`);
  await tx.execute(sql`
    insert into order_hold (id, site_id, order_id, rule_id, text, stops, lifters, held_at, held_by, lifted_at, lifted_by)
    select f.fresh, h.site_id, ${id}, h.rule_id, h.text, h.stops, h.lifters, h.held_at, h.held_by, h.lifted_at, h.lifted_by
    from order_hold h join jsonb_to_recordset(${recordset(holds.map((h) => ({ ...h, fresh: change.newId() })))}) as f(id text, fresh text) on f.id = h.id`);
  await judgeOrders(change, [id]);
  if (reserves) await reserveOrders(change, [orderId, id]);
  const facts = { number, from: order.number, due, units: parts.reduce((n, p) => n + p.units, 0) };
  change.journal({ kind: 'order-split', orderId, facts }, { kind: 'split-off', orderId: id, facts });
  change.publish('orders', [orderId, id]);
  return id;
}

/**
 * Joins what is open of a split-off order to the order that it came from.
 *
 * @returns the id of that order
 * @throws Refusal 409 `nothing-to-join` where nothing of it is open
 */
export async function joinOrder(change: Change, orderId: string): Promise<string> {
  const { tx, actor } = change;
  const reserves = await reservesAtIntake(change);
  const [part] = await rows<{ number: string; root: string | null }>(
    tx,
    sql`select o.number, o.split_of as root from customer_order o where o.id = ${orderId} and o.site_id = ${actor.siteId} and o.status = 'open' for update`,
  );
  if (!part?.root) throw notFound('order', orderId);
  // What is open of the lines is read when nobody releases of them any more.
  await tx.execute(sql`select 1 from order_line where order_id in (${part.root}, ${orderId}) order by id for update`);
  const back = await rows<{ units: number }>(
    tx,
    sql`
    with open as (
      select id, line, item_id, asked - cancelled - released as units from order_line where order_id = ${orderId} and asked - cancelled - released > 0
    ), less as (update order_line l set asked = l.asked - o.units, manually_allocated = null from open o where l.id = o.id)
    update order_line l set asked = l.asked + o.units from open o
    where l.order_id = ${part.root} and l.line = o.line and l.item_id = o.item_id returning o.units`,
  );
  if (back.length === 0) throw new Refusal('nothing-to-join');
  await tx.execute(
    sql`update customer_order set status = 'open', version = version + 1 where id = ${part.root} and status <> 'open'`,
  );
  await trimReserved(change, [orderId]);
  await closeIfDone(change, orderId);
  if (reserves) await reserveOrders(change, [part.root, orderId]);
  const facts = { number: part.number, units: back.reduce((n, b) => n + b.units, 0) };
  change.journal({ kind: 'order-joined', orderId: part.root, facts }, { kind: 'order-joined', orderId, facts });
  change.publish('orders', [orderId, part.root]);
  return part.root;
}
