import { sql } from 'drizzle-orm';
import type { z } from 'zod';
import type { moveBody } from '@hand-relay/contract';
import { recordset, Refusal, rows, type Change, type Db } from '../../platform/index.ts';

/**
 * Gives orders a lane and a door of their own, or leaves them to their departure again.
 *
 * @throws Refusal 422 `no-such-place` for a sign that the site does not have
 */
export async function moveOrders(change: Change, { orders, lane, door }: z.output<typeof moveBody>) {
  const { tx, actor } = change;
  const placeOf = async (kind: 'lane' | 'door', code: string | null) => {
    if (code === null) return null;
    const [place] = await rows<{ id: string }>(
      tx,
      sql`select id from place where site_id = ${actor.siteId} and kind = ${kind} and code = ${code} and not retired`,
    );
    if (!place) throw new Refusal('no-such-place', { code }, [{ path: kind, message: `no ${kind} ${code}` }]);
    return place.id;
  };
  const laneId = await placeOf('lane', lane);
  const doorId = await placeOf('door', door);
  const moved = await rows<{ id: string }>(
    tx,
    sql`update customer_order set lane_id = ${laneId}, door_id = ${doorId}, version = version + 1
        where site_id = ${actor.siteId} and status = 'open' and id in (select jsonb_array_elements_text(${recordset(orders)})) returning id`,
  );
  change.journal(...moved.map(({ id }) => ({ kind: 'order-moved', orderId: id, facts: { lane, door } })));
  change.publish(
    'orders',
    moved.map((o) => o.id),
  );
  return { moved: moved.length };
}

/** What a view can name, and where orders can be sent. */
export async function placesOf(db: Db, siteId: string) {
  const names = async (statement: ReturnType<typeof sql>) =>
    (await rows<{ name: string }>(db, statement)).map((r) => r.name);
  const places = (kind: string) =>
    names(
      sql`select code as name from place where site_id = ${siteId} and kind = ${kind} and not retired order by code`,
    );
  return {
    lanes: await places('lane'),
    doors: await places('door'),
    zones: await names(sql`select code as name from zone where site_id = ${siteId} and not retired order by code`),
    carriers: await names(sql`
      select distinct k.name from carrier k join service v on v.carrier_id = k.id join departure d on d.service_id = v.id
      where d.site_id = ${siteId} and not d.retired order by k.name`),
    departures: await names(
      sql`select name from departure where site_id = ${siteId} and not retired order by cut_off, name`,
    ),
  };
}
