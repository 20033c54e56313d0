import { sql } from 'drizzle-orm';
import type { z } from 'zod';
import type { assignBody } from '@hand-relay/contract';
import { fits, nothingWeighed, weigh, type Weighed } from '@hand-relay/core/walking/batching';
import { chooseBins } from '@hand-relay/core/walking/bins';
import { freshProgress } from '@hand-relay/core/handling/picking';
import type { RoutedRun, routeRun, RunStop } from '@hand-relay/core/walking/waves';
import { anyOf, notFound, recordset, Refusal, rows, type Change, type Tx } from '../../platform/index.ts';
import { nextNumbers } from '../../stock/index.ts';
import {
  binStock,
  callSigns,
  cartForPlanning,
  endWaveIfDone,
  gatheredNeeds,
  moveUnits,
  type Need,
} from '../../desk/waves/index.ts';
import { standards, settingsOf } from '../../setup/settings/index.ts';
import { lockRun, type RunRow } from './lock.ts';
import { floorOf } from '../plan/index.ts';

function mustWait(run: RunRow): void {
  if (run.state !== 'planned' && run.state !== 'waiting')
    throw new Refusal('run-state', { run: run.number, state: run.state });
}

/** Whose runs are that nobody has begun, and how urgent they are. */
export async function assignRuns(
  change: Change,
  { runs, person, team, priority }: z.output<typeof assignBody>,
): Promise<{ assigned: number }> {
  const { tx, actor } = change;
  let name: string | null = null;
  if (person) {
    const [found] = await rows<{ name: string }>(
      tx,
      sql`select p.name from person p join membership m on m.person_id = p.id and m.site_id = ${actor.siteId} and m.active
          join role r on r.site_id = m.site_id and r.name = any(m.roles) and 'runs.pick' = any(r.rights) where p.id = ${person}`,
    );
    if (!found) throw notFound('person', person);
    name = found.name;
  }
  for (const id of [...runs].sort()) {
    const run = await lockRun(tx, actor.siteId, id);
    mustWait(run);
    await tx.execute(sql`
      update run set priority = coalesce(${priority ?? null}::int, priority), team = coalesce(${team ?? null}, team),
        assigned_id = ${person === undefined ? sql`assigned_id` : sql`${person}`} where id = ${id}`);
    change.journal({
      kind: 'run-assigned',
      runId: id,
      waveId: run.waveId,
      facts: { run: run.number, person: name ?? '', team: team ?? '', ...(priority === undefined ? {} : { priority }) },
    });
    change.publish('waves', [run.waveId]);
  }
  change.publish('runs', runs);
  return { assigned: runs.length };
}

interface OpenPick {
  id: string;
  order: string;
  line: string;
  lot: string;
  units: number;
  position: number;
  bin: string;
  aisle: string;
  y: number;
  level: number | null;
  sequence: number | null;
  handling: string;
  chilled: boolean;
  weightG: number;
  volumeCm3: number;
}

export const openPicks = (tx: Tx, runId: string): Promise<OpenPick[]> =>
  rows<OpenPick>(
    tx,
    sql`select k.id, k.order_id as "order", k.line_id as line, k.lot, k.units, k.position, b.code as bin, b.aisle, b.y, b.level, b.sequence, i.handling,
               i.temperature = 'chilled' as chilled, i.weight_g as "weightG", i.length_mm::float8 * i.width_mm * i.height_mm / 1000 as "volumeCm3"
        from pick k join place b on b.id = k.bin_id join item i on i.id = k.item_id where k.run_id = ${runId} and k.state = 'open' order by k.sequence`,
  );

/**
 * The walk past open picks, and the order of their ids on it; or the pick to which nobody can walk.
 *
 * They are asked for by their number in an order of their own, without ids: a change that is begun again may have
 * made them anew, and the walk is the same.
 */
