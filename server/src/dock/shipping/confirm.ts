import { sql, type SQL } from 'drizzle-orm';
import {
  closingOf,
  consume,
  judgeShipment,
  type DemandKind,
  type Reserved,
  type Rest,
  type ShipLine,
} from '@hand-relay/core/handling/shipping';
import { readTracking, trackingExample, type TrackingForm } from '@hand-relay/core/reading/tracking';
import { mustNotBeHeld } from '../../desk/holds/index.ts';
import { endLoadOf, leaveOnLoad } from '../../desk/loads/index.ts';
import { confirmToHost } from '../host/index.ts';
import { anyOf, notFound, recordset, Refusal, rows, type Change } from '../../platform/index.ts';
import { closeIfDone, mustBeDecided } from '../../desk/orders/index.ts';
import { discardEmptyCartons } from './emptyCartons.ts';
import { mustNotBeStacked, shipPallets } from './onPallets.ts';
import { shipPackaging } from '../../bench/packaging/index.ts';
import { move, nextNumbers, nextSscc, outsideOf } from '../../stock/index.ts';
import { endEmptyRuns } from '../../desk/waves/index.ts';

interface ShipmentRow {
  id: string;
  number: string;
  state: 'open' | 'confirmed';
  order: string;
  tracking: string | null;
  form: TrackingForm | null;
  shipComplete: boolean;
  kind: DemandKind;
  toSite: string;
  carrier: string | null;
  /** It has to leave with a carrier, or without one by decision, and has neither. */
  carrierMissing: boolean;
  loose: boolean;
}

async function lockShipment(change: Change, id: string): Promise<ShipmentRow> {
  // The order before what hangs on it, as at the bench: otherwise the two would wait for each other.
  await change.tx.execute(
    sql`select 1 from customer_order where id = (select order_id from shipment where id = ${id}) for update`,
  );
  const [row] = await rows<ShipmentRow>(
    change.tx,
    sql`select s.id, s.number, s.state, s.order_id as "order", s.tracking, k.tracking as form, o.ship_complete as "shipComplete", k.name as carrier, s.service_id is null and not s.without_carrier as "carrierMissing", s.loose, o.kind, o.to_site as "toSite"
        from shipment s join customer_order o on o.id = s.order_id left join service v on v.id = s.service_id left join carrier k on k.id = v.carrier_id
        where s.id = ${id} and s.site_id = ${change.actor.siteId} for update of s, o`,
  );
  if (!row) throw notFound('shipment', id);
  // What no carrier takes needs no number of one.
  return closingOf(row.kind).carried ? row : { ...row, form: null, carrierMissing: false };
}

/** Positions of carts left at the dock that still carry goods of an order. */
const carried = (orderId: string) => sql`
  select q.place_id from run_position q join run r on r.id = q.run_id and r.state in ('left', 'done')
  where q.order_id = ${orderId} and exists (select 1 from balance b where b.place_id = q.place_id)`;

/**
 * Confirms a shipment at once, with a number from its carrier where one is needed; what is short stays open. Where no
 * carrier answers, it waits at the dock for its number; where none is chosen, it waits there for somebody to choose.
 */
export async function shipAtOnce(change: Change, id: string): Promise<void> {
  const { form, tracking, order, carrierMissing } = await lockShipment(change, id);
  if (carrierMissing) {
    change.journal({ kind: 'ship-waits', orderId: order, facts: { code: 'carrier-missing' } });
    return;
  }
  if (form && form.kind !== 'none' && tracking === null) {
    if (!change.carrier) return;
    await setTracking(change, id, { from: 'carrier' });
  }
  await confirmShipment(change, id, 'keep-open');
}

/**
 * Decides which carrier's service takes a shipment, or that none does: it is collected, or leaves in a vehicle of our
 * own. What a tracking number was given for stays with its carrier.
 *
 * @throws Refusal 404 for a service that is none, 409 `already-confirmed`, `carrier-not-needed` for goods that no
 *   carrier takes, `tracking-given`
 */
export async function chooseCarrier(change: Change, id: string, serviceId: string | null): Promise<void> {
  const { tx } = change;
  const shipment = await lockShipment(change, id);
  const facts = { shipment: shipment.number };
  if (shipment.state === 'confirmed') throw new Refusal('already-confirmed', facts);
  if (!closingOf(shipment.kind).carried) throw new Refusal('carrier-not-needed', facts);
  if (shipment.tracking !== null) throw new Refusal('tracking-given', { ...facts, carrier: shipment.carrier });
  const [service] = await rows<{ name: string }>(
    tx,
    sql`select k.name || ', ' || v.name as name from service v join carrier k on k.id = v.carrier_id where v.id = ${serviceId}`,
  );
  if (serviceId !== null && !service) throw notFound('service', serviceId);
  await tx.execute(
    sql`update shipment set service_id = ${serviceId}, without_carrier = ${serviceId === null} where id = ${id}`,
  );
  change.journal({
    kind: serviceId === null ? 'carrier-none' : 'carrier-chosen',
    orderId: shipment.order,
    facts: { ...facts, carrier: service?.name ?? null },
  });
  change.publish('shipments', [id]);
  change.publish('orders', [shipment.order]);
}

