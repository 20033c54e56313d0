import { sql } from 'drizzle-orm';
import type { z } from 'zod';
import type { changeLoadBody, fillLoadBody, planLoadBody } from '@hand-relay/contract';
import { departureOn } from '@hand-relay/core/calendar';
import { fillOf, fitting } from '@hand-relay/core/deciding/loads';
import { anyOf, notFound, recordset, Refusal, rows, type Change } from '../../platform/index.ts';
import { nextNumbers } from '../../stock/index.ts';
import { lockOrders } from '../waves/index.ts';
import { leftRows, loadRows, palletOf, shareRows, stopsOf, vehicleOf, type LoadRow, type ShareRow } from './read.ts';

const wrong = (path: string, got: string) =>
  new Refusal('no-such-place', { code: got }, [{ path, message: `no ${path} ${got}` }]);

/** The names of a body as ids; what is not there is refused at its field. */
async function named(change: Change, body: z.output<typeof changeLoadBody>) {
  const { tx, actor, now } = change;
  const [vehicle] = await rows<{ id: string }>(
    tx,
    sql`select id from vehicle_type where name = ${body.vehicle} and not retired`,
  );
  if (!vehicle) throw wrong('vehicle', body.vehicle);
  const [door] = await rows<{ id: string }>(
    tx,
    sql`select id from place where site_id = ${actor.siteId} and kind = 'door' and code = ${body.door ?? ''} and not retired`,
  );
  if (body.door !== null && !door) throw wrong('door', body.door);
  const [departure] = await rows<{
    id: string;
    cutOff: string;
    days: number[];
    timeZone: string;
    doorId: string | null;
  }>(
    tx,
    sql`select d.id, d.cut_off as "cutOff", d.days, s.time_zone as "timeZone", d.door_id as "doorId" from departure d join site s on s.id = d.site_id
        where d.site_id = ${actor.siteId} and d.name = ${body.departure ?? ''} and not d.retired`,
  );
  if (body.departure !== null && !departure) throw wrong('departure', body.departure);
  const leavesAt = departure ? departureOn(departure, body.day, departure.timeZone, now.getTime()) : null;
  return {
    vehicle: vehicle.id,
    departure: departure?.id ?? null,
    leavesAt: leavesAt === null ? null : new Date(leavesAt).toISOString(),
    door: door?.id ?? departure?.doorId ?? null,
  };
}

/** A load that is planned, locked. Orders are locked before their load. */
export async function lockLoad(change: Change, id: string): Promise<LoadRow> {
  const { tx, actor } = change;
  await tx.execute(sql`select 1 from load where id = ${id} and site_id = ${actor.siteId} for update`);
  const [load] = await loadRows(tx, actor.siteId, sql`d.id = ${id} and d.state = 'planned'`);
  if (!load) throw notFound('load', id);
  return load;
}

/** Refuses what is more than the vehicle takes, and says what is too much and by how much. */
async function mustFit(change: Change, load: LoadRow, shares: readonly ShareRow[]): Promise<void> {
  const left = await leftRows(change.tx, [load.id]);
  const { over } = fillOf(vehicleOf(load), await palletOf(change.tx), [...shares, ...left]);
  if (over.length > 0) throw new Refusal('load-overfull', { load: load.number, vehicle: load.vehicle, over });
}

/** Plans a load, with its first orders if some are given. */
export async function planLoad(change: Change, body: z.output<typeof planLoadBody>): Promise<string> {
  const { tx, actor, now } = change;
  const { vehicle, departure, leavesAt, door } = await named(change, body);
  const id = change.newId();
  const [number] = await nextNumbers(change, 'load', 1);
  await tx.execute(sql`
    insert into load (id, site_id, number, vehicle_id, departure_id, leaves_at, door_id, note, created_at, created_by)
    values (${id}, ${actor.siteId}, ${number}, ${vehicle}, ${departure}, ${leavesAt}, ${door}, ${body.note}, ${now.toISOString()}, ${actor.personId})`);
  if (body.orders.length > 0) await fillLoad(change, id, { add: body.orders, remove: [], whatFits: false });
  change.publish('orders', body.orders);
  return id;
}