export async function searchWalk(
  change: Change,
  problem: Parameters<typeof routeRun>[0],
  picks: readonly OpenPick[],
): Promise<{ walk: RoutedRun<RunStop>; order: string[] } | { unreachable: OpenPick | undefined }> {
  const known = (p: OpenPick) => [p.bin, p.order, p.line, p.lot, p.units, p.position].join(' ');
  const numbered = [...picks].sort((a, b) => (known(a) < known(b) ? -1 : 1));
  const stops = numbered.map((p, i): RunStop => {
    const { bin, aisle, y, level, sequence, order, units, position, handling, chilled } = p;
    return {
      id: String(i),
      aisle,
      y,
      bin: { bin, aisle, y, level, sequence },
      ...{ order, units, position, handling, chilled },
    };
  });
  const found = await change.walk({ problem, stops });
  if ('unreachable' in found) return { unreachable: numbered[Number(found.unreachable)] };
  return { walk: found.walk, order: found.walk.order.map((stop) => numbered[Number(stop.id)]!.id) };
}

/** Puts the picks of a run in the order of its shortest walk, and stores the walk. A run with nothing left is cancelled. */
export async function reroute(change: Change, runId: string): Promise<void> {
  const { tx, actor } = change;
  const picks = await openPicks(tx, runId);
  if (picks.length === 0) {
    await tx.execute(sql`update run set state = 'cancelled' where id = ${runId}`);
    return;
  }
  const { carry, walking } = await settingsOf(tx, actor.siteId);
  const { floor, start, finish } = await floorOf(tx, actor.siteId);
  const problem = { floor, start, finish: finish ?? start, carry, walking, crew: { people: 1, standards } };
  const found = await searchWalk(change, problem, picks);
  if ('unreachable' in found) throw new Refusal('bin-shut', { bin: found.unreachable?.bin ?? '' });
  const { walk, order } = found;
  await tx.execute(sql`
    update pick k set sequence = o.n from (select value as id, ordinality as n from jsonb_array_elements_text(${recordset(order)}) with ordinality) o
    where k.id = o.id`);
  await tx.execute(sql`
    update run set metres = ${walk.distance}, lower_bound = ${walk.lowerBound}, proven = ${walk.proven}, path = ${JSON.stringify(walk.path)}::jsonb,
      stops = ${walk.stops}, seconds = ${walk.seconds} where id = ${runId}`);
}

/**
 * Moves orders of a run that nobody has begun to another run of its wave, or to a new one.
 *
 * @throws Refusal 409 `run-full` when the other cart does not take them
 */
export async function moveOrders(
  change: Change,
  runId: string,
  { orders, run: to }: { orders: readonly string[]; run: string | null },
): Promise<{ run: string }> {
  const { tx, actor } = change;
  for (const id of [runId, to ?? runId].sort()) mustWait(await lockRun(tx, actor.siteId, id));
  const from = await lockRun(tx, actor.siteId, runId);
  const held = await positionsOf(tx, runId);
  for (const order of orders) if (!held.some((p) => p.order === order)) throw notFound('order', order);
  if (to === null && held.length === new Set(orders).size) throw new Refusal('nothing-to-split');
  const target = to ?? (await newRun(change, runId));
  const into = await lockRun(tx, actor.siteId, target);
  if (into.waveId !== from.waveId) throw new Refusal('other-wave', { run: into.number });
  const moving = (await openPicks(tx, runId)).filter((p) => orders.includes(p.order));
  const there = await openPicks(tx, target);
  await mustFit(change, into, [...there, ...moving]);
  await shift(change, { from, into, orders });
  return { run: target };
}

/** Orders of a run that somebody has taken wait in a run of their own. */
export async function shareRun(change: Change, from: RunRow, orders: readonly string[]): Promise<string> {
  const target = await newRun(change, from.id, 'waiting');
  await shift(change, { from, into: await lockRun(change.tx, change.actor.siteId, target), orders });
  return target;
}

/** Orders and their picks go from one run to another, each to the first place that is free there; both are rerouted. */
async function shift(
  change: Change,
  { from, into, orders }: { from: RunRow; into: RunRow; orders: readonly string[] },
): Promise<void> {
  const { tx } = change;
  const [runId, target] = [from.id, into.id];
  const taken = new Set((await positionsOf(tx, target)).map((p) => p.number));
  const moved = (await positionsOf(tx, runId))
    .filter((p) => orders.includes(p.order))
    .map((p) => {
      let number = 1;
      while (taken.has(number)) number += 1;
      taken.add(number);
      return { ...p, next: number };
    });
  await tx.execute(sql`
    with m as (select * from jsonb_to_recordset(${recordset(moved)}) as r(number int, "order" text, place text, next int)),
    named as (update place p set code = ${into.number} || '-' || m.next from m where p.id = m.place),
    picks as (update pick k set run_id = ${target}, position = m.next from m where k.run_id = ${runId} and k.order_id = m."order")
    update run_position q set run_id = ${target}, number = m.next from m where q.run_id = ${runId} and q.number = m.number`);
  await reroute(change, runId);
  await reroute(change, target);
  for (const { order } of moved)
    change.journal({
      kind: 'order-shifted',
      orderId: order,
      runId: target,
      waveId: from.waveId,
      facts: { from: from.number, run: into.number },
    });
  change.publish('runs', [runId, target]);
  change.publish('waves', [from.waveId]);
}

