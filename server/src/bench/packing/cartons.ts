import { sql } from 'drizzle-orm';
import type { WeightReason } from '@hand-relay/core/handling/packing';
import { anyOf, notFound, Refusal, rows, type Change, type Tx } from '../../platform/index.ts';
import { openShipment } from '../../dock/shipping/index.ts';
import { noteClosed, noteReopened } from '../packaging/index.ts';
import { closingWeight } from '../weighing/index.ts';
import { nextSscc } from '../../stock/index.ts';
import { endEmptyRuns } from '../../desk/waves/index.ts';

/** An order that is packed, locked. */
export interface PackedOrder {
  id: string;
  number: string;
  status: string;
  service: string | null;
  lane: string | null;
}

export async function lockOrder(change: Change, orderId: string): Promise<PackedOrder> {
  const [order] = await rows<PackedOrder>(
    change.tx,
    sql`select o.id, o.number, o.status, d.service_id as service, lane.code as lane from customer_order o left join departure d on d.id = o.departure_id
        left join place lane on lane.id = coalesce(o.lane_id, d.lane_id) where o.id = ${orderId} and o.site_id = ${change.actor.siteId} for update of o`,
  );
  if (!order) throw notFound('order', orderId);
  return order;
}

/** A carton that is begun: at a bench, or on the cart of a run under the number that is scanned on it. */
export interface NewCarton {
  /** Code of its type. */
  box: string;
  bench?: string;
  run?: { id: string; sscc: string; cart: string };
}

/** Begins a carton for an order. */
export async function openCarton(
  change: Change,
  order: PackedOrder,
  { box, bench = '', run }: NewCarton,
): Promise<{ id: string; place: string; number: number }> {
  const { tx, actor } = change;
  const shipment = await openShipment(change, order);
  const id = change.newId();
  const place = `carton-${id}`;
  await tx.execute(
    sql`insert into place (id, site_id, kind, code) values (${place}, ${actor.siteId}, 'carton', ${id})`,
  );
  const [carton] = await rows<{ number: number }>(
    tx,
    sql`insert into carton (id, site_id, order_id, shipment_id, type_id, place_id, run_id, number, sscc, state, bench)
        select ${id}, ${actor.siteId}, ${order.id}, ${shipment}, t.id, ${place}, ${run?.id ?? null},
               (select coalesce(max(c.number), 0) + 1 from carton c where c.order_id = ${order.id}), ${run?.sscc ?? null}, 'open', ${bench}
        from carton_type t where t.code = ${box} returning number`,
  );
  if (!carton) throw new Refusal('unknown-box', { got: box });
  change.journal({
    kind: 'carton-opened',
    orderId: order.id,
    ...(run ? { runId: run.id } : {}),
    facts: { carton: carton.number, box, bench: run?.cart ?? bench },
  });
  publishPacked(change, order.id, shipment);
  return { id, place, number: carton.number };
}

/**
 * Closes a carton: it weighs what the scale showed, or what it holds, and bears the number that it was begun with, or its
 * own from now on.
 *
 * @param reason why it is closed with another weight than expected
 */
export async function closeCarton(
  change: Change,
  order: PackedOrder,
  cartonId: string,
  reason: WeightReason | null = null,
): Promise<string> {
  const { tx, actor, now } = change;
  const [begun] = await rows<{ sscc: string | null }>(tx, sql`select sscc from carton where id = ${cartonId}`);
  const sscc = begun?.sscc ?? (await nextSscc(change));
  const { weightG, expectedG } = await closingWeight(change, cartonId, reason);
  const [closed] = await rows<{ number: number; shipment: string }>(
    tx,
    sql`
    update carton set state = 'closed', sscc = ${sscc}, closed_at = ${now.toISOString()}, closed_by = ${actor.personId}, weight_g = ${weightG}
    where id = ${cartonId} returning number, shipment_id as shipment`,
  );
  change.journal({
    kind: 'carton-closed',
    orderId: order.id,
    facts: {
      carton: closed!.number,
      sscc,
      weightG,
      lane: order.lane,
      ...(expectedG === null ? {} : { expectedG }),
      ...(reason === null ? {} : { weightReason: reason }),
    },
  });
  await noteClosed(change, 'carton', cartonId);
  await endEmptyRuns(change, order.id);
  publishPacked(change, order.id, closed!.shipment);
  return sscc;
}

