import { sql } from 'drizzle-orm';
import type { RunDetail, RunPick } from '@hand-relay/contract';
import { ssccPrefix } from '@hand-relay/core/reading/gs1';
import { proposeCarton } from '@hand-relay/core/handling/packing';
import { cartonOf, type CartonHere, type PickProgress } from '@hand-relay/core/handling/picking';
import { closeCarton, lockOrder, openCarton } from '../../bench/packing/index.ts';
import { packRules } from '../../bench/packRules/index.ts';
import { notFound, Refusal, rows, type Change, type Db, type Tx } from '../../platform/index.ts';
import { discardCarton, dropEmptyShipment } from '../../dock/shipping/index.ts';
import { isIssued, ssccRange, type Move } from '../../stock/index.ts';
import { lockRun, mustBeMine, type RunRow } from './lock.ts';

/** Cartons on the cart of a run, into which goods go straight from the bin. */
export const cartonsOf = (on: Db | Tx, runId: string): Promise<RunDetail['cartons']> =>
  rows<RunDetail['cartons'][number]>(
    on,
    sql`select c.id, c.sscc, c.number, c.order_id as "order", q.number as position, t.code as box, c.state,
               (select coalesce(sum(units), 0)::int from carton_line where carton_id = c.id) as units
        from carton c join carton_type t on t.id = c.type_id join run_position q on q.run_id = c.run_id and q.order_id = c.order_id
        where c.run_id = ${runId} order by q.number, c.number`,
  );

/**
 * What a device must know of the cartons of a run, by order: the one that is open, the one that is proposed for what the
 * order has in the run, and the numbers that are taken.
 */
export async function cartonsHere(on: Db | Tx, siteId: string, runId: string): Promise<(order: string) => CartonHere> {
  const cartons = await cartonsOf(on, runId);
  const types = await rows<{ code: string; inner: [number, number, number]; tareG: number; maxWeightG: number }>(
    on,
    sql`select code, inner_mm as inner, tare_g as "tareG", max_weight_g as "maxWeightG" from carton_type where not retired order by cost_minor, code`,
  );
  const goods = await rows<{
    order: string;
    item: string;
    size: [number, number, number];
    weightG: number;
    units: number;
  }>(
    on,
    sql`select k.order_id as "order", k.item_id as item, array[i.length_mm, i.width_mm, i.height_mm] as size, i.weight_g as "weightG", k.units
        from pick k join item i on i.id = k.item_id where k.run_id = ${runId} and k.state <> 'out'`,
  );
  const ruleOf = await packRules(
    on,
    siteId,
    sql`o.id in (select k.order_id from pick k where k.run_id = ${runId})`,
    goods.map((g) => g.item),
  );
  const prefix = ssccPrefix(await ssccRange(on, siteId));
  const boxes = types.map((t) => t.code);
  return (order) => {
    const own = goods.filter((g) => g.order === order);
    const open = cartons.find((c) => c.order === order && c.state === 'open');
    // Where all of it has rules, the carton of the first of them.
    const rules = own.map((g) => ruleOf(order, g.item));
    const byRule = rules.every((rule) => rule !== undefined) ? rules[0]?.carton : null;
    return {
      sscc: open?.sscc ?? null,
      box: byRule ?? proposeCarton(types, own)?.code ?? boxes.at(-1) ?? '',
      boxes,
      others: cartons.filter((c) => c !== open).map((c) => c.sscc),
      prefix,
    };
  };
}

/**
 * The carton that a pick goes into; one that is not there yet is begun, and the one before it closed.
 *
 * @throws Refusal 409 `not-our-carton` for a number that was never drawn here, `used-carton` for one that is on a carton
 */
export async function cartonFor(
  change: Change,
  run: RunRow,
  { step, order }: RunPick,
  progress: PickProgress,
): Promise<{ id: string; place: string }> {
  const { tx, actor } = change;
  const sscc = cartonOf(step, progress)!;
  const [there] = await rows<{ id: string; place: string; mine: boolean }>(
    tx,
    sql`select id, place_id as place, run_id = ${run.id} and order_id = ${order.id} and state = 'open' as mine
        from carton where site_id = ${actor.siteId} and sscc = ${sscc}`,
  );
  if (there?.mine) return there;
  if (there) throw new Refusal('used-carton', { got: sscc });
  if (!(await isIssued(change, sscc))) throw new Refusal('not-our-carton', { got: sscc });
  await endAll(
    change,
    (await cartonsOf(tx, run.id)).filter((c) => c.order === order.id),
  );
  return openCarton(change, await lockOrder(change, order.id), {
    box: progress.box ?? step.carton!.box,
    run: { id: run.id, sscc, cart: run.cart ?? '' },
  });
}

