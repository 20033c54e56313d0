import { sql } from 'drizzle-orm';
import type { z } from 'zod';
import type { changeOrdersBody, OrderChange, OrdersChanged } from '@hand-relay/contract';
import type { Departure } from '@hand-relay/core/calendar';
import { changeHead, isAs, type Changed, type OrderHead } from '@hand-relay/core/deciding/orders';
import { anyOf, recordset, Refusal, rows, type Change, type Db, type Tx } from '../../platform/index.ts';
import { judgeOrders, notesOf } from '../holds/index.ts';
import { lockOrders } from '../waves/index.ts';

interface Order extends OrderHead {
  id: string;
  channel: string;
  status: string;
  released: number;
  labelled: boolean;
  tracked: boolean;
  load: boolean;
}

/** The site's departures by name, those too that are retired: an order may still have one. */
export async function timetableOf(
  on: Db | Tx,
  siteId: string,
): Promise<{ timetable: (Departure & { retired: boolean })[]; timeZone: string }> {
  const timetable = await rows<Departure & { retired: boolean }>(
    on,
    sql`select name as id, cut_off as "cutOff", days, channel, retired from departure where site_id = ${siteId}`,
  );
  const [site] = await rows<{ timeZone: string }>(
    on,
    sql`select time_zone as "timeZone" from site where id = ${siteId}`,
  );
  return { timetable, timeZone: site!.timeZone };
}

/** @throws Refusal 422 `no-such-departure` for a name that the site does not have */
export function mustBeThere(
  timetable: readonly { id: string; retired: boolean }[],
  name: string | null | undefined,
  path: string,
  { retired = false } = {},
): void {
  if (name === null || name === undefined) return;
  if (!timetable.some((d) => d.id === name && (retired || !d.retired)))
    throw new Refusal('no-such-departure', { name }, [{ path, message: `no departure ${name}` }]);
}

/** @throws Refusal 422 `no-such-place` for a code of a lane or door that the site does not have */
async function mustBePlaces(on: Tx, siteId: string, changes: z.output<typeof changeOrdersBody>['changes']) {
  const places = await rows<{ kind: string; code: string }>(
    on,
    sql`select kind, code from place where site_id = ${siteId} and kind in ('lane', 'door') and not retired`,
  );
  const known = new Set(places.map((p) => `${p.kind} ${p.code}`));
  for (const [i, { set, was }] of changes.entries())
    for (const kind of ['lane', 'door'] as const) {
      const code = set[kind];
      // What is undone may go back to one that is retired.
      if (!code || was !== undefined || known.has(`${kind} ${code}`)) continue;
      throw new Refusal('no-such-place', { code }, [
        { path: `changes.${i}.set.${kind}`, message: `no ${kind} ${code}` },
      ]);
    }
}

const readHeads = (on: Db | Tx, siteId: string, ids: readonly string[]) =>
  rows<Order>(
    on,
    sql`
    select o.id, o.channel, o.status, o.due::text as due, d.name as departure, lane.code as lane, door.code as door, o.priority, o.ship_complete as "shipComplete", o.packing,
           o.reference, o.note, jsonb_build_object('name', o.ship_name, 'street', o.ship_street, 'postcode', o.ship_postcode,
             'city', o.ship_city, 'country', o.ship_country) as "shipTo",
           (select coalesce(sum(l.released), 0)::int from order_line l where l.order_id = o.id) as released,
           exists (select 1 from carton c where c.order_id = o.id and c.state = 'closed') as labelled,
           exists (select 1 from shipment s where s.order_id = o.id and s.state = 'open' and s.tracking is not null) as tracked,
           exists (select 1 from load_order x where x.order_id = o.id) as load
    from customer_order o left join departure d on d.id = o.departure_id
    left join place lane on lane.id = o.lane_id left join place door on door.id = o.door_id
    where o.site_id = ${siteId} and o.id = ${anyOf(ids)} order by o.id`,
  );

/** Orders that go back to the same values are taken back together. */
function undoOf(done: { order: Order; changed: Changed; set: OrderChange }[]): OrdersChanged['undo'] {
  const groups = new Map<string, OrdersChanged['undo'][number]>();
  for (const { order, changed } of done) {
    const was = Object.fromEntries(
      Object.keys(changed.undo).map((f) => [f, changed.head[f as keyof OrderHead]]),
    ) as OrderChange;
    const key = JSON.stringify([changed.undo, was]);
    const group = groups.get(key) ?? { orders: [], set: changed.undo, was };
    group.orders.push(order.id);
    groups.set(key, group);
  }
  return [...groups.values()];
}

