import { sql } from 'drizzle-orm';
import { rows, type Tx } from '../platform/index.ts';
import { discrepancyPlaceOf, outsideOf } from './move.ts';

export interface Books {
  serial: string;
  booked: number;
  doubtful: number;
}

/**
 * What the books have of an item and lot in a bin, and what was not found there and waits for a count; by serial number.
 * Nobody takes of the bin until the transaction ends.
 */
export function booksOf(tx: Tx, siteId: string, { bin, item, lot }: { bin: string; item: string; lot: string }) {
  const [discrepancy, outside] = [discrepancyPlaceOf(siteId), outsideOf(siteId)];
  return rows<Books>(
    tx,
    sql`
    with here as (select serial, units from balance where place_id = ${bin} and item_id = ${item} and lot = ${lot} and units > 0 for update),
    moved as (
      select serial, sum(case when to_place = ${discrepancy} then units else -units end)::int as units from movement
      where item_id = ${item} and lot = ${lot} and (
        (from_place = ${bin} and to_place = ${discrepancy}) or (from_place = ${discrepancy} and to_place = ${bin})
        or (from_place = ${discrepancy} and to_place = ${outside} and document = ${`count ${bin}`})) group by serial
    ), doubt as (
      select m.serial, least(m.units, b.units)::int as units from moved m
      join balance b on b.place_id = ${discrepancy} and b.item_id = ${item} and b.lot = ${lot} and b.serial = m.serial where m.units > 0
    )
    select coalesce(h.serial, d.serial) as serial, coalesce(h.units, 0)::int as booked, coalesce(d.units, 0)::int as doubtful
    from here h full join doubt d on d.serial = h.serial order by 1`,
  );
}
