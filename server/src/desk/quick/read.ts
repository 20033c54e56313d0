import { sql } from 'drizzle-orm';
import type { QuickOrder } from '@hand-relay/contract';
import { chooseBins } from '@hand-relay/core/walking/bins';
import { localDate } from '@hand-relay/core/calendar';
import { iso, recordset, rows, type Platform } from '../../platform/index.ts';
import { allocate, binStock } from '../waves/index.ts';

/** Orders that one screen can hold. */
const MOST = 200;

type Head = Omit<QuickOrder, 'lines'>;
type Line = QuickOrder['lines'][number] & { order: string };

/** Everything due of which nothing is under way, each line with what there is for it and the bins that it lies in. */
export async function quickList(
  { db, clock }: Platform,
  siteId: string,
  until: string | undefined,
): Promise<{ orders: QuickOrder[]; more: number }> {
  const [site] = await rows<{ timeZone: string }>(
    db,
    sql`select time_zone as "timeZone" from site where id = ${siteId}`,
  );
  const day = until ?? localDate(clock().getTime(), site!.timeZone);
  const due = sql`o.site_id = ${siteId} and o.status = 'open' and o.due <= ${day}
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
    sql`select count(*)::int as orders from customer_order o where ${due}`,
  );
  const ids = heads.map((h) => h.id);
  const lines = await rows<Line & { item: string }>(
    db,
    sql`
    select o.id as "order", l.id as line, l.line as number, l.item_id as item, i.sku, i.name, i.unit, i.picture, l.note,
           l.asked - l.cancelled - l.released as asked, 0 as gets, i.tracks_serial as "tracksSerial"
    from order_line l join customer_order o on o.id = l.order_id join item i on i.id = l.item_id
    where o.id in (select jsonb_array_elements_text(${recordset(ids)})) and l.asked - l.cancelled - l.released > 0 order by o.id, l.line`,
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
  const { choices } = chooseBins(await binStock(db, siteId, [...new Set(needs.map((n) => n.item))]), needs);
  const serials = await rows<{ item: string; bin: string; lot: string; serial: string }>(
    db,
    sql`select b.item_id as item, p.code as bin, b.lot, b.serial from balance b join place p on p.id = b.place_id and p.kind = 'bin' and p.site_id = ${siteId}
        where b.serial <> '' and b.units > 0 and b.item_id in (
          select jsonb_array_elements_text(${recordset([...new Set(lines.filter((l) => l.tracksSerial).map((l) => l.item))])})) order by b.serial`,
  );
  const fetched = new Map<string, Line['from']>();
  for (const { need, bin, units } of choices) {
    const at = need.indexOf(' ');
    const [line, lot] = [need.slice(0, at), need.slice(at + 1)];
    const item = lines.find((l) => l.line === line)?.item;
    const here = serials.filter((s) => s.item === item && s.bin === bin && s.lot === lot).map((s) => s.serial);
    fetched.set(line, [...(fetched.get(line) ?? []), { bin, lot, units, serials: here }]);
  }
  const orders = heads.map((head) => ({
    ...head,
    lines: lines
      .filter((l) => l.order === head.id)
      .map(({ order: _, item: __, ...line }) => {
        const from = fetched.get(line.line) ?? [];
        return { ...line, from, gets: from.reduce((n, f) => n + f.units, 0) };
      }),
  }));
  return { orders, more: all!.orders - heads.length };
}
