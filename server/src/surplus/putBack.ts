import { sql } from 'drizzle-orm';
import { offCarts, type Loose } from '@hand-relay/core/picking';
import { Refusal, rows, type Change } from '../platform/index.ts';
import { askPutBack, type Unwanted } from '../putBack/index.ts';
import { discardEmptyCartons } from '../shipping/index.ts';
import { notPicked, type Asked } from './notPicked.ts';
import { unpack } from './unpack.ts';

/**
 * Has units of a line put back by a guided trip: what is loose on a cart goes first, then what is in cartons of the order.
 *
 * @throws Refusal 409 `unpack-first` where fewer of them are within reach: in a carton in a picker's hands
 */
export async function putBack(
  change: Change,
  { line, order, units, name }: { line: string; order: string; units: number; name: string },
  asked: Asked,
): Promise<void> {
  const { tx } = change;
  const picked = await rows<Loose & Omit<Unwanted, 'order' | 'carton'> & { wave: string }>(
    tx,
    sql`select k.id as pick, r.wave_id as wave, r.id as run, q.place_id as place, k.bin_id as bin, k.item_id as item, k.lot, b.serial,
               k.picked as units, b.units as there
        from pick k join run r on r.id = k.run_id join run_position q on q.run_id = k.run_id and q.number = k.position
        join balance b on b.place_id = q.place_id and b.item_id = k.item_id and b.lot = k.lot and b.units > 0
        where k.line_id = ${line} and k.picked > 0 order by k.confirmed_at desc, b.serial`,
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
  if (rest > 0) throw new Refusal(409, 'unpack-first', { units: rest, item: name });
  goods.push(...packed);
  await askPutBack(change, goods);
  await discardEmptyCartons(change, order);
}
