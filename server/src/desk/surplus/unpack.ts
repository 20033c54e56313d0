import { sql } from 'drizzle-orm';
import { outOfCartons } from '@hand-relay/core/handling/picking';
import { forgetWeight, reopenCarton } from '../../bench/packing/index.ts';
import { rows, type Change } from '../../platform/index.ts';
import { discardCarton } from '../../dock/shipping/index.ts';
import type { Unwanted } from '../../floor/putAway/index.ts';
import { notPicked, type Asked } from './notPicked.ts';

interface Packed {
  carton: string;
  number: number;
  state: 'open' | 'closed';
  place: string;
  lot: string;
  serial: string;
  units: number;
}

interface Picked {
  pick: string;
  wave: string;
  run: string;
  bin: string;
  item: string;
  lot: string;
  units: number;
}

/**
 * Takes goods of a line out of the cartons of its order, open ones first. A closed carton that still holds something is
 * open again, and its label void; one that holds nothing is no carton any more.
 *
 * @returns what goes back into bins, at most so many units
 */
export async function unpack(
  change: Change,
  { line, order }: { line: string; order: string },
  most: number,
  asked: Asked,
): Promise<Unwanted[]> {
  const { tx } = change;
  if (most === 0) return [];
  const packed = await rows<Packed>(
    tx,
    sql`select c.id as carton, c.number, c.state, c.place_id as place, k.lot, k.serial, k.units from carton_line k
        join carton c on c.id = k.carton_id join shipment s on s.id = c.shipment_id left join run r on r.id = c.run_id
        where k.line_id = ${line} and k.units > 0 and s.state = 'open' and coalesce(r.state, 'left') <> 'picking'
        order by c.state = 'open' desc, c.number desc, k.serial for update of c, k`,
  );
  const picks = await rows<Picked>(
    tx,
    sql`select k.id as pick, r.wave_id as wave, r.id as run, k.bin_id as bin, k.item_id as item, k.lot, k.picked as units from pick k
        join run r on r.id = k.run_id where k.line_id = ${line} and k.picked > 0 order by k.confirmed_at desc`,
  );
  const goods: Unwanted[] = [];
  for (const { from, pick, units } of outOfCartons(packed, picks, most)) {
    const { run, bin, item, lot } = pick;
    goods.push({ order, run, place: from.place, bin, item, lot, serial: from.serial, units, carton: from.number });
    await tx.execute(sql`
      with out as (
        update carton_line set units = units - ${units}
        where carton_id = ${from.carton} and line_id = ${line} and lot = ${lot} and serial = ${from.serial}
      )
      update order_line set packed = packed - ${units} where id = ${line}`);
    await forgetWeight(tx, [from.carton]);
    await notPicked(change, { ...pick, line }, units, asked);
  }
  for (const { carton, state } of new Map(packed.map((p) => [p.carton, p])).values()) {
    const touched = goods.some((g) => packed.some((p) => p.carton === carton && p.place === g.place));
    if (!touched) continue;
    const [left] = await rows<{ units: number }>(
      tx,
      sql`select coalesce(sum(units), 0)::int as units from carton_line where carton_id = ${carton}`,
    );
    if (left!.units === 0) await discardCarton(change, carton);
    else if (state === 'closed') await reopenCarton(change, carton, '');
  }
  return goods;
}
