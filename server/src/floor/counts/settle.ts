import { sql } from 'drizzle-orm';
import { correct } from '@hand-relay/core/handling/counting';
import { settleCounted } from '../../desk/exceptions/index.ts';
import { Refusal, rows, type Change, type Tx } from '../../platform/index.ts';
import { booksOf, discrepancyPlaceOf, move, outsideOf, type Move } from '../../stock/index.ts';

export interface CountRow {
  id: string;
  bin: string;
  binCode: string;
  item: string;
  sku: string;
  name: string;
  lot: string;
  tracksSerial: boolean;
  state: 'asked' | 'counted' | 'settled' | 'dropped';
}

export async function lockCount(tx: Tx, siteId: string, id: string): Promise<CountRow | undefined> {
  const [count] = await rows<CountRow>(
    tx,
    sql`select c.id, c.bin_id as bin, b.code as "binCode", c.item_id as item, i.sku, i.name, c.lot, i.tracks_serial as "tracksSerial", c.state
        from bin_count c join place b on b.id = c.bin_id join item i on i.id = c.item_id
        where c.id = ${id} and c.site_id = ${siteId} for update of c`,
  );
  return count;
}

/** Units of an item and lot that nobody is promised. */
async function freeOf(tx: Tx, siteId: string, { item, lot }: Pick<CountRow, 'item' | 'lot'>): Promise<number> {
  const [total] = await rows<{ free: number }>(
    tx,
    sql`select (on_hand - reserved)::int as free from stock_total where site_id = ${siteId} and item_id = ${item} and lot = ${lot} for update`,
  );
  return total?.free ?? 0;
}

/** Units that pickers are sent to the bin for. */
async function sentTo(tx: Tx, { bin, item, lot }: Pick<CountRow, 'bin' | 'item' | 'lot'>): Promise<number> {
  const [sent] = await rows<{ units: number }>(
    tx,
    sql`select coalesce(sum(units), 0)::int as units from pick where bin_id = ${bin} and item_id = ${item} and lot = ${lot} and state = 'open'`,
  );
  return sent!.units;
}

/** What would have to move for the bin to hold what was counted, by how much it differs, and what stands in the way. */
export async function weighCount(
  tx: Tx,
  siteId: string,
  count: CountRow,
  counted: ReadonlyMap<string, number>,
): Promise<{ moves: Move[]; difference: number; mustNot: Refusal | null }> {
  const books = new Map((await booksOf(tx, siteId, count)).map((b) => [b.serial, b]));
  const [discrepancy, outside] = [discrepancyPlaceOf(siteId), outsideOf(siteId)];
  const moves: Move[] = [];
  const found: string[] = [];
  let [difference, gone] = [0, 0];
  for (const serial of new Set([...books.keys(), ...counted.keys()])) {
    const { booked, doubtful } = books.get(serial) ?? { booked: 0, doubtful: 0 };
    const by = correct({ booked, doubtful, counted: counted.get(serial) ?? 0 });
    const one = (from: string, to: string, units: number) =>
      units > 0 && moves.push({ from, to, item: count.item, lot: count.lot, serial, units });
    one(discrepancy, count.bin, by.back);
    one(discrepancy, outside, by.lost);
    one(outside, count.bin, by.found);
    one(count.bin, outside, by.gone);
    if (by.found > 0 && serial !== '') found.push(serial);
    difference += by.difference;
    gone += by.gone - by.found - by.back;
  }
  if (gone > 0) {
    const lacks = Math.max(
      gone - (await freeOf(tx, siteId, count)),
      (await sentTo(tx, count)) - [...counted.values()].reduce((n, c) => n + c, 0),
    );
    const facts = { item: count.name, units: lacks };
    if (lacks > 0) return { moves, difference, mustNot: new Refusal('count-promised', facts) };
  }
  const [elsewhere] =
    found.length === 0
      ? []
      : await rows<{ serial: string; place: string }>(
          tx,
          sql`select b.serial, p.code as place from balance b join place p on p.id = b.place_id
              where b.item_id = ${count.item} and b.units > 0 and p.kind <> 'outside' and b.serial in (select jsonb_array_elements_text(${JSON.stringify(found)}::jsonb)) limit 1`,
        );
  const mustNot = elsewhere ? new Refusal('serial-elsewhere', { ...elsewhere }) : null;
  return { moves, difference, mustNot };
}

/** Writes the movements of a count, and that it is settled. */
export async function settle(change: Change, count: CountRow, moves: Move[], difference: number): Promise<void> {
  const { tx, actor, now } = change;
  await move(change, moves, 'count', `count ${count.bin}`);
  await tx.execute(
    sql`update bin_count set state = 'settled', settled_at = ${now.toISOString()}, settled_by = ${actor.personId} where id = ${count.id}`,
  );
  await settleCounted(change, count);
  change.journal({
    kind: 'count-settled',
    facts: { bin: count.binCode, item: count.name, sku: count.sku, lot: count.lot, difference, moves: moves.length },
  });
  change.publish('counts', [count.id]);
  change.publish('stock', []);
}
