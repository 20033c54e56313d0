import { sql, type SQL } from 'drizzle-orm';
import {
  anyOf,
  change,
  recordset,
  Refusal,
  rows,
  runTurns,
  unattended,
  type Change,
  type Platform,
} from '../../platform/index.ts';
import { lockLoad } from './plan.ts';
import { leftRows, shareRows, stopsOf } from './read.ts';

/**
 * Puts the stops of a load into another order.
 *
 * @param stops the present numbers in their new order
 * @throws Refusal 409 `stops-changed` where the load has other stops by now
 */
export async function orderStops(change: Change, id: string, stops: readonly number[]): Promise<void> {
  const { tx, actor } = change;
  const { number } = await lockLoad(change, id);
  const shares = await shareRows(tx, actor.siteId, sql`lo.load_id = ${id}`);
  const present = stopsOf(shares);
  const place = new Map(stops.map((stop, i) => [stop, i + 1]));
  if (stops.length !== Math.max(0, ...present) || place.size !== stops.length || !present.every((s) => place.has(s)))
    throw new Refusal('stops-changed', { load: number });
  const moved = shares.map((s, i) => ({ order: s.id, stop: place.get(present[i]!)! }));
  await tx.execute(sql`
    update load_order lo set stop = s.stop from jsonb_to_recordset(${recordset(moved)}) as s("order" text, stop int)
    where lo.order_id = s."order"`);
  change.publish(
    'orders',
    shares.map((s) => s.id),
  );
}

/** Ends loads, and leaves nothing in them; what left on one is known by its shipments. */
async function end({ tx, now }: Change, ids: readonly string[], by: string | null): Promise<void> {
  await tx.execute(sql`
    update load d set ended_at = ${now.toISOString()}, ended_by = ${by},
      state = case when exists (select 1 from shipment s where s.load_id = d.id) then 'left' else 'dissolved' end
    where d.id = ${anyOf(ids)}`);
  await tx.execute(sql`delete from load_order where load_id = ${anyOf(ids)}`);
}

/**
 * Closes a load that has left. What did not ship with it is in no load and can go with another.
 *
 * @throws Refusal 409 `load-nothing-left` where nothing was confirmed on it: it is cancelled instead
 */
export async function closeLoad(change: Change, id: string): Promise<void> {
  const { tx, actor } = change;
  const { number } = await lockLoad(change, id);
  if ((await leftRows(tx, [id])).length === 0) throw new Refusal('load-nothing-left', { load: number });
  const stayed = await shareRows(tx, actor.siteId, sql`lo.load_id = ${id}`);
  await end(change, [id], actor.personId);
  change.journal(...stayed.map(({ id: orderId }) => ({ kind: 'load-left', orderId, facts: { load: number } })));
  change.publish(
    'orders',
    stayed.map((s) => s.id),
  );
}

/** Of planned loads, those of whose orders nothing is left to ship. */
const emptied = (which: SQL) => sql`
  select d.id from load d where d.state = 'planned' and ${which} and not exists (
    select 1 from load_order lo join customer_order o on o.id = lo.order_id and o.status = 'open' where lo.load_id = d.id)`;

/**
 * Notes that a shipment leaves on the load that its order is in, if it is in one.
 *
 * @returns the number of the load
 */
export async function leaveOnLoad({ tx }: Change, shipment: string): Promise<number | null> {
  const [load] = await rows<{ number: number }>(
    tx,
    sql`update shipment s set load_id = d.id from load_order lo join load d on d.id = lo.load_id and d.state = 'planned'
        where s.id = ${shipment} and lo.order_id = s.order_id returning d.number`,
  );
  return load?.number ?? null;
}

/** Ends the load of an order with the last shipment that it waited for. */
export async function endLoadOf(change: Change, orderId: string): Promise<void> {
  const { tx } = change;
  // Locked before it is judged: of two last shipments at one time, the second sees the first.
  const [load] = await rows<{ id: string }>(
    tx,
    sql`select d.id from load d join load_order lo on lo.load_id = d.id
        where lo.order_id = ${orderId} and d.state = 'planned' for update of d`,
  );
  if (!load) return;
  const done = await rows<{ id: string }>(tx, emptied(sql`d.id = ${load.id}`));
  if (done.length > 0) await end(change, [load.id], null);
}

const HOUR = 3_600_000;
const TURN_MS = 5 * 60_000;

/**
 * Ends loads that waited for nothing when they were to leave: what was in them was cancelled or went another way. One
 * without a time ends a day after it was planned.
 */
export async function endEmptyLoads(platform: Platform): Promise<void> {
  const now = platform.clock();
  const past = sql`coalesce(d.leaves_at, d.created_at + interval '1 day') < ${new Date(now.getTime() - HOUR).toISOString()}`;
  for (const { site } of await rows<{ site: string }>(
    platform.db,
    sql`select distinct site_id as site from load where id in (${emptied(past)})`,
  )) {
    const actor = await unattended(platform, site, 'loads', 'Loads');
    await change(platform, actor, null, async (current) => {
      const locked = await rows<{ id: string }>(
        current.tx,
        sql`select id from load where site_id = ${site} and id in (${emptied(past)}) order by id for update`,
      );
      const ids = locked.map((d) => d.id);
      const still = await rows<{ id: string }>(current.tx, emptied(sql`d.id = ${anyOf(ids)}`));
      await end(
        current,
        still.map((d) => d.id),
        null,
      );
      current.publish('orders', []);
    });
  }
}

/** Lets emptied loads end by themselves. */
export const runLoads = (platform: Platform): (() => Promise<void>) =>
  runTurns(platform, 'loads', TURN_MS, () => platform.alone('loads', () => endEmptyLoads(platform), { wait: false }));
