import { sql } from 'drizzle-orm';
import type { PackVerdictAnswer } from '@hand-relay/contract';
import {
  judgePack,
  receive,
  withInHand,
  type BenchState,
  type PackInput,
  type PackVerdict,
} from '@hand-relay/core/handling/packing';
import { mustNotBeHeld } from '../../desk/holds/index.ts';
import { mustBeWanted, undecidedOf } from '../../desk/orders/index.ts';
import { recordset, Refusal, rows, type Change } from '../../platform/index.ts';
import { discardCarton } from '../../dock/shipping/index.ts';
import { move, type Move } from '../../stock/index.ts';
import {
  closeCarton,
  forgetWeight,
  lockOrder,
  openCarton,
  publishPacked,
  standInLane,
  type PackedOrder,
} from './cartons.ts';
import { endEmptyRuns } from '../../desk/waves/index.ts';
import { benchState } from './read.ts';

/** Judges a scan or count at the bench, and writes what it means. */
export async function packInput(
  change: Change,
  orderId: string,
  benchCode: string,
  input: PackInput,
  inHand: string | null,
): Promise<PackVerdictAnswer> {
  const { tx, actor, now } = change;
  const order = await lockOrder(change, orderId);
  await mustNotBeHeld(tx, orderId, 'packing');
  const [bench] = await rows<{ id: string }>(
    tx,
    sql`select id from place where site_id = ${actor.siteId} and kind = 'bench' and code = ${benchCode}`,
  );
  if (!bench) throw new Refusal('unknown-bench', { got: benchCode });
  const state = withInHand(await benchState(tx, actor.siteId, orderId), inHand);
  const verdict = judgePack(state, input, now.getUTCFullYear());
  if (verdict.verdict === 'open' || verdict.verdict === 'put' || verdict.verdict === 'close')
    await mustBeWanted(tx, orderId);
  switch (verdict.verdict) {
    case 'refused':
      change.journal({
        kind: 'pack-refused',
        orderId,
        facts: { bench: benchCode, input, code: verdict.code, expected: verdict.expected, got: verdict.got },
      });
      return verdict;
    case 'open': {
      if (state.carton?.contents.length === 0) await discardCarton(change, state.carton.id);
      const { id, number } = await openCarton(change, order, { box: verdict.box, bench: benchCode });
      return { verdict: 'open', carton: id, number };
    }
    case 'take':
      return verdict;
    case 'weigh':
      await tx.execute(sql`update carton set measured_g = ${verdict.grams} where id = ${state.carton!.id}`);
      change.publish('bench', [orderId]);
      return { ...verdict, carton: state.carton!.id };
    case 'discard':
      await discardCarton(change, state.carton!.id);
      // It may have been all that still kept the cart.
      await endEmptyRuns(change, orderId);
      return { verdict: 'discard' };
    case 'put':
      await mustLeaveSurplus(change, orderId, state.loose, verdict);
      await put(change, order, state.carton!.id, verdict.item, verdict.moves);
      return { verdict: 'put', carton: state.carton!.id, units: verdict.moves.reduce((n, m) => n + m.units, 0) };
    case 'stand':
      await standInLane(change, orderId, verdict);
      return { verdict: 'stand', lane: verdict.lane };
    case 'close': {
      const sscc = await closeCarton(change, order, state.carton!.id, verdict.reason);
      return { verdict: 'close', carton: state.carton!.id, sscc, lane: order.lane };
    }
  }
}

/** What is not wanted any more stays on the cart until Desk has decided about it. */
async function mustLeaveSurplus(
  { tx }: Change,
  orderId: string,
  loose: BenchState['loose'],
  { item, moves }: Extract<PackVerdict, { verdict: 'put' }>,
): Promise<void> {
  const surplus = (await undecidedOf(tx, orderId)).find((u) => u.item === item);
  if (!surplus) return;
  const there = loose.reduce((n, l) => (l.item.id === item ? n + l.units : n), 0);
  const put = moves.reduce((n, m) => n + m.units, 0);
  if (put > there - surplus.units) throw new Refusal('surplus-undecided', { item: surplus.name, units: surplus.units });
}

type Part = { lot: string | null; serial: string | null; units: number };

async function put(change: Change, order: PackedOrder, cartonId: string, itemId: string, parts: Part[]): Promise<void> {
  const { tx } = change;
  const lying = await rows<{ place: string; lot: string; serial: string; units: number }>(
    tx,
    sql`select b.place_id as place, b.lot, b.serial, b.units from run_position q join run r on r.id = q.run_id and r.state = 'left'
        join balance b on b.place_id = q.place_id where q.order_id = ${order.id} and b.item_id = ${itemId} order by r.number`,
  );
  // A line's goods are told from another line's of the same item by the lots that were picked for each. What is still in
  // a picker's hands, on a cart or in a carton there, is not packed here: its picker may yet undo it.
  const lines = await rows<{ line: string; lot: string; units: number }>(
    tx,
    sql`
    select k.line_id as line, k.lot, (sum(k.picked) - coalesce((
      select sum(c.units) from carton_line c join carton b on b.id = c.carton_id left join run h on h.id = b.run_id
      where c.line_id = k.line_id and c.lot = k.lot and h.state is distinct from 'picking'), 0))::int as units
    from pick k join run r on r.id = k.run_id join order_line l on l.id = k.line_id
    where k.order_id = ${order.id} and k.item_id = ${itemId} and r.state <> 'picking'
    group by k.line_id, k.lot, l.line order by l.line`,
  );
  const received = receive(
    lying,
    lines,
    parts.map(({ lot, serial, units }) => ({ lot: lot ?? '', serial: serial ?? '', units })),
  );
  const moves = received.moves.map(({ from: { place, lot, serial }, units }): Move => ({
    from: place,
    to: `carton-${cartonId}`,
    item: itemId,
    lot,
    serial,
    units,
  }));
  const packed = received.lines.map(({ line: { line, lot }, serial, units }) => ({ line, lot, serial, units }));
  await move(change, moves, 'pack', cartonId);
  await tx.execute(sql`
    with put as (select * from jsonb_to_recordset(${recordset(packed)}) as p(line text, lot text, serial text, units int)),
    kept as (
      insert into carton_line (carton_id, line_id, lot, serial, units)
      select ${cartonId}, line, lot, serial, sum(units) from put group by line, lot, serial
      on conflict (carton_id, line_id, lot, serial) do update set units = carton_line.units + excluded.units
    )
    update order_line l set packed = l.packed + s.units from (select line, sum(units) as units from put group by line) s where l.id = s.line`);
  const [carton] = await rows<{ number: number; shipment: string; item: string }>(
    tx,
    sql`select c.number, c.shipment_id as shipment, i.name as item from carton c, item i where c.id = ${cartonId} and i.id = ${itemId}`,
  );
  change.journal({ kind: 'packed', orderId: order.id, facts: { carton: carton!.number, item: carton!.item, parts } });
  await forgetWeight(tx, [cartonId]);
  publishPacked(change, order.id, carton!.shipment);
}
