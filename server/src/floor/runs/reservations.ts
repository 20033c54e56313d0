import { sql } from 'drizzle-orm';
import { Refusal, rows, type Change } from '../../platform/index.ts';
import { settingsOf } from '../../setup/settings/index.ts';

/**
 * What is picked is promised firmly, where release did not do so.
 *
 * @throws Refusal 409 `promised-away` when others were promised it in the meantime
 */
export async function hardAllocate(
  { tx, actor }: Change,
  waveId: string,
  { line, item, lot, units }: { line: string; item: string; lot: string; units: number },
): Promise<void> {
  const [soft] = await rows<{ free: number }>(
    tx,
    sql`select (t.on_hand - t.reserved)::int as free from reservation r
        join stock_total t on t.site_id = ${actor.siteId} and t.item_id = ${item} and t.lot = ${lot}
        where r.wave_id = ${waveId} and r.line_id = ${line} and r.lot = ${lot} and r.hard_allocated + ${units} <= r.units for update`,
  );
  if (!soft) return;
  if (soft.free < units) throw new Refusal('promised-away', { item, units: soft.free });
  await tx.execute(
    sql`update reservation set hard_allocated = hard_allocated + ${units} where wave_id = ${waveId} and line_id = ${line} and lot = ${lot}`,
  );
}

/**
 * The promise moves to the lot that is taken.
 *
 * @throws Refusal 409 `lot-promised` when the other lot was promised to others in the meantime
 */
export async function swapLot(
  { tx, actor }: Change,
  waveId: string,
  {
    line,
    item,
    units,
    from,
    lot,
  }: { line: string; item: { id: string; name: string }; units: number; from: string; lot: string },
): Promise<void> {
  const [free] = await rows<{ units: number }>(
    tx,
    sql`select on_hand - reserved as units from stock_total where site_id = ${actor.siteId} and item_id = ${item.id} and lot = ${lot} for update`,
  );
  if ((free?.units ?? 0) < units) throw new Refusal('lot-promised', { lot, item: item.name });
  await tx.execute(sql`
    with less as (
      update reservation set units = units - ${units}, hard_allocated = least(hard_allocated, units - ${units})
      where wave_id = ${waveId} and line_id = ${line} and lot = ${from}
    )
    insert into reservation (wave_id, line_id, site_id, item_id, lot, units, hard_allocated)
    values (${waveId}, ${line}, ${actor.siteId}, ${item.id}, ${lot}, ${units}, ${units})
    on conflict (line_id, wave_id, lot) do update set units = reservation.units + excluded.units, hard_allocated = reservation.hard_allocated + excluded.hard_allocated`);
}

/** What went back to Desk, wanted by its wave again. */
interface Wanted {
  line: string;
  itemId: string;
  item: string;
  lot: string;
  units: number;
}

/**
 * Promises to a line, in its wave, what went back to Desk.
 *
 * @throws Refusal 409 `undo-short` when it was promised to others in the meantime, or is released by another wave
 */
export async function reserveAgain(
  { tx, actor }: Change,
  waveId: string,
  { line, itemId, item, lot, units }: Wanted,
): Promise<void> {
  const hard = (await settingsOf(tx, actor.siteId)).reserve !== 'scan';
  const [free] = await rows<{ units: number }>(
    tx,
    sql`select on_hand - reserved as units from stock_total where site_id = ${actor.siteId} and item_id = ${itemId} and lot = ${lot} for update`,
  );
  const [open] = await rows<{ units: number }>(
    tx,
    sql`select asked - cancelled - released as units from order_line where id = ${line} for update`,
  );
  if (open!.units < units || (hard && (free?.units ?? 0) < units)) throw new Refusal('undo-short', { item });
  await tx.execute(sql`
    with again as (
      insert into reservation (wave_id, line_id, site_id, item_id, lot, units, hard_allocated)
      values (${waveId}, ${line}, ${actor.siteId}, ${itemId}, ${lot}, ${units}, ${hard ? units : 0})
      on conflict (line_id, wave_id, lot) do update set units = reservation.units + excluded.units, hard_allocated = reservation.hard_allocated + excluded.hard_allocated
    ), more as (
      update wave_line set units = units + ${units} where wave_id = ${waveId} and line_id = ${line}
    )
    update order_line set released = released + ${units} where id = ${line}`);
}
