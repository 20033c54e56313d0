import { sql } from 'drizzle-orm';
import { recordset, rows, type Tx } from '../../platform/index.ts';

/** Units of a line and lot that pass from one wave to another. */
export interface Moved {
  line: string;
  lot: string;
  units: number;
}

/**
 * Moves released units from one wave to another. What is hard-allocated and not picked goes along; where a site
 * reserves at the scan, what was picked stays so where it was.
 */
export async function moveUnits(tx: Tx, from: string, to: string, moved: readonly Moved[]): Promise<void> {
  if (moved.length === 0) return;
  // First less here, then more there: at no moment is more reserved than there is.
  const less = await rows<{ line: string; lot: string; site: string; item: string; units: number; hard: number }>(
    tx,
    sql`
    with moved as (
      select line, lot, sum(units)::int as units from jsonb_to_recordset(${recordset(moved)}) as m(line text, lot text, units int) group by 1, 2
    ), less as (
      select r.line_id, r.lot, r.site_id, r.item_id, m.units, greatest(0, r.hard_allocated - (r.units - m.units)) as hard_allocated
      from reservation r join moved m on m.line = r.line_id and m.lot = r.lot where r.wave_id = ${from}
    )
    update reservation r set units = r.units - l.units, hard_allocated = r.hard_allocated - l.hard_allocated from less l
    where r.wave_id = ${from} and r.line_id = l.line_id and r.lot = l.lot
    returning l.line_id as line, l.lot, l.site_id as site, l.item_id as item, l.units, l.hard_allocated as hard`,
  );
  await tx.execute(sql`
    insert into reservation (wave_id, line_id, site_id, item_id, lot, units, hard_allocated)
    select ${to}, line, site, item, lot, units, hard
    from jsonb_to_recordset(${recordset(less)}) as l(line text, lot text, site text, item text, units int, hard int)
    on conflict (line_id, wave_id, lot) do update set units = reservation.units + excluded.units, hard_allocated = reservation.hard_allocated + excluded.hard_allocated`);
  await tx.execute(sql`delete from reservation where wave_id = ${from} and units = 0`);
  await tx.execute(sql`
    with moved as (
      select line, sum(units)::int as units from jsonb_to_recordset(${recordset(moved)}) as m(line text, lot text, units int) group by 1
    ), less as (
      update wave_line w set units = w.units - m.units from moved m where w.wave_id = ${from} and w.line_id = m.line
    )
    insert into wave_line as w (wave_id, line_id, units) select ${to}, line, units from moved
    on conflict (wave_id, line_id) do update set units = w.units + excluded.units`);
  await tx.execute(sql`delete from wave_line where wave_id = ${from} and units = 0`);
}
