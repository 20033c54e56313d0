import { sql } from 'drizzle-orm';
import type { z } from 'zod';
import type { QuickOrder, quickQuery } from '@hand-relay/contract';
import { chooseBins } from '@hand-relay/core/walking/bins';
import { localDate } from '@hand-relay/core/calendar';
import { anyOf, iso, recordset, rows, type Platform } from '../../platform/index.ts';
import { mustKeepUntil } from '../../stock/index.ts';
import { allocate, binStock } from '../waves/index.ts';

/** Orders that one screen can hold. */
const MOST = 200;
/** Other places of a line that are offered. */
const PLACES = 8;

type Head = Omit<QuickOrder, 'lines'>;
type Line = QuickOrder['lines'][number] & { order: string };

/** Everything due of which nothing is under way, each line with what there is for it and the bins that it lies in. */
export async function quickList(
  { db, clock }: Platform,
  siteId: string,
  { until, order, find }: z.output<typeof quickQuery>,
): Promise<{ orders: QuickOrder[]; more: number }> {
  const [site] = await rows<{ timeZone: string }>(
    db,
    sql`select time_zone as "timeZone" from site where id = ${siteId}`,
  );
  const day = until ?? localDate(clock().getTime(), site!.timeZone);
  const text = find?.trim().replace(/[%_\\]/g, '\\$&');
  const due = sql`o.site_id = ${siteId} and o.status = 'open'
    and ${order ? sql`o.id = ${order}` : day === 'any' ? sql`true` : sql`o.due <= ${day}`}
    and ${text ? sql`(o.number ilike ${`%${text}%`} or o.reference ilike ${`%${text}%`} or c.name ilike ${`%${text}%`})` : sql`true`}
    and not exists (select 1 from order_line l where l.order_id = o.id and l.released > l.shipped)`;
  const heads = await rows<Head>(
    db,
    sql`
    select o.id, o.number, c.name as customer, c.wishes, o.note, o.due::text as due, d.name as departure, ${iso(sql`o.leaves_at`)} as "leavesAt",
           k.name as carrier, o.ship_complete as "shipComplete",
           (select h.text from order_hold h where h.order_id = o.id and h.lifted_at is null
              and h.stops && array['release', 'picking', 'shipping'] order by h.held_at limit 1) as held
    from customer_order o join customer c on c.id = o.customer_id left join departure d on d.id = o.departure_id
    left join service v on v.id = d.service_id left join carrier k on k.id = v.carrier_id
    where ${due} order by o.leaves_at nulls last, o.priority, o.number limit ${MOST}`,
  );
  const [all] = await rows<{ orders: number }>(
    db,
    sql`select count(*)::int as orders from customer_order o join customer c on c.id = o.customer_id where ${due}`,
  );
  const ids = heads.map((h) => h.id);
  const lines = await rows<Line & { item: string; keepsUntil: string }>(
    db,
    sql`
    select o.id as "order", l.id as line, l.line as number, l.item_id as item, i.sku, i.name, i.unit, i.picture, l.note,
           l.asked - l.cancelled - l.released as asked, 0 as gets, i.tracks_serial as "tracksSerial",
           ${mustKeepUntil(siteId, sql`l.item_id`, clock())}::text as "keepsUntil"
    from order_line l join customer_order o on o.id = l.order_id join customer c on c.id = o.customer_id join item i on i.id = l.item_id
    where o.id = ${anyOf(ids)} and l.asked - l.cancelled - l.released > 0 order by o.id, l.line`,
  );
  const { lines: promises } = await allocate(db, siteId, ids, { toRelease: true, now: clock() });
  // The bins are chosen for all orders together: no two are sent to the same units.
  const needs = promises.flatMap((l) =>
    l.allocation.lots.map((part) => ({
      id: `${l.line} ${part.lot ?? ''}`,
      item: l.item,
      lot: part.lot,
      units: part.units,
    })),
  );
  const stock = await binStock(db, siteId, [...new Set(lines.map((l) => l.item))]);
  const { choices } = chooseBins(stock, needs);
  const serials = await rows<{ item: string; bin: string; lot: string; serial: string }>(
    db,
    sql`select b.item_id as item, p.code as bin, b.lot, b.serial from balance b join place p on p.id = b.place_id and p.kind = 'bin' and p.site_id = ${siteId}
        where b.serial <> '' and b.units > 0 and b.item_id in (
          select jsonb_array_elements_text(${recordset([...new Set(lines.filter((l) => l.tracksSerial).map((l) => l.item))])})) order by b.serial`,
  );
  const placeOf = (item: string, { bin, lot, units, bestBefore }: (typeof stock)[number]) => ({
    bin,
    lot: lot ?? '',
    bestBefore: bestBefore ?? null,
    there: units,
    serials: serials.filter((s) => s.item === item && s.bin === bin && s.lot === (lot ?? '')).map((s) => s.serial),
  });
  const fetched = new Map<string, Line['from']>();
  for (const { need, bin, units } of choices) {
    const at = need.indexOf(' ');
    const [line, lot] = [need.slice(0, at), need.slice(at + 1)];
    const item = lines.find((l) => l.line === line)?.item;
    const there = stock.find((s) => s.item === item && s.bin === bin && (s.lot ?? '') === lot);
    if (item && there) fetched.set(line, [...(fetched.get(line) ?? []), { ...placeOf(item, there), units }]);
  }
  const orders = heads.map((head) => ({
    ...head,
    lines: lines
      .filter((l) => l.order === head.id)
      .map(({ order: _, item, keepsUntil, ...line }) => {
        const from = fetched.get(line.line) ?? [];
        const others = stock
          .filter((s) => s.item === item && (!s.bestBefore || s.bestBefore >= keepsUntil))
          .map((s) => placeOf(item, s))
          .filter((s) => !from.some((f) => f.bin === s.bin && f.lot === s.lot))
          .sort((a, b) => (a.bestBefore ?? '9').localeCompare(b.bestBefore ?? '9') || a.bin.localeCompare(b.bin))
          .slice(0, PLACES);
        return { ...line, from, others, gets: from.reduce((n, f) => n + f.units, 0) };
      }),
  }));
  return { orders, more: all!.orders - heads.length };
}
