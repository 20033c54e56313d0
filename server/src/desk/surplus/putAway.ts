import { sql } from 'drizzle-orm';
import { offCarts, type Loose } from '@hand-relay/core/handling/picking';
import { Refusal, rows, type Change } from '../../platform/index.ts';
import { requestPutAway, type Unwanted } from '../../floor/putAway/index.ts';
import { discardEmptyCartons } from '../../dock/shipping/index.ts';
import { notPicked, type Asked } from './notPicked.ts';
import { unpack } from './unpack.ts';

/**
 * Has units of a line put back by a guided trip: what is loose on a cart goes first, then what is in cartons of the order.
 *
 * @throws Refusal 409 `unpack-first` where fewer of them are within reach: in a carton in a picker's hands
 */
export async function putAwaySurplus(
  change: Change,
  { line, order, units, name }: { line: string; order: string; units: number; name: string },
  asked: Asked,
): Promise<void> {
  const { tx } = change;
  const picked = await rows<Loose & Omit<Unwanted, 'order' | 'carton'> & { wave: string }>(
    tx,
    // What a packer took out of a carton again is on a cart of the order, which need not be the one it was picked onto.
    sql`select k.id as pick, r.wave_id as wave, q.run_id as run, q.place_id as place, k.bin_id as bin, k.item_id as item, k.lot, b.serial,
               k.picked as units, b.units as there
        from pick k join run r on r.id = k.run_id
        join run_position q on q.order_id = k.order_id or (q.run_id = k.run_id and q.number = k.position)
        join balance b on b.place_id = q.place_id and b.item_id = k.item_id and b.lot = k.lot and b.units > 0
        where k.line_id = ${line} and k.picked > 0
        order by q.run_id = k.run_id desc, k.confirmed_at desc, k.id, b.serial`,
  );
  const notPacked = await rows<{ lot: string; units: number }>(
    tx,
    sql`select k.lot, (sum(k.picked) - coalesce((
          select sum(c.units) from carton_line c where c.line_id = ${line} and c.lot = k.lot), 0))::int as units
        from pick k where k.line_id = ${line} and k.picked > 0 group by k.lot`,
  );
  const goods: Unwanted[] = [];
  for (const { from, units: some } of offCarts(picked, new Map(notPacked.map((l) => [l.lot, l.units])), units)) {
    const { run, place, bin, item, lot, serial } = from;
    goods.push({ order, run, place, bin, item, lot, serial, units: some });
    await notPicked(change, { ...from, line }, some, asked);
  }
  let rest = units - goods.reduce((n, g) => n + g.units, 0);
  const packed = await unpack(change, { line, order }, rest, asked);
  rest -= packed.reduce((n, g) => n + g.units, 0);
  if (rest > 0) throw new Refusal('unpack-first', { units: rest, item: name });
  goods.push(...packed);
  await requestPutAway(change, goods);
  await discardEmptyCartons(change, order);
}