/**
 * Changes the heads of orders, or says what that would do. Work that has begun goes on; a shipment that has no label of
 * its carrier yet gets the one of the new departure.
 *
 * @throws Refusal 422 `no-such-departure`, `no-such-place`
 */
export async function changeOrders(
  change: Change,
  { mode, changes }: z.output<typeof changeOrdersBody>,
): Promise<OrdersChanged> {
  const { tx, actor, now } = change;
  const ids = changes.flatMap((c) => c.orders);
  if (mode === 'change') await lockOrders(tx, actor.siteId, { ids });
  const { timetable, timeZone } = await timetableOf(tx, actor.siteId);
  // What is undone may go back to a departure that is no more.
  for (const [i, c] of changes.entries())
    mustBeThere(timetable, c.set.departure, `changes.${i}.set.departure`, { retired: c.was !== undefined });
  await mustBePlaces(tx, actor.siteId, changes);
  const there = new Map((await readHeads(tx, actor.siteId, ids)).map((o) => [o.id, o]));
  const sums = { changed: 0, same: 0, closed: 0, since: 0, underWay: 0, labelled: 0, tracked: 0, inLoad: 0, past: 0 };
  const done = new Map<string, { order: Order; changed: Changed; set: OrderChange }>();
  for (const { orders, set, was } of changes)
    for (const id of orders) {
      const order = there.get(id);
      if (!order || order.status !== 'open') sums.closed++;
      else if (was && !isAs(order, was)) sums.since++;
      else {
        const changed = changeHead(order, set, timetable, timeZone);
        if (changed) done.set(id, { order, changed, set });
        else sums.same++;
      }
    }
  const list = [...done.values()];
  for (const { order, changed } of list) {
    const fields = new Set(changed.differences.map((d) => d.field));
    sums.changed++;
    if (order.released > 0) sums.underWay++;
    if (order.labelled && (fields.has('shipTo') || fields.has('departure'))) sums.labelled++;
    if (order.tracked && fields.has('departure')) sums.tracked++;
    if (order.load && (fields.has('due') || fields.has('departure'))) sums.inLoad++;
    if ((fields.has('due') || fields.has('departure')) && changed.leavesAt !== null && changed.leavesAt < now.getTime())
      sums.past++;
  }
  if (mode === 'preview') return { ...sums, undo: [] };
  await writeHeads(change, list);
  return { ...sums, undo: undoOf(list) };
}

async function writeHeads(change: Change, list: readonly { order: Order; changed: Changed }[]): Promise<void> {
  if (list.length === 0) return;
  const { tx, actor } = change;
  const heads = list.map(({ order, changed: { head, leavesAt } }) => ({
    ...head,
    ...head.shipTo,
    shipTo: undefined,
    shipName: head.shipTo.name,
    id: order.id,
    leavesAt: leavesAt === null ? null : new Date(leavesAt).toISOString(),
  }));
  await tx.execute(sql`
    update customer_order o set due = h.due, departure_id = d.id, lane_id = lane.id, door_id = door.id, leaves_at = h."leavesAt", priority = h.priority, ship_complete = h."shipComplete", packing = h.packing,
      reference = h.reference, note = h.note, ship_name = h."shipName", ship_street = h.street, ship_postcode = h.postcode,
      ship_city = h.city, ship_country = h.country, version = o.version + 1
    from jsonb_to_recordset(${recordset(heads)}) as h(id text, due date, departure text, lane text, door text, "leavesAt" timestamptz, priority int, "shipComplete" boolean, packing text,
      reference text, note text, "shipName" text, street text, postcode text, city text, country text)
    left join departure d on d.name = h.departure and d.site_id = ${actor.siteId}
    left join place lane on lane.code = h.lane and lane.kind = 'lane' and lane.site_id = ${actor.siteId}
    left join place door on door.code = h.door and door.kind = 'door' and door.site_id = ${actor.siteId}
    where o.id = h.id`);
  const moved = list
    .filter(({ changed }) => changed.differences.some((d) => d.field === 'departure'))
    .map(({ order }) => order.id);
  await tx.execute(sql`
    update shipment s set service_id = d.service_id, without_carrier = false
    from customer_order o left join departure d on d.id = o.departure_id
    where o.id = s.order_id and s.state = 'open' and s.tracking is null and o.id = ${anyOf(moved)}`);
  change.journal(
    ...list.map(({ order, changed }) => ({
      kind: 'order-edited',
      orderId: order.id,
      facts: { differences: changed.differences },
    })),
  );
  const ids = list.map(({ order }) => order.id);
  await judgeOrders(change, ids);
  await notesOf(change, ids);
}