const positionsOf = (tx: Tx, runId: string) =>
  rows<{ number: number; order: string; place: string }>(
    tx,
    sql`select number, order_id as "order", place_id as place from run_position where run_id = ${runId} order by number`,
  );

/** A run beside another, with nothing in it yet. */
async function newRun(change: Change, beside: string, state?: 'waiting'): Promise<string> {
  const { id, number, sign } = await nameRun(change);
  await change.tx.execute(sql`
    insert into run (id, site_id, wave_id, number, call_sign, state, positions, metres, path, stops, team, priority, rank, picking, area)
    select ${id}, site_id, wave_id, ${number}, ${sign}, coalesce(${state ?? null}, state), positions, 0, '[]', 0, team, priority, rank + 0.5, picking, area
    from run where id = ${beside}`);
  return id;
}

/** Number and call sign of a run that is made by hand. */
export async function nameRun(change: Change): Promise<{ id: string; number: string; sign: string }> {
  const { tx, actor } = change;
  const [number] = await nextNumbers(change, 'run', 1);
  const taken = await rows<{ sign: string }>(
    tx,
    sql`select call_sign as sign from run where site_id = ${actor.siteId} and state not in ('done', 'cancelled')`,
  );
  const [sign] = callSigns(1, new Set(taken.map((t) => t.sign)), number!);
  return { id: change.newId(), number: String(number).padStart(4, '0'), sign: sign! };
}

async function mustFit(change: Change, run: RunRow, picks: OpenPick[]): Promise<void> {
  const { tx, actor } = change;
  const [wave] = await rows<{ cart: string | null; picking: string }>(
    tx,
    sql`select cart_type_id as cart, picking from wave where id = ${run.waveId}`,
  );
  const cart = await cartForPlanning(tx, actor.siteId, wave!.cart);
  const orders = new Set(picks.map((p) => p.order)).size;
  const one = (p: OpenPick): Weighed => ({
    count: 0,
    units: p.units,
    weightG: p.units * p.weightG,
    volumeCm3: p.units * p.volumeCm3,
  });
  const weight = picks.reduce((w, p) => weigh(w, one(p)), { ...nothingWeighed, count: orders });
  const positions = wave!.picking === 'consolidate' ? Infinity : wave!.picking === 'single' ? 1 : cart.positions;
  const { maxWeightG, maxVolumeCm3 } = cart;
  if (orders > 1 && !fits(weight, { positions, maxWeightG, maxVolumeCm3 }))
    throw new Refusal('run-full', {
      run: run.number,
      orders,
      positions: Number.isFinite(positions) ? positions : orders,
    });
}

/** Puts orders of waves that gather into a run that nobody has begun, each into a position of its own. */
export async function addOrders(change: Change, runId: string, orders: readonly string[]): Promise<{ run: string }> {
  const { tx, actor } = change;
  const run = await lockRun(tx, actor.siteId, runId);
  mustWait(run);
  const needs = await joinGathered(change, orders, run.waveId);
  for (const order of orders)
    if (!needs.some((n) => n.order === order)) throw new Refusal('not-gathered', { order: await numberOf(tx, order) });
  await fillRun(change, run, needs);
  return { run: runId };
}