/** Changes what a load is; its orders stay, and must fit. */
export async function changeLoad(change: Change, id: string, body: z.output<typeof changeLoadBody>): Promise<void> {
  const { tx, actor } = change;
  await lockLoad(change, id);
  const { vehicle, departure, leavesAt, door } = await named(change, body);
  await tx.execute(sql`
    update load set vehicle_id = ${vehicle}, departure_id = ${departure}, leaves_at = ${leavesAt}, door_id = ${door}, note = ${body.note} where id = ${id}`);
  const [load] = await loadRows(tx, actor.siteId, sql`d.id = ${id}`);
  await mustFit(change, load!, await shareRows(tx, actor.siteId, sql`lo.load_id = ${id}`));
  change.publish('orders', []);
}

/**
 * Puts orders into a load and takes others out.
 *
 * @throws Refusal 409 `load-overfull` with what is too much; `in-other-load` for an order that is in one already
 */
export async function fillLoad(
  change: Change,
  id: string,
  { add, remove, whatFits }: z.output<typeof fillLoadBody>,
): Promise<void> {
  const { tx, actor, now } = change;
  await lockOrders(tx, actor.siteId, { ids: add });
  const load = await lockLoad(change, id);
  const removed = await rows<{ order: string }>(
    tx,
    sql`delete from load_order where load_id = ${id} and order_id = ${anyOf(remove)} returning order_id as "order"`,
  );
  const inside = await shareRows(tx, actor.siteId, sql`lo.load_id = ${id}`);
  const asked = await shareRows(tx, actor.siteId, sql`o.status = 'open' and o.id = ${anyOf(add)}`);
  const elsewhere = asked.find((s) => s.load !== null && s.load !== id);
  if (elsewhere) throw new Refusal('in-other-load', { order: elsewhere.number });
  const place = new Map(add.map((order, i) => [order, i]));
  const fresh = asked.filter((s) => s.load === null).sort((a, b) => place.get(a.id)! - place.get(b.id)!);
  const there = [...inside, ...(await leftRows(tx, [id]))];
  const chosen = whatFits ? fitting(vehicleOf(load), await palletOf(tx), there, fresh).map((i) => fresh[i]!) : fresh;
  if (chosen.length > 0) await mustFit(change, load, [...inside, ...chosen]);
  await tx.execute(sql`
    insert into load_order (order_id, load_id, added_at)
    select o, ${id}, ${now.toISOString()} from jsonb_array_elements_text(${recordset(chosen.map((s) => s.id))}) as o`);
  await writeStops(change, [...inside, ...chosen]);
  change.journal(
    ...removed.map(({ order }) => ({ kind: 'load-left', orderId: order, facts: { load: load.number } })),
    ...chosen.map((s) => ({ kind: 'load-joined', orderId: s.id, facts: { load: load.number, vehicle: load.vehicle } })),
  );
  change.publish('orders', [...removed.map((l) => l.order), ...chosen.map((s) => s.id)]);
}

/** Writes the stops of orders that are in one load: those that join are delivered last, or at their address's stop. */
async function writeStops({ tx }: Change, shares: readonly ShareRow[]): Promise<void> {
  const stops = stopsOf(shares).map((stop, i) => ({ order: shares[i]!.id, stop }));
  await tx.execute(sql`
    update load_order lo set stop = s.stop from jsonb_to_recordset(${recordset(stops)}) as s("order" text, stop int)
    where lo.order_id = s."order" and lo.stop <> s.stop`);
}

/**
 * Cancels a load; its orders are in none.
 *
 * @throws Refusal 409 `load-under-way` where something left on it already: it is closed instead
 */
export async function cancelLoad(change: Change, id: string): Promise<void> {
  const { tx, actor, now } = change;
  const { number } = await lockLoad(change, id);
  const left = await leftRows(tx, [id]);
  if (left.length > 0) throw new Refusal('load-under-way', { load: number, shipments: left.length });
  const inside = await shareRows(tx, actor.siteId, sql`lo.load_id = ${id}`);
  await fillLoad(change, id, { add: [], remove: inside.map((s) => s.id), whatFits: false });
  await tx.execute(sql`delete from load_order where load_id = ${id}`);
  await tx.execute(
    sql`update load set state = 'dissolved', ended_at = ${now.toISOString()}, ended_by = ${actor.personId} where id = ${id}`,
  );
  change.publish('orders', []);
}
