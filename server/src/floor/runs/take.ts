import { sql } from 'drizzle-orm';
import type { z } from 'zod';
import type { takeOutBody } from '@hand-relay/contract';
import { readCode } from '@hand-relay/core/reading/codes';
import { notFound, Refusal, rows, type Change } from '../../platform/index.ts';
import { raiseException } from '../../desk/exceptions/index.ts';
import { settleReturned, surplusAmong } from '../../desk/orders/index.ts';
import { requestPutAway, type Unwanted } from '../putAway/index.ts';
import { endWaveIfDone, freeReservation } from '../../desk/waves/index.ts';
import { stageGoods } from '../../dock/shipping/index.ts';
import { settingsOf } from '../../setup/settings/index.ts';
import { takesCarts } from './bench.ts';
import { endCartons, giveUpCartons } from './intoCarton.ts';
import { reportOut } from './shortPick.ts';
import { lockRun, mustBeMine, type RunRow } from './lock.ts';
import { linePicks } from './read.ts';

/**
 * Takes a waiting run with a cart that is free and has positions enough.
 *
 * @param scanned null where the site asks for no cart, and for a run whose goods lie on one already
 */
export async function takeRun(change: Change, runId: string, scanned: string | null): Promise<void> {
  const { tx, actor } = change;
  const run = await lockRun(tx, actor.siteId, runId);
  if (run.state === 'picking' && run.pickerId !== actor.personId)
    throw new Refusal('run-of-another', { run: run.number, picker: run.picker });
  if (run.state !== 'waiting') throw new Refusal('run-state', { run: run.number, state: run.state });
  if (run.assignedId && run.assignedId !== actor.personId && !actor.rights.has('runs.arrange'))
    throw new Refusal('run-of-another', { run: run.number, picker: run.assigned });
  const cart = scanned ?? run.cart;
  if (cart === null && (await settingsOf(tx, actor.siteId)).askCart)
    throw new Refusal('cart-asked', { run: run.number });
  await giveCart(change, run, cart ?? (await freeCart(change, run)), actor.personId);
}

/**
 * The free cart that takes a run with the fewest places to spare: for runs that were picked without a cart of a number,
 * as from paper. Others who look for one meanwhile get another.
 *
 * @throws Refusal 409 `no-free-cart` where none is free that takes it
 */
export async function freeCart({ tx, actor }: Change, run: RunRow): Promise<string> {
  const [cart] = await rows<{ code: string }>(
    tx,
    sql`select c.code from cart c join cart_type t on t.id = c.type_id
        where c.site_id = ${actor.siteId} and not c.retired
          and (${run.picking} = 'consolidate' or t.positions >= (select coalesce(max(number), 1) from run_position where run_id = ${run.id}))
          and not exists (select 1 from run b where b.site_id = c.site_id and b.cart_code = c.code and b.state in ('waiting', 'picking', 'left'))
          and not exists (
            select 1 from put_away g join run r on r.id = g.run_id where r.site_id = c.site_id and r.cart_code = c.code and g.done_at is null)
        order by t.positions, c.code limit 1 for update of c skip locked`,
  );
  if (!cart) throw new Refusal('no-free-cart', { run: run.number });
  return cart.code;
}

