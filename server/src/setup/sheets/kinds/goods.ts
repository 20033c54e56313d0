import { sql } from 'drizzle-orm';
import type { Row } from '@hand-relay/core/reading/sheets';
import { recordset, rows, type Change } from '../../../platform/index.ts';
import { move, outsideOf, type Move } from '../../../stock/index.ts';
import { faultsOf, nothing, only, type Kind } from './kind.ts';

const levels = [
  ['unit', 'gtin'],
  ['inner', 'inner_gtin'],
  ['outer', 'outer_gtin'],
] as const;

/** A pack without a number of its own has a key that no scanner reads; it is not shown. */
const UNREAD = 'none-';
const known = (pack: 'u' | 'n' | 'o') =>
  sql.raw(`case when ${pack}.gtin like '${UNREAD}%' then null else ${pack}.gtin end`);

export const items: Kind = {
  read: (on, _site, list) =>
    rows<Row>(
      on,
      only(
        sql`select i.sku as item, i.name, i.unit, i.length_mm, i.width_mm, i.height_mm, i.weight_g,
                 ${known('u')} as gtin, n.units as inner_units, ${known('n')} as inner_gtin, o.units as outer_units, ${known('o')} as outer_gtin,
                 i.handling, i.counting, i.temperature, coalesce(i.apart, '') as keep_apart, i.keep_upright, i.max_load_g as load_on_top_g, i.tracks_lot as lots, i.tracks_serial as serials,
                 i.shelf_life_days,
                 i.value_minor as value, i.picture, i.hazard, i.own_box, i.service, i.retired
          from item i
          left join item_pack u on u.item_id = i.id and u.level = 'unit'
          left join item_pack n on n.item_id = i.id and n.level = 'inner'
          left join item_pack o on o.item_id = i.id and o.level = 'outer' order by i.sku`,
        'item',
        list,
      ),
    ),
  async faults(on, _site, list) {
    const gtins = list.flatMap((r) => levels.flatMap(([, column]) => r.values[column] ?? []));
    const owners = new Map(
      (
        await rows<{ gtin: string; sku: string }>(
          on,
          sql`select p.gtin, i.sku from item_pack p join item i on i.id = p.item_id
              where p.gtin in (select jsonb_array_elements_text(${recordset(gtins)}))`,
        )
      ).map((p) => [p.gtin, p.sku]),
    );
    const stocked = new Map(
      (
        await rows<{ sku: string; lots: boolean; serials: boolean }>(
          on,
          sql`select i.sku, i.tracks_lot as lots, i.tracks_serial as serials from item i
              where exists (select 1 from balance b where b.item_id = i.id)
                and i.sku in (select jsonb_array_elements_text(${recordset(list.map((r) => r.values['item']))}))`,
        )
      ).map((s) => [s.sku, s]),
    );
    const inFile = new Map<string, string>();
    return faultsOf(list, (r, fail) => {
      const sku = String(r['item']);
      for (const [, column] of levels) {
        const gtin = r[column];
        if (typeof gtin !== 'string' || gtin === '') continue;
        const owner = owners.get(gtin) ?? inFile.get(gtin);
        if (owner !== undefined && owner !== sku) fail(column, 'once', { first: owner });
        else if (inFile.has(gtin)) fail(column, 'once', { first: sku });
        inFile.set(gtin, sku);
      }
      for (const level of ['inner', 'outer'] as const)
        if (r[`${level}_gtin`] && !r[`${level}_units`]) fail(`${level}_units`, 'a-value');
      const [inner, outer] = [r['inner_units'], r['outer_units']];
      if (typeof inner === 'number' && typeof outer === 'number' && outer <= inner)
        fail('outer_units', 'a-number-from', { least: inner + 1, most: 1_000_000 });
      const here = stocked.get(sku);
      // What lies here has a lot or serial number, or has none: that cannot be told differently afterwards.
      if (here && here.lots !== r['lots']) fail('lots', 'as-it-is', { is: here.lots ? 'yes' : 'no' });
      if (here && here.serials !== r['serials']) fail('serials', 'as-it-is', { is: here.serials ? 'yes' : 'no' });
    });
  },
  refusesRetiring: async (on, _site, list) => {
    const held = new Set(
      (
        await rows<{ sku: string }>(
          on,
          sql`select sku from item i where exists (select 1 from balance b where b.item_id = i.id)`,
        )
      ).map((h) => h.sku),
    );
    return list.flatMap((r, i) =>
      held.has(String(r['item']))
        ? [{ row: i + 1, column: 'item', value: String(r['item']), expected: 'nothing-there' as const }]
        : [],
    );
  },
  async write({ tx, newId }, list) {
    const written = await rows<{ id: string; sku: string }>(
      tx,
      sql`
      insert into item (id, sku, name, unit, length_mm, width_mm, height_mm, weight_g, handling, counting, temperature, apart, keep_upright, max_load_g,
                        tracks_lot, tracks_serial, shelf_life_days, value_minor, picture, hazard, own_box, service, retired)
      select r.id, r.item, r.name, r.unit, r.length_mm, r.width_mm, r.height_mm, r.weight_g, r.handling, r.counting, r.temperature,
             nullif(r.keep_apart, ''), r.keep_upright, r.load_on_top_g, r.lots, r.serials, r.shelf_life_days, r.value, r.picture, r.hazard, r.own_box, r.service, r.retired
      from jsonb_to_recordset(${recordset(list.map((r) => ({ ...r, id: newId(), retired: r['retired'] ?? false })))})
        as r(id text, item text, name text, unit text, length_mm int, width_mm int, height_mm int, weight_g int, handling text, counting text,
             temperature text, keep_apart text, keep_upright boolean, load_on_top_g int, lots boolean, serials boolean, shelf_life_days int, value bigint,
             picture text, hazard text, own_box boolean, service boolean, retired boolean)
      on conflict (sku) do update set name = excluded.name, unit = excluded.unit, length_mm = excluded.length_mm,
        width_mm = excluded.width_mm, height_mm = excluded.height_mm, weight_g = excluded.weight_g, handling = excluded.handling, counting = excluded.counting,
        temperature = excluded.temperature, apart = excluded.apart, keep_upright = excluded.keep_upright, max_load_g = excluded.max_load_g, tracks_lot = excluded.tracks_lot,
        tracks_serial = excluded.tracks_serial, shelf_life_days = excluded.shelf_life_days, value_minor = excluded.value_minor, picture = excluded.picture,
        hazard = excluded.hazard, own_box = excluded.own_box, service = excluded.service, retired = excluded.retired
      returning id, sku`,
    );
    const idOf = new Map(written.map((w) => [w.sku, w.id]));
    const packs = list.flatMap((r) =>
      levels.flatMap(([level, column]) => {
        const units = level === 'unit' ? 1 : r[`${level}_units`];
        return units ? [{ item: idOf.get(String(r['item']))!, level, gtin: r[column] ?? null, units }] : [];
      }),
    );
    await tx.execute(
      sql`delete from item_pack where item_id in (select jsonb_array_elements_text(${recordset([...idOf.values()])}))`,
    );
    await tx.execute(sql`
      insert into item_pack (gtin, item_id, level, units)
      select coalesce(nullif(r.gtin, ''), ${UNREAD} || r.item || '-' || r.level), r.item, r.level, r.units
      from jsonb_to_recordset(${recordset(packs)}) as r(gtin text, item text, level text, units int)`);
  },
};