/** Takes a tracking number from the carrier, or from a person after checking its form. */
export async function setTracking(
  change: Change,
  id: string,
  from: { from: 'carrier' } | { from: 'person'; number: string },
): Promise<void> {
  const { tx } = change;
  const shipment = await lockShipment(change, id);
  if (shipment.state === 'confirmed') throw new Refusal('already-confirmed', { shipment: shipment.number });
  const form = shipment.form ?? { kind: 'none' as const };
  if (shipment.carrierMissing) throw new Refusal('carrier-missing', { shipment: shipment.number });
  if (form.kind === 'none') throw new Refusal('no-tracking', { carrier: shipment.carrier });
  let tracking: string | null | undefined;
  if (from.from === 'carrier') {
    if (!change.carrier) throw new Refusal('no-carrier-link', { carrier: shipment.carrier });
    const [unit] = await rows<{ sscc: string }>(
      tx,
      sql`select sscc from carton where shipment_id = ${id} and sscc is not null order by number limit 1`,
    );
    if (!unit && !shipment.loose) throw new Refusal('nothing-packed', { shipment: shipment.number });
    const [serial] = await nextNumbers(change, 'tracking', 1);
    tracking = change.carrier.announce({ form, serial: serial!, sscc: unit?.sscc ?? (await nextSscc(change)) });
  } else {
    tracking = readTracking(from.number, form);
    if (!tracking)
      throw new Refusal(
        'tracking-form',
        { got: from.number, example: trackingExample(form), carrier: shipment.carrier },
        [{ path: 'number', message: `expected a number like ${trackingExample(form)}` }],
      );
  }
  await tx.execute(sql`update shipment set tracking = ${tracking}, tracking_from = ${from.from} where id = ${id}`);
  change.journal({
    kind: 'tracking',
    orderId: shipment.order,
    facts: { shipment: shipment.number, tracking, from: from.from },
  });
  change.publish('shipments', [id]);
  change.publish('orders', [shipment.order]);
}

/**
 * Confirms that a shipment left: stock goes out, reservations end, the order closes or stays open for its rest.
 *
 * @throws Refusal 409 with the reason and the lines that it is about
 */
