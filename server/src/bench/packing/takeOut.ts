import { sql } from 'drizzle-orm';
import { clashIn, giveUp } from '@hand-relay/core/handling/packing';
import { notFound, recordset, Refusal, rows, type Change } from '../../platform/index.ts';
import { move } from '../../stock/index.ts';
import { forgetWeight, lockOrderOf, publishPacked } from './cartons.ts';

interface Goods {
  item: string;
  lot: string;
  serial: string;
  units: number;
}

interface Carton {
  id: string;
  order: string;
  place: string;
  number: number;
  shipment: string;
}

/**
 * An open carton at a bench, locked.
 *
 * @throws Refusal 404, 409 `run-state` where it is in a picker's hands, `carton-closed`
 */
async function lockOpen({ tx, actor }: Change, id: string): Promise<Carton> {
  const [carton] = await rows<Carton & { state: string; run: string | null }>(
    tx,
    sql`select k.id, k.order_id as "order", k.state, k.place_id as place, k.number, k.shipment_id as shipment,
               (select r.number from run r where r.id = k.run_id and r.state = 'picking') as run
        from carton k where k.id = ${id} and k.site_id = ${actor.siteId} for update of k`,
  );
  if (!carton) throw notFound('carton', id);
  // It is in a picker's hands, who undoes what went into it.
  if (carton.run !== null) throw new Refusal('run-state', { run: carton.run, state: 'picking' });
  if (carton.state !== 'open') throw new Refusal('carton-closed', { carton: carton.number });
  return carton;
}

/**
 * Goods leave a carton.
 *
 * @returns units of each line that gave them up
 * @throws Refusal 422 `not-inside` for more than is in it
 */
async function takeFrom({ tx }: Change, carton: Carton, goods: Goods): Promise<{ line: string; units: number }[]> {
  const { item, lot, serial, units } = goods;
  const inside = await rows<{ line: string; units: number }>(
    tx,
    sql`select k.line_id as line, k.units from carton_line k join order_line l on l.id = k.line_id
        where k.carton_id = ${carton.id} and l.item_id = ${item} and k.lot = ${lot} and k.serial = ${serial} order by l.line`,
  );
  const there = inside.reduce((n, k) => n + k.units, 0);
  if (units > there) throw new Refusal('not-inside', { units: there });
  const less = giveUp(inside, units).map(({ line: { line }, units: n }) => ({ line, units: n }));
  await tx.execute(sql`
    update carton_line k set units = k.units - l.units from jsonb_to_recordset(${recordset(less)}) as l(line text, units int)
    where k.carton_id = ${carton.id} and k.line_id = l.line and k.lot = ${lot} and k.serial = ${serial}`);
  return less;
}

/** Takes goods out of an open carton, back to the order's position on its cart. */
export async function unpack(change: Change, cartonId: string, goods: Goods): Promise<void> {
  const { tx } = change;
  await lockOrderOf(tx, cartonId);
  const carton = await lockOpen(change, cartonId);
  const less = await takeFrom(change, carton, goods);
  const [position] = await rows<{ place: string }>(
    tx,
    sql`select q.place_id as place from run_position q join run r on r.id = q.run_id and r.state = 'left' where q.order_id = ${carton.order} order by r.number limit 1`,
  );
  if (!position) throw new Refusal('cart-gone');
  await move(change, [{ from: carton.place, to: position.place, ...goods }], 'unpack', cartonId);
  await tx.execute(sql`
    update order_line o set packed = o.packed - l.units from jsonb_to_recordset(${recordset(less)}) as l(line text, units int) where o.id = l.line`);
  await forgetWeight(tx, [cartonId]);
  change.journal({ kind: 'unpacked', orderId: carton.order, facts: { carton: carton.number, ...goods } });
  publishPacked(change, carton.order, carton.shipment);
}

/**
 * Moves goods from an open carton into another one of the same order.
 *
 * @throws Refusal 404 where the other is none of this order, 422 `keep-apart` beside goods of another group
 */
export async function moveGoods(change: Change, cartonId: string, to: string, goods: Goods): Promise<void> {
  const { tx } = change;
  await lockOrderOf(tx, cartonId);
  const [from, into] = [await lockOpen(change, cartonId), await lockOpen(change, to)];
  if (into.order !== from.order || into.id === from.id) throw notFound('carton', to);
  const contents = await rows<{ name: string; group: string | null }>(
    tx,
    sql`select distinct i.name, i.apart as "group" from balance b join item i on i.id = b.item_id where b.place_id = ${into.place}`,
  );
  const [item] = await rows<{ name: string; group: string | null }>(
    tx,
    sql`select name, apart as "group" from item where id = ${goods.item}`,
  );
  const clash = item && clashIn(contents, item.group);
  if (clash) throw new Refusal('keep-apart', { expected: clash.name, got: item.name });
  const moved = await takeFrom(change, from, goods);
  await move(change, [{ from: from.place, to: into.place, ...goods }], 'pack', into.id);
  await tx.execute(sql`
    insert into carton_line (carton_id, line_id, lot, serial, units)
    select ${into.id}, m.line, ${goods.lot}, ${goods.serial}, m.units from jsonb_to_recordset(${recordset(moved)}) as m(line text, units int)
    on conflict (carton_id, line_id, lot, serial) do update set units = carton_line.units + excluded.units`);
  await forgetWeight(tx, [from.id, into.id]);
  change.journal({
    kind: 'repacked',
    orderId: from.order,
    facts: { carton: from.number, into: into.number, item: item!.name, units: goods.units },
  });
  publishPacked(change, from.order, from.shipment);
}