/** Gives a waiting run to a picker with a cart that is free and has positions enough. */
export async function giveCart(change: Change, run: RunRow, scanned: string, picker: string): Promise<void> {
  const { tx, actor, now } = change;
  const [cart] = await rows<{ code: string; positions: number; busy: string | null; carries: boolean }>(
    tx,
    sql`select c.code, t.positions, (
          select b.number from run b where b.site_id = c.site_id and b.cart_code = c.code and b.id <> ${run.id} and b.state in ('waiting', 'picking', 'left') limit 1
        ) as busy, exists (
          select 1 from put_away g join run r on r.id = g.run_id where r.site_id = c.site_id and r.cart_code = c.code and r.id <> ${run.id} and g.done_at is null
        ) as carries from cart c join cart_type t on t.id = c.type_id where c.site_id = ${actor.siteId} and upper(c.code) = upper(${scanned}) and not c.retired`,
  );
  if (!cart) {
    const code = readCode(scanned, now.getUTCFullYear());
    throw code.kind === 'cart'
      ? new Refusal('unknown-cart', { got: code.cart })
      : new Refusal('not-a-cart', { got: scanned });
  }
  // What somebody began lies on its cart.
  if (run.cart && run.cart !== cart.code) throw new Refusal('other-cart', { run: run.number, cart: run.cart });
  if (cart.busy) throw new Refusal('cart-busy', { cart: cart.code, run: cart.busy });
  if (cart.carries) throw new Refusal('cart-carries', { cart: cart.code });
  const [needed] = await rows<{ positions: number }>(
    tx,
    sql`select max(number)::int as positions from run_position where run_id = ${run.id}`,
  );
  // What is picked together lies on the cart as it comes: its places do not count.
  // Where the cart is set up, what finds no place on it stays behind.
  if (
    run.picking !== 'consolidate' &&
    cart.positions < needed!.positions &&
    (await settingsOf(tx, actor.siteId)).setUp === 'none'
  )
    throw new Refusal('cart-small', { cart: cart.code, positions: cart.positions, needed: needed!.positions });
  await tx.execute(sql`
    update run set state = 'picking', picker_id = ${picker}, cart_code = ${cart.code}, started_at = coalesce(started_at, ${now.toISOString()})
    where id = ${run.id}`);
  await journalRun(change, run, 'run-taken', { cart: cart.code });
  change.publish('runs', [run.id]);
  change.publish('waves', [run.waveId]);
}

/** Journals for a run and for every order on it, so that each order's trail tells it. */
export async function journalRun(
  change: Change,
  run: RunRow,
  kind: string,
  facts: Record<string, unknown>,
): Promise<void> {
  const orders = await rows<{ order: string }>(
    change.tx,
    sql`select order_id as "order" from run_position where run_id = ${run.id} order by number`,
  );
  change.journal(
    ...orders.map(({ order }) => ({
      kind,
      orderId: order,
      runId: run.id,
      waveId: run.waveId,
      facts: { run: run.number, ...facts },
    })),
  );
}

/** Gives a run back to those waiting, while nothing of it is picked. */
export async function returnRun(change: Change, runId: string): Promise<void> {
  const { tx, actor } = change;
  const run = await lockRun(tx, actor.siteId, runId);
  if (run.state !== 'picking') throw new Refusal('run-state', { run: run.number, state: run.state });
  if (run.pickerId !== actor.personId && !actor.rights.has('runs.arrange'))
    throw new Refusal('run-of-another', { run: run.number, picker: run.picker });
  const [begun] = await rows<{ picks: number }>(
    tx,
    sql`select count(*)::int as picks from pick where run_id = ${runId} and state in ('done', 'short')`,
  );
  if (begun!.picks > 0) throw new Refusal('run-begun', { run: run.number, picks: begun!.picks });
  await endCartons(change, runId);
  await tx.execute(sql`
    with empty as (update run_position set ready_at = null where run_id = ${runId})
    update run set state = 'waiting', picker_id = null, cart_code = null where id = ${runId}`);
  await journalRun(change, run, 'run-given-back', {});
  change.publish('waves', [run.waveId]);
  change.publish('runs', [runId]);
}

/**
 * Takes an order out of a run: its picks go, its stock is free, Desk has it again. What of it lies on the cart is to be
 * put back. A picker may do so in a run of their own.
 */
