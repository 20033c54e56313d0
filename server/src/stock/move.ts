import { sql } from 'drizzle-orm';
import { recordset, type Change } from '../platform/index.ts';

export interface Move {
  from: string;
  to: string;
  item: string;
  lot: string;
  serial: string;
  units: number;
}

/** Moves stock, for a reason and a document that caused it. The database refuses what cannot be. */
export async function move(change: Change, moves: Move[], reason: string, document: string): Promise<void> {
  if (moves.length === 0) return;
  await change.tx.execute(sql`
    insert into movement (at, site_id, from_place, to_place, item_id, lot, serial, units, reason, document, person_id)
    select ${change.now.toISOString()}::timestamptz, ${change.actor.siteId}, m."from", m."to", m.item, m.lot, m.serial, m.units,
           ${reason}, ${document}, ${change.actor.personId}
    from jsonb_to_recordset(${recordset(moves)}) as m("from" text, "to" text, item text, lot text, serial text, units int)`);
}

/** The place beyond the site's walls, from which goods come and to which they leave. */
export const outsideOf = (siteId: string) => `outside-${siteId}`;
/** Where the books put what nobody finds, until it is counted. Its id is of an earlier name: movements refer to it. */
export const discrepancyPlaceOf = (siteId: string) => `inquiry-${siteId}`;