/** What was moved into a carton is packed: for which line, and of which lot and serial number. */
export async function writePacked(change: Change, carton: string, line: string, moves: readonly Move[]): Promise<void> {
  for (const { lot, serial, units } of moves)
    await change.tx.execute(sql`
      insert into carton_line (carton_id, line_id, lot, serial, units) values (${carton}, ${line}, ${lot}, ${serial}, ${units})
      on conflict (carton_id, line_id, lot, serial) do update set units = carton_line.units + excluded.units`);
  const units = moves.reduce((n, m) => n + m.units, 0);
  await change.tx.execute(sql`update order_line set packed = packed + ${units} where id = ${line}`);
}

/**
 * Goods of a pick that is undone leave their carton.
 *
 * @throws Refusal 409 `carton-closed` when the carton was closed over them
 */
export async function takeFromCarton(change: Change, pick: string, line: string): Promise<void> {
  const { tx } = change;
  const inside = await rows<{
    carton: string;
    number: number;
    state: string;
    lot: string;
    serial: string;
    units: number;
  }>(
    tx,
    sql`select c.id as carton, c.number, c.state, m.lot, m.serial, sum(m.units)::int as units from movement m
        join carton c on c.place_id = m.to_place where m.document = ${pick} and m.id > coalesce(
          (select max(u.id) from movement u where u.document = ${`undo ${pick}`}), 0)
        group by c.id, m.lot, m.serial`,
  );
  for (const g of inside) {
    if (g.state !== 'open') throw new Refusal('carton-closed', { carton: g.number });
    await tx.execute(sql`
      with less as (update carton_line set units = units - ${g.units}
        where carton_id = ${g.carton} and line_id = ${line} and lot = ${g.lot} and serial = ${g.serial})
      update order_line set packed = packed - ${g.units} where id = ${line}`);
  }
}

/** Cartons of an order that leaves a run are cartons no more, once their goods are on their way back. */
export async function giveUpCartons(change: Change, runId: string, orderId: string): Promise<void> {
  await change.tx.execute(sql`
    with gone as (select id from carton where run_id = ${runId} and order_id = ${orderId} and state <> 'shipped'),
    inside as (delete from carton_line where carton_id in (select id from gone) returning line_id, units),
    less as (update order_line l set packed = l.packed - i.units from (
      select line_id, sum(units)::int as units from inside group by 1) i where l.id = i.line_id)
    delete from carton where id in (select id from gone)`);
  await dropEmptyShipment(change, orderId);
}

/** Closes a carton on one's own cart, by hand; it must hold something. */
export async function closeOnCart(change: Change, runId: string, cartonId: string): Promise<{ sscc: string }> {
  const run = await lockRun(change.tx, change.actor.siteId, runId);
  mustBeMine(run, change.actor.personId);
  const carton = (await cartonsOf(change.tx, runId)).find((c) => c.id === cartonId);
  if (!carton) throw notFound('carton', cartonId);
  if (carton.state !== 'open') throw new Refusal('carton-closed', { carton: carton.number });
  if (carton.units === 0) throw new Refusal('carton-empty', { carton: carton.number });
  const sscc = await closeCarton(change, await lockOrder(change, carton.order), cartonId);
  change.publish('picks', [runId]);
  return { sscc };
}

/** Cartons take no more: one that holds goods is closed, one that stayed empty is none. */
async function endAll(change: Change, cartons: RunDetail['cartons']): Promise<void> {
  for (const carton of cartons) {
    if (carton.state !== 'open') continue;
    if (carton.units > 0) await closeCarton(change, await lockOrder(change, carton.order), carton.id);
    else await discardCarton(change, carton.id);
  }
}

/** A cart is left, or given back: its cartons take no more. */
export const endCartons = async (change: Change, runId: string): Promise<void> =>
  endAll(change, await cartonsOf(change.tx, runId));