export async function takeOrderOut(
  change: Change,
  runId: string,
  { order: orderId, problem }: z.output<typeof takeOutBody>,
): Promise<void> {
  const { tx, actor } = change;
  const run = await lockRun(tx, actor.siteId, runId);
  if (!['planned', 'waiting', 'picking'].includes(run.state))
    throw new Refusal('run-state', { run: run.number, state: run.state });
  if (!actor.rights.has('runs.arrange')) mustBeMine(run, actor.personId);
  const picks = await rows<{ id: string; line: string; lot: string; units: number; picked: number; state: string }>(
    tx,
    sql`select k.id, k.line_id as line, k.lot, k.units, k.picked, k.state from pick k
        where k.run_id = ${runId} and k.order_id = ${orderId} and k.state <> 'out' for update`,
  );
  if (picks.length === 0) throw notFound('order', orderId);
  const wrong = problem && (await pickOfProblem(change, runId, orderId, problem));
  const carried = await rows<Unwanted & { pick: string; line: string }>(
    tx,
    sql`select distinct on (b.place_id, b.item_id, b.lot, b.serial) k.order_id as "order", k.run_id as run, b.place_id as place, k.bin_id as bin, b.item_id as item, b.lot, b.serial, b.units
        from run_position q join balance b on b.units > 0 and (b.place_id = q.place_id or b.place_id in (
          select place_id from carton where run_id = q.run_id and order_id = q.order_id and state <> 'shipped'))
        join pick k on k.run_id = q.run_id and k.order_id = q.order_id and k.item_id = b.item_id and k.lot = b.lot and k.picked > 0
        where q.run_id = ${runId} and q.order_id = ${orderId} order by b.place_id, b.item_id, b.lot, b.serial, k.confirmed_at desc`,
  );
  await giveUpCartons(change, runId, orderId);
  await tx.execute(sql`
    with back as (select line_id, sum(picked)::int as units from pick where run_id = ${runId} and order_id = ${orderId} and state <> 'out' group by 1),
    less as (update order_line l set picked = l.picked - b.units from back b where l.id = b.line_id and b.units > 0)
    update pick set state = 'out', picked = 0 where run_id = ${runId} and order_id = ${orderId} and state <> 'out'`);
  // A short gave back what was missing when it was told.
  for (const p of picks)
    await freeReservation(tx, {
      waveId: run.waveId,
      lineId: p.line,
      lot: p.lot,
      units: p.state === 'open' ? p.units : p.picked,
    });
  const returned = new Map<string, number>();
  for (const p of picks) returned.set(p.line, (returned.get(p.line) ?? 0) + p.picked);
  const surplus = await surplusAmong(tx, returned);
  await requestPutAway(change, carried);
  change.journal({
    kind: 'taken-out',
    orderId,
    runId,
    waveId: run.waveId,
    facts: {
      run: run.number,
      picks: picks.length,
      back: carried.reduce((n, c) => n + c.units, 0),
      ...(problem ? { reason: problem.reason, note: problem.note } : {}),
    },
  });
  if (wrong) await reportOut(change, run, wrong.pick, wrong.lack);
  const [left] = await rows<{ picks: number }>(
    tx,
    sql`select count(*)::int as picks from pick where run_id = ${runId} and state <> 'out'`,
  );
  if (left!.picks === 0) {
    await tx.execute(sql`update run set state = 'cancelled' where id = ${runId}`);
    await endWaveIfDone(change, run.waveId);
  }
  await settleReturned(change, orderId, surplus);
  change.publish('runs', [runId]);
  change.publish('orders', [orderId]);
  change.publish('waves', [run.waveId]);
}

/** The pick at whose bin something was wrong, and what is missing there. */
async function pickOfProblem(
  { tx, actor, now }: Change,
  runId: string,
  orderId: string,
  { pick: pickId, reason, units, note }: NonNullable<z.output<typeof takeOutBody>['problem']>,
) {
  const found = await linePicks(tx, { siteId: actor.siteId, runId, pickId, rights: actor.rights, now, bins: false });
  const pick = found.find((p) => p.step.id === pickId && p.order.id === orderId && p.state === 'open');
  const [at] = await rows<{ bin: string; line: string }>(
    tx,
    sql`select bin_id as bin, line_id as line from pick where id = ${pickId}`,
  );
  if (!pick || !at) throw notFound('pick', pickId);
  return { pick, lack: { ...at, missing: Math.max(1, pick.step.units - units), reason, note } };
}

