import { sql } from 'drizzle-orm';
import { Refusal, rows, type Change } from '../platform/index.ts';
import { askPutBack, type Unwanted } from '../putBack/index.ts';
import { discardEmptyCartons } from '../shipping/index.ts';
import { notPicked, type Asked } from './notPicked.ts';
import { outOfCartons } from './outOfCartons.ts';

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
  const picked = await rows<{
    pick: string;
    wave: string;
    run: string;
    place: string;
    bin: string;
    item: string;
    lot: string;
    serial: string;
    units: number;
    there: number;
  }>(
    tx,
    sql`select k.id as pick, r.wave_id as wave, r.id as run, q.place_id as place, k.bin_id as bin, k.item_id as item, k.lot, b.serial,
               k.picked as units, b.units as there
        from pick k join run r on r.id = k.run_id join run_position q on q.run_id = k.run_id and q.number = k.position
        join balance b on b.place_id = q.place_id and b.item_id = k.item_id and b.lot = k.lot and b.units > 0
        where k.line_id = ${line} and k.picked > 0 order by k.confirmed_at desc, b.serial`,
  );
  // The position may hold the same item for another line, and two picks of this line lie in it as one: of each lot no
  // more is taken from the cart than was picked for this line and is in no carton.
  const looseOf = new Map(
    (
      await rows<{ lot: string; units: number }>(
        tx,
        sql`select k.lot, (sum(k.picked) - coalesce((
              select sum(c.units) from carton_line c where c.line_id = ${line} and c.lot = k.lot), 0))::int as units
            from pick k where k.line_id = ${line} and k.picked > 0 group by k.lot`,
      )
    ).map((l) => [l.lot, l.units]),
  );
  const inPlace = new Map(picked.map((p) => [`${p.place} ${p.lot} ${p.serial}`, p.there]));
  const ofPick = new Map(picked.map((p) => [p.pick, p.units]));
  let rest = units;
  const goods: Unwanted[] = [];
  for (const from of picked) {
    const { pick, run, place, bin, item, lot, serial } = from;
    const spot = `${place} ${lot} ${serial}`;
    const some = Math.min(rest, ofPick.get(pick)!, inPlace.get(spot)!, looseOf.get(lot) ?? 0);
    if (some <= 0) continue;
    rest -= some;
    ofPick.set(pick, ofPick.get(pick)! - some);
    inPlace.set(spot, inPlace.get(spot)! - some);
    looseOf.set(lot, looseOf.get(lot)! - some);
    goods.push({ order, run, place, bin, item, lot, serial, units: some });
    await notPicked(change, { ...from, line }, some, asked);
  }
  const packed = await outOfCartons(change, { line, order }, rest, asked);
  rest -= packed.reduce((n, g) => n + g.units, 0);
  if (rest > 0) throw new Refusal(409, 'unpack-first', { units: rest, item: name });
  goods.push(...packed);
  await askPutBack(change, goods);
  await discardEmptyCartons(change, order);
}