/** Stock is told by what lies in a bin; what differs is booked as a movement, never written over. */
export const stock: Kind = {
  read: (on, site, list) =>
    rows<Row>(
      on,
      only(
        sql`select p.code as bin, i.sku as item, b.lot, b.serial, b.units, l.best_before::text as best_before, false as retired
          from balance b join place p on p.id = b.place_id and p.kind = 'bin' and p.site_id = ${site} join item i on i.id = b.item_id
          left join lot l on l.item_id = b.item_id and l.lot = b.lot order by p.code, i.sku, b.lot, b.serial`,
        'bin',
        list,
      ),
    ),
  async faults(on, site, list) {
    const pick = (name: string) => recordset([...new Set(list.map((r) => r.values[name]))]);
    const found = new Map(
      (
        await rows<{ sku: string; lots: boolean; serials: boolean; latest: string | null; days: number }>(
          on,
          sql`select sku, tracks_lot as lots, tracks_serial as serials, shelf_life_days as days,
                     (current_date + shelf_life_days)::text as latest from item
              where not retired and sku in (select jsonb_array_elements_text(${pick('item')}))`,
        )
      ).map((i) => [i.sku, i]),
    );
    const there = new Set(
      (
        await rows<{ code: string }>(
          on,
          sql`select code from place where site_id = ${site} and kind = 'bin' and not retired
              and code in (select jsonb_array_elements_text(${pick('bin')}))`,
        )
      ).map((b) => b.code),
    );
    const promised = new Map(
      (
        await rows<{ key: string; bin: number; units: number }>(
          on,
          sql`select p.code || ' ' || i.sku || ' ' || k.lot as key, sum(k.units - k.picked)::int as units from pick k
              join place p on p.id = k.bin_id and p.site_id = ${site} join item i on i.id = k.item_id where k.state = 'open' group by 1`,
        )
      ).map((p) => [p.key, p.units]),
    );
    const serials = new Set<string>();
    return faultsOf(list, (r, fail) => {
      if (!there.has(String(r['bin']))) fail('bin', 'a-known', { what: 'bins' });
      const item = found.get(String(r['item']));
      if (!item) return fail('item', 'a-known', { what: 'items' });
      if (item.lots && !r['lot']) fail('lot', 'a-value');
      if (!item.lots && r['lot']) fail('lot', 'not-with', { what: 'lots' });
      // Made today at the latest, nothing keeps longer than its shelf life.
      if (item.latest && String(r['best_before'] ?? '') > item.latest)
        fail('best_before', 'within-life', { days: item.days });
      if (item.serials && !r['serial']) fail('serial', 'a-value');
      if (!item.serials && r['serial']) fail('serial', 'not-with', { what: 'serials' });
      if (r['serial'] && Number(r['units']) > 1) fail('units', 'a-number-from', { least: 0, most: 1 });
      const serial = `${String(r['item'])} ${String(r['serial'])}`;
      if (r['serial'] && Number(r['units']) === 1) {
        if (serials.has(serial)) fail('serial', 'once', { first: String(r['item']) });
        serials.add(serial);
      }
      const open = promised.get(`${String(r['bin'])} ${String(r['item'])} ${String(r['lot'])}`) ?? 0;
      if (!item.serials && Number(r['units']) < open) fail('units', 'a-number-from', { least: open, most: 10_000_000 });
    });
  },
  refusesRetiring: nothing,
  async write(change: Change, list) {
    const { tx, actor } = change;
    const lots = list.filter((r) => r['lot']).map((r) => ({ ...r, retired: undefined }));
    await tx.execute(sql`
      insert into lot (item_id, lot, best_before)
      select i.id, r.lot, max(r.best_before) from jsonb_to_recordset(${recordset(lots)}) as r(item text, lot text, best_before date)
      join item i on i.sku = r.item group by 1, 2
      on conflict (item_id, lot) do update set best_before = coalesce(excluded.best_before, lot.best_before)`);
    // A row that is retired is one that is no longer there: nothing lies in that bin of it.
    const wanted = list.map((r) => ({ ...r, units: r['retired'] === true ? 0 : r['units'] }));
    const differences = await rows<{ bin: string; item: string; lot: string; serial: string; units: number }>(
      tx,
      sql`select p.id as bin, i.id as item, r.lot, r.serial, (r.units - coalesce(b.units, 0))::int as units
          from jsonb_to_recordset(${recordset(wanted)}) as r(bin text, item text, lot text, serial text, units int)
          join place p on p.site_id = ${actor.siteId} and p.kind = 'bin' and p.code = r.bin join item i on i.sku = r.item
          left join balance b on b.place_id = p.id and b.item_id = i.id and b.lot = r.lot and b.serial = r.serial
          where r.units <> coalesce(b.units, 0)`,
    );
    const outside = outsideOf(actor.siteId);
    const moves = differences.map(({ bin, item, lot, serial, units }): Move =>
      units > 0
        ? { from: outside, to: bin, item, lot, serial, units }
        : { from: bin, to: outside, item, lot, serial, units: -units },
    );
    // Takings first: a serial number that stands in another bin now leaves the old one before it arrives.
    await move(change, moves, 'stock told', 'setup');
    change.publish('stock', []);
    change.publish('orders', []);
  },
};
