import { sql, type SQL } from 'drizzle-orm';
import { namesIn, type DeskView } from '@hand-relay/contract';
import { localDate } from '@hand-relay/core/calendar';
import { recordset, rows, type Platform } from '../../platform/index.ts';
import { freeStock } from '../../stock/index.ts';
import { settingsOf } from '../../setup/settings/index.ts';

/** Orders of one reading: short enough that a scan waiting behind it hardly notices. */
const AT_ONCE = 500;

const among = (names: string) => sql`(select jsonb_array_elements_text(${recordset(namesIn(names))}))`;
const oneText = (list: { text: string | null }[]) => list[0]?.text ?? '[]';

/** Texts that are kept: a few people look at a few views. */
const CACHED = 4;
const texts = new WeakMap<Platform, Map<string, { version: number; text: Promise<string> }>>();

/**
 * What the Desk computes with, as one text that goes to the computation as it is. Read again only when orders, stock or
 * master data changed since.
 */
export async function readDesk(platform: Platform, siteId: string, view: DeskView): Promise<string> {
  const cached = texts.get(platform) ?? new Map<string, { version: number; text: Promise<string> }>();
  texts.set(platform, cached);
  const day = platform.clock().toISOString().slice(0, 13);
  const key = JSON.stringify([siteId, day, Object.entries(view).sort()]);
  const version = platform.bus.version(siteId);
  const there = cached.get(key);
  if (there?.version === version) return there.text;
  const text = readNow(platform, siteId, view);
  cached.delete(key);
  cached.set(key, { version, text });
  for (const old of [...cached.keys()].slice(0, -CACHED)) cached.delete(old);
  text.catch(() => cached.delete(key));
  return text;
}

/** Open orders of a site that a view shows, as a condition on `o`, its customer `c`, departure `d` and carrier `k`. */
export function openIn(siteId: string, view: DeskView): SQL {
  return sql.join(
    [
      sql`o.site_id = ${siteId} and o.status = 'open'`,
      view.from ? sql`o.due >= ${view.from}::date` : null,
      view.until ? sql`o.due <= ${view.until}::date` : null,
      view.class ? sql`c.class in ${among(view.class)}` : null,
      view.channel ? sql`o.channel in ${among(view.channel)}` : null,
      view.kind ? sql`o.kind in ${among(view.kind)}` : null,
      view.priority ? sql`o.priority::text in ${among(view.priority)}` : null,
      view.departure ? sql`d.name in ${among(view.departure)}` : null,
      view.carrier ? sql`k.name in ${among(view.carrier)}` : null,
      view.service ? sql`v.name in ${among(view.service)}` : null,
      view.lane
        ? sql`(select p.code from place p where p.id = coalesce(o.lane_id, d.lane_id)) in ${among(view.lane)}`
        : null,
      view.reference ? sql`o.reference ilike ${`%${view.reference.replace(/[\\%_]/g, '\\$&')}%`}` : null,
      view.zone
        ? sql`exists (
            select 1 from order_line x join balance b on b.item_id = x.item_id join place p on p.id = b.place_id
            join zone z on z.id = p.zone_id where x.order_id = o.id and p.site_id = ${siteId} and z.code in ${among(view.zone)})`
        : null,
      view.item
        ? sql`exists (
            select 1 from order_line x join item i on i.id = x.item_id
            where x.order_id = o.id and upper(i.sku) = upper(${view.item}) and x.asked - x.cancelled > x.released)`
        : null,
    ].filter((part) => part !== null),
    sql` and `,
  );
}

async function readNow(platform: Platform, siteId: string, view: DeskView): Promise<string> {
  const { db, clock } = platform;
  const [site] = await rows<{ zone: string }>(db, sql`select time_zone as zone from site where id = ${siteId}`);
  const today = localDate(clock().getTime(), site?.zone ?? 'UTC');
  const settings = await settingsOf(db, siteId);
  const chosen = openIn(siteId, view);
  const pages: string[] = [];
  for (let after = ''; ;) {
    const [page] = await rows<{ text: string | null; last: string | null; count: number }>(
      db,
      sql`
      with page as (
        select o.id, o.number, c.number as customer, c.name, c.class, coalesce(g.rank, 32767) as class_rank, o.created_at, o.due, o.priority, o.ship_complete, c.min_shelf_days
        from customer_order o join customer c on c.id = o.customer_id left join customer_class g on g.code = c.class
        left join departure d on d.id = o.departure_id left join service v on v.id = d.service_id left join carrier k on k.id = v.carrier_id
        where ${chosen} and o.id > ${after} order by o.id limit ${AT_ONCE}
      ), line as (
        select l.order_id, string_agg('[' || to_json(l.id) || ',' || l.line || ',' || to_json(l.item_id) || ',' ||
                 (l.asked - l.cancelled - l.released) || ',' || i.value_minor || ',' || coalesce(l.manually_allocated::text, 'null') || ']', ',') as lines
        from order_line l join item i on i.id = l.item_id
        where l.order_id in (select id from page) and l.asked - l.cancelled - l.released > 0 group by 1
      ), held as (
        select distinct order_id from order_hold h where h.lifted_at is null and 'release' = any(h.stops)
      )
      select string_agg('[' || to_json(p.id) || ',' || to_json(p.number) || ',' || to_json(p.customer) || ',' || to_json(p.name) || ',' || to_json(p.class) ||
               ',"' || p.due || '","' || greatest(p.due, ${today}::date) || '",' || p.priority || ',' || p.ship_complete || ',' || p.min_shelf_days ||
               ',' || coalesce('[' || l.lines || ']', 'null') || ',' || (h.order_id is not null) ||
               ',' || p.class_rank || ',' || to_json(p.created_at) || ']', ',') as text,
             max(p.id) as last, count(*)::int as count
      from page p left join line l on l.order_id = p.id left join held h on h.order_id = p.id`,
    );
    pages.push(page!.text ?? '');
    if (page!.count < AT_ONCE) break;
    after = page!.last!;
  }
  const reserved = await rows<{ text: string | null }>(
    db,
    sql`select json_agg(json_build_array(line_id, lot, units))::text as text from reservation
        where site_id = ${siteId} and wave_id is null and units > 0`,
  );
  const wishes = await rows<{ text: string | null }>(
    db,
    sql`select json_agg(json_build_array(c.number, w.item_id, w.days))::text as text
        from minimum_shelf_life w join customer c on c.id = w.customer_id where not w.retired`,
  );
  const supply = await rows<{ text: string | null }>(
    db,
    sql`select json_agg(json_build_object('item', f.item_id, 'lot', nullif(f.lot, ''), 'bestBefore', f.best_before, 'units', f.units))::text as text
        from (${freeStock(siteId, settings.reserve === 'scan' && settings.countReleased)}) f where f.units > 0`,
  );
  const expected = await rows<{ text: string | null }>(
    db,
    sql`select json_agg(json_build_object('item', item_id, 'date', greatest(due, ${today}::date), 'units', units) order by due)::text as text
        from expected_supply where site_id = ${siteId} and not retired`,
  );
  return `{"today":"${today}","orders":[${pages.filter(Boolean).join(',')}],"reserved":${oneText(reserved)},"wishes":${oneText(wishes)},"supply":${oneText(supply)},"expected":${oneText(expected)}}`;
}