/** Closed cartons of an order stand in their lane: somebody brought them there and scanned its sign. */
export async function standInLane(
  change: Change,
  orderId: string,
  { lane, cartons }: { lane: string; cartons: readonly string[] },
): Promise<void> {
  const stood = await rows<{ number: number; shipment: string }>(
    change.tx,
    sql`update carton c set lane_id = p.id from place p
        where p.site_id = ${change.actor.siteId} and p.kind = 'lane' and p.code = ${lane} and c.id = ${anyOf([...cartons])}
        returning c.number, c.shipment_id as shipment`,
  );
  change.journal({
    kind: 'carton-in-lane',
    orderId,
    facts: { cartons: stood.map((c) => c.number).sort((a, b) => a - b), lane },
  });
  publishPacked(change, orderId, stood[0]!.shipment);
}

/** What the scale showed is not what cartons weigh any more, once something was changed in them. */
export async function forgetWeight(tx: Tx, cartons: readonly string[]): Promise<void> {
  await tx.execute(
    sql`update carton set measured_g = null where id = ${anyOf([...cartons])} and measured_g is not null`,
  );
}

/** Locks the order of a carton: the order before what hangs on it, as everywhere. */
export async function lockOrderOf(tx: Tx, cartonId: string): Promise<void> {
  await tx.execute(
    sql`select 1 from customer_order where id = (select order_id from carton where id = ${cartonId}) for update`,
  );
}

/**
 * Opens a closed carton again at a bench. The number on its label is void: closed once more it gets another one, so that
 * a label which is still somewhere names nothing that could be loaded.
 *
 * @throws Refusal 409 `carton-state` where it is not closed, `on-pallet` where it must come off first
 */
export async function reopenCarton(change: Change, cartonId: string, bench: string): Promise<void> {
  const { tx, actor } = change;
  await lockOrderOf(tx, cartonId);
  const [carton] = await rows<{
    order: string;
    state: string;
    number: number;
    sscc: string;
    shipment: string;
    picking: boolean;
    pallet: string | null;
  }>(
    tx,
    sql`select c.order_id as "order", c.state, c.number, c.sscc, c.shipment_id as shipment, coalesce(r.state = 'picking', false) as picking, p.number as pallet
        from carton c left join run r on r.id = c.run_id left join pallet p on p.id = c.pallet_id where c.id = ${cartonId} and c.site_id = ${actor.siteId} for update of c`,
  );
  if (!carton) throw notFound('carton', cartonId);
  if (carton.pallet !== null) throw new Refusal('on-pallet', { pallet: carton.pallet });
  if (carton.state !== 'closed' || carton.picking)
    throw new Refusal('carton-state', { carton: carton.number, state: carton.state });
  await tx.execute(sql`
    insert into void_label (sscc, site_id, order_id, name, at)
    select ${carton.sscc}, ${actor.siteId}, o.id, ${carton.number}::text || ' · ' || o.number, ${change.now.toISOString()}
    from customer_order o where o.id = ${carton.order}`);
  await tx.execute(sql`
    update carton set state = 'open', sscc = null, weight_g = null, measured_g = null, closed_at = null, closed_by = null, lane_id = null, run_id = null, bench = ${bench}
    where id = ${cartonId}`);
  await noteReopened(change, cartonId);
  change.journal({
    kind: 'carton-reopened',
    orderId: carton.order,
    facts: { carton: carton.number, sscc: carton.sscc, bench },
  });
  publishPacked(change, carton.order, carton.shipment);
}

export function publishPacked(change: Change, orderId: string, shipmentId: string): void {
  change.publish('bench', [orderId]);
  change.publish('orders', [orderId]);
  change.publish('shipments', [shipmentId]);
}