/** Open picks of orders on hold leave the run: Desk has what is left of them again. */
async function dropHeld(change: Change, run: RunRow): Promise<void> {
  const { tx } = change;
  const dropped = await rows<{ order: string; line: string; lot: string; units: number }>(
    tx,
    sql`update pick k set state = 'out' where k.run_id = ${run.id} and k.state = 'open' and exists (
          select 1 from order_hold h where h.order_id = k.order_id and h.lifted_at is null and 'picking' = any(h.stops))
        returning k.order_id as "order", k.line_id as line, k.lot, k.units`,
  );
  for (const d of dropped)
    await freeReservation(tx, { waveId: run.waveId, lineId: d.line, lot: d.lot, units: d.units });
  const orders = [...new Set(dropped.map((d) => d.order))];
  change.journal(
    ...orders.map((orderId) => ({
      kind: 'taken-out',
      orderId,
      runId: run.id,
      waveId: run.waveId,
      facts: { run: run.number, picks: dropped.filter((d) => d.order === orderId).length },
    })),
  );
  if (orders.length > 0) change.publish('orders', orders);
}

/** Says in which lane, or at which bench, the cart was left: the work passes to the bench. Every pick must be done or short. */
export async function leaveRun(change: Change, runId: string, scanned: string): Promise<void> {
  const { tx, actor } = change;
  const run = await lockRun(tx, actor.siteId, runId);
  mustBeMine(run, actor.personId);
  await leaveLocked(change, run, scanned);
}

/** Leaves the cart of a run that is locked already. */
export async function leaveLocked(change: Change, run: RunRow, scanned: string): Promise<void> {
  const { tx, actor, now } = change;
  const runId = run.id;
  await dropHeld(change, run);
  const [open] = await rows<{ picks: number }>(
    tx,
    sql`select count(*)::int as picks from pick where run_id = ${runId} and state = 'open'`,
  );
  if (open!.picks > 0) throw new Refusal('picks-left', { run: run.number, picks: open!.picks });
  const { stages } = await settingsOf(tx, actor.siteId);
  const [lane] = await rows<{ id: string; code: string; kind: string }>(
    tx,
    sql`select id, code, kind from place where site_id = ${actor.siteId} and ${takesCarts(stages)} and upper(code) = upper(${scanned}) and not retired
        order by kind desc`,
  );
  if (!lane) throw new Refusal('not-a-lane', { got: scanned });
  await endCartons(change, runId);
  const [goods] = await rows<{ units: number }>(
    tx,
    sql`select coalesce(sum(b.units), 0)::int as units from balance b join run_position q on q.place_id = b.place_id where q.run_id = ${runId}`,
  );
  const state = goods!.units > 0 ? 'left' : 'done';
  await tx.execute(
    sql`update run set state = ${state}, lane_id = ${lane.id}, left_at = ${now.toISOString()} where id = ${runId}`,
  );
  await journalRun(change, run, 'cart-left', { lane: lane.code, cart: run.cart });
  if (state === 'left' && lane.kind === 'lane') await raiseElsewhere(change, run, lane);
  await endWaveIfDone(change, run.waveId);
  await stageGoods(change, runId);
  change.publish('runs', [runId]);
  change.publish('bench', []);
  change.publish('waves', [run.waveId]);
}

/** A cart in another lane than its orders go to stands on the Desk's list, with where it is. */
async function raiseElsewhere(change: Change, run: RunRow, lane: { id: string; code: string }): Promise<void> {
  const { tx, actor } = change;
  const [planned] = await rows<{ lanes: string[]; urgent: boolean }>(
    tx,
    sql`select coalesce(array_agg(distinct l.code), '{}') as lanes, (select priority > 0 from run where id = ${run.id}) as urgent
        from run_position q join customer_order o on o.id = q.order_id
        left join departure d on d.id = o.departure_id join place l on l.id = coalesce(o.lane_id, d.lane_id) where q.run_id = ${run.id}`,
  );
  const { expressLane } = await settingsOf(tx, actor.siteId);
  const lanes = [...planned!.lanes, ...(planned!.urgent && expressLane ? [expressLane] : [])];
  if (lanes.length === 0 || lanes.includes(lane.code)) return;
  await raiseException(change, {
    kind: 'cart',
    run: run.id,
    place: lane.id,
    facts: { cart: run.cart, lane: lane.code, planned: lanes.join(', ') },
  });
}