/** Moves what waves that gather hold of orders into another wave. */
export async function joinGathered(change: Change, orders: readonly string[], into: string): Promise<Need[]> {
  const { tx, actor } = change;
  const waves = await rows<{ id: string }>(
    tx,
    sql`select w.id from wave w where w.site_id = ${actor.siteId} and w.state = 'gathering' and w.id <> ${into} and exists (
          select 1 from reservation r join order_line l on l.id = r.line_id where r.wave_id = w.id and r.units > 0
            and l.order_id = ${anyOf(orders)}) order by w.id for update`,
  );
  const needs: Need[] = [];
  for (const { id } of waves) {
    const own = (await gatheredNeeds(tx, id)).filter((n) => orders.includes(n.order));
    needs.push(...own.map((n) => ({ ...n, id: `${id} ${n.id}` })));
    await moveUnits(
      tx,
      id,
      into,
      own.map((n) => ({ line: n.line, lot: n.lot ?? '', units: n.units })),
    );
    await tx.execute(sql`
      update wave w set version = version + 1, state = case when exists (select 1 from reservation r where r.wave_id = w.id and r.units > 0) then state else 'cancelled' end
      where id = ${id}`);
  }
  change.publish('waves', [into, ...waves.map((w) => w.id)]);
  return needs;
}

/**
 * Gives a run that nobody has begun what its wave holds for more orders: bins by the site's rules, a position for each,
 * and the shortest walk over all.
 *
 * @throws Refusal 409 `no-bin-for` when no bin holds something, `run-full` when the cart does not take it all
 */
export async function fillRun(change: Change, run: RunRow, needs: readonly Need[]): Promise<void> {
  const { tx, actor } = change;
  const orders = [...new Set(needs.map((n) => n.order))];
  const { bins: rules } = await settingsOf(tx, actor.siteId);
  const stock = await binStock(tx, actor.siteId, [...new Set(needs.map((n) => n.item))], {
    aged: rules.includes('age'),
  });
  const { choices, missing } = chooseBins(stock, needs, { rules });
  if (missing.length > 0)
    throw new Refusal('no-bin-for', {
      order: await numberOf(tx, needs.find((n) => n.id === missing[0]!.need)!.order),
    });
  const needOf = new Map(needs.map((n) => [n.id, n]));
  const taken = new Set((await positionsOf(tx, run.id)).map((p) => p.number));
  const positions = orders.map((order) => {
    let number = 1;
    while (taken.has(number)) number += 1;
    taken.add(number);
    return { order, number, place: `position-${run.id}-${number}-${change.newId()}`, code: `${run.number}-${number}` };
  });
  const picks = choices.map((c) => {
    const need = needOf.get(c.need)!;
    const position = positions.find((p) => p.order === need.order)!.number;
    return {
      id: change.newId(),
      order: need.order,
      line: need.line,
      item: need.item,
      lot: need.lot ?? '',
      bin: c.bin,
      units: c.units,
      why: c.why,
      position,
    };
  });
  await tx.execute(sql`
    with p as (select * from jsonb_to_recordset(${recordset(positions)}) as r("order" text, number int, place text, code text)),
    placed as (insert into place (id, site_id, kind, code) select place, ${actor.siteId}, 'position', code from p returning id)
    insert into run_position (run_id, number, order_id, place_id) select ${run.id}, p.number, p."order", p.place from p join placed on placed.id = p.place`);
  await tx.execute(sql`
    insert into pick (id, run_id, sequence, order_id, line_id, item_id, lot, bin_id, position, units, progress, why)
    select k.id, ${run.id}, 9999, k."order", k.line, k.item, k.lot, b.id, k.position, k.units, ${JSON.stringify(freshProgress)}::jsonb, k.why
    from jsonb_to_recordset(${recordset(picks)}) as k(id text, "order" text, line text, item text, lot text, bin text, position int, units int, why text)
    join place b on b.site_id = ${actor.siteId} and b.kind = 'bin' and b.code = k.bin`);
  await mustFit(change, run, await openPicks(tx, run.id));
  await reroute(change, run.id);
  for (const { order } of positions)
    change.journal({
      kind: 'order-added',
      orderId: order,
      runId: run.id,
      waveId: run.waveId,
      facts: { run: run.number },
    });
  change.publish('runs', [run.id]);
  change.publish('waves', [run.waveId]);
  await endWaveIfDone(change, run.waveId);
}

async function numberOf(tx: Tx, order: string): Promise<string> {
  const [found] = await rows<{ number: string }>(tx, sql`select number from customer_order where id = ${order}`);
  if (!found) throw notFound('order', order);
  return found.number;
}