export async function confirmShipment(change: Change, id: string, rest: Rest | null): Promise<void> {
  const { tx, actor, now } = change;
  const shipment = await lockShipment(change, id);
  await mustNotBeHeld(tx, shipment.order, 'shipping');
  await mustBeDecided(tx, shipment.order);
  await mustNotBeStacked(change, id);
  await discardEmptyCartons(change, shipment.order);
  const { loose } = shipment;
  const closing = closingOf(shipment.kind);
  const lines = await rows<ShipLine & { released: number }>(
    tx,
    sql`
    select l.id as line, i.sku, l.asked - l.cancelled - l.shipped as open, l.picked - l.shipped as picked, l.released - l.shipped as released,
           ${loose ? sql`l.packed - l.shipped` : sql`coalesce(c.closed, 0)::int`} as packed, coalesce(c.open, 0)::int as "inOpenCarton"
    from order_line l join item i on i.id = l.item_id
    left join lateral (
      select sum(k.units) filter (where u.state = 'closed') as closed, sum(k.units) filter (where u.state = 'open') as open
      from carton_line k join carton u on u.id = k.carton_id where k.line_id = l.id and u.shipment_id = ${id}
    ) c on true
    where l.order_id = ${shipment.order} order by l.line`,
  );
  const [units] = await rows<{ cartons: number; open: number }>(
    tx,
    sql`select count(*)::int as cartons, (count(*) filter (where state = 'open'))::int as open from carton where shipment_id = ${id}`,
  );
  const verdict = judgeShipment(
    {
      confirmed: shipment.state === 'confirmed',
      cartons: units!.cartons,
      openCartons: units!.open,
      loose,
      openPicks: lines.reduce((n, l) => n + l.released - l.picked, 0),
      carrierMissing: shipment.carrierMissing,
      tracking: shipment.tracking,
      trackingForm: shipment.form ?? { kind: 'none' },
      shipComplete: shipment.shipComplete,
      lines,
    },
    rest,
  );
  if (verdict.verdict === 'refused')
    throw new Refusal(verdict.code, { shipment: shipment.number, lines: verdict.lines });

  const goods = await rows<{ from: string; item: string; lot: string; serial: string; units: number }>(
    tx,
    sql`select b.place_id as "from", b.item_id as item, b.lot, b.serial, b.units from balance b
        where b.place_id in (${loose ? carried(shipment.order) : sql`select place_id from carton where shipment_id = ${id}`})`,
  );
  // Promises end before the goods leave: reserved may never exceed what is on hand.
  await endReservations(
    change,
    loose
      ? sql`select k.line_id as line, k.lot, sum(k.picked)::int as units from pick k join run_position q on q.run_id = k.run_id and q.number = k.position
            where k.order_id = ${shipment.order} and k.picked > 0 and q.place_id in (${carried(shipment.order)}) group by 1, 2`
      : sql`select k.line_id as line, k.lot, sum(k.units)::int as units from carton_line k join carton c on c.id = k.carton_id
            where c.shipment_id = ${id} group by 1, 2`,
  );
  await move(
    change,
    goods.map((g) => ({ ...g, to: outsideOf(actor.siteId) })),
    'ship',
    id,
  );
  const shipped = recordset(verdict.ship);
  await tx.execute(sql`
    with s as (select * from jsonb_to_recordset(${shipped}) as s(line text, units int)),
    kept as (insert into shipment_line (shipment_id, line_id, units) select ${id}, line, units from s)
    update order_line l set shipped = l.shipped + s.units from s where l.id = s.line`);
  if (rest === 'cancel')
    await tx.execute(sql`
      update order_line l set cancelled = l.cancelled + r.units from jsonb_to_recordset(${recordset(verdict.rest)}) as r(line text, units int) where l.id = r.line`);
  await tx.execute(sql`update carton set state = 'shipped' where shipment_id = ${id}`);
  await shipPallets(change, id);
  const packaging = await shipPackaging(change, id);
  await tx.execute(
    sql`update shipment set state = 'confirmed', confirmed_at = ${now.toISOString()}, confirmed_by = ${actor.personId} where id = ${id}`,
  );
  await confirmToHost(change, id, closing.invoice);
  if (closing.arrives) await sendToSite(change, shipment);
  const load = await leaveOnLoad(change, id);
  await closeIfDone(change, shipment.order);
  if (load !== null) await endLoadOf(change, shipment.order);
  if (loose) await endEmptyRuns(change, shipment.order);
  change.journal({
    kind: 'shipped',
    orderId: shipment.order,
    facts: {
      shipment: shipment.number,
      units: verdict.ship.reduce((n, l) => n + l.units, 0),
      cartons: units!.cartons,
      tracking: shipment.tracking,
      packagingMinor: packaging.costMinor,
      kind: shipment.kind,
      invoice: closing.invoice,
      rest: verdict.rest.length > 0 ? rest : null,
      complete: verdict.complete,
      load,
    },
  });
  change.publish('shipments', [id]);
  change.publish('orders', [shipment.order]);
  change.publish('waves', []);
  change.publish('stock', []);
}

/**
 * Ends what was reserved for goods that leave.
 *
 * @param leaves selects their units by line and lot
 */
async function endReservations({ tx }: Change, leaves: SQL): Promise<void> {
  const gone = await rows<{ line: string; lot: string; units: number }>(tx, leaves);
  const reserved = await rows<Reserved>(
    tx,
    sql`select wave_id as wave, line_id as line, lot, units, hard_allocated as "hardAllocated" from reservation
        where line_id = ${anyOf(gone.map((g) => g.line))} and units > 0 order by wave_id`,
  );
  await tx.execute(sql`
    update reservation r set units = c.units, hard_allocated = c."hardAllocated"
    from jsonb_to_recordset(${recordset(consume(reserved, gone))}) as c(wave text, line text, lot text, units int, "hardAllocated" int)
    where r.wave_id = c.wave and r.line_id = c.line and r.lot = c.lot`);
}

/** What left on a transfer is supply on its way to the other site, expected there the day after. */
async function sendToSite(change: Change, { id, number, toSite }: ShipmentRow): Promise<void> {
  const { tx, now } = change;
  const [there] = await rows<{ site: string }>(
    tx,
    sql`
    insert into expected_supply (site_id, reference, item_id, due, units, source)
    select t.id, f.code || ' ' || ${number}, l.item_id, (${now.toISOString()}::timestamptz at time zone t.time_zone)::date + 1, sum(x.units)::int, 'transfer'
    from shipment s join site f on f.id = s.site_id join site t on t.code = ${toSite}
    join shipment_line x on x.shipment_id = s.id join order_line l on l.id = x.line_id
    where s.id = ${id} and x.units > 0 group by t.id, f.code, l.item_id, t.time_zone
    on conflict (site_id, reference, item_id, due) do update set units = expected_supply.units + excluded.units returning site_id as site`,
  );
  if (there) change.publishAt(there.site, 'stock');
}
