import { sql } from 'drizzle-orm';
import { isScaleAddress } from '@hand-relay/core/handling/weighing';
import type { Floor } from '@hand-relay/core/walking/floor';
import type { Row } from '@hand-relay/core/reading/sheets';
import { recordset, rows, type Change, type Db, type Tx } from '../../../platform/index.ts';
import { faultsOf, nothing, only, type Kind } from './kind.ts';
import { known as listed } from './known.ts';

const known = async (on: Db | Tx, statement: ReturnType<typeof sql>) =>
  new Set((await rows<{ code: string }>(on, statement)).map((r) => r.code));

export const zones: Kind = {
  read: (on, site) =>
    rows<Row>(
      on,
      sql`select code as zone, name, temperature, locked, area, retired from zone where site_id = ${site} order by code`,
    ),
  faults: nothing,
  refusesRetiring: async (on, site, list) => {
    const used = await known(
      on,
      sql`select distinct z.code from zone z join place p on p.zone_id = z.id and not p.retired where z.site_id = ${site}`,
    );
    return list.flatMap((r, i) =>
      used.has(String(r['zone']))
        ? [{ row: i + 1, column: 'zone', value: String(r['zone']), expected: 'nothing-there' as const }]
        : [],
    );
  },
  async write({ tx, actor, newId }, list) {
    await tx.execute(sql`
      insert into zone (id, site_id, code, name, temperature, locked, area, retired)
      select r.id, ${actor.siteId}, r.zone, r.name, r.temperature, r.locked, coalesce(r.area, ''), r.retired
      from jsonb_to_recordset(${recordset(list.map((r) => ({ ...r, id: newId(), retired: r['retired'] ?? false })))})
        as r(id text, zone text, name text, temperature text, locked boolean, area text, retired boolean)
      on conflict (site_id, code) do update set name = excluded.name, temperature = excluded.temperature,
        locked = excluded.locked, area = excluded.area, retired = excluded.retired`);
  },
};

async function floorOf(on: Db | Tx, siteId: string): Promise<Floor> {
  const [site] = await rows<{ floor: Floor }>(on, sql`select floor from site where id = ${siteId}`);
  return site!.floor;
}

export const bins: Kind = {
  read: (on, site, list) =>
    rows<Row>(
      on,
      only(
        sql`select p.code as bin, coalesce(z.code, '') as zone, coalesce(p.aisle, '') as aisle,
                 a.x as aisle_x_m,
                 round(p.y::numeric * 100)::int as y_m, coalesce(p.side, 'left') as side, coalesce(p.level, 1) as level, p.bay, p.sequence as walk_number, p.blocked, coalesce(h.sku, '') as home, p.retired
          from place p left join item h on h.id = p.home_item_id left join zone z on z.id = p.zone_id
          left join (
            select a->>'id' as aisle, round((a->>'x')::numeric * 100)::int as x from site, jsonb_array_elements(floor->'aisles') a where site.id = ${site}
          ) a on a.aisle = p.aisle
          where p.site_id = ${site} and p.kind = 'bin' order by p.code`,
        'bin',
        list,
      ),
    ),
  async faults(on, site, list) {
    const there = await known(on, sql`select code from zone where site_id = ${site} and not retired`);
    const aisles = new Map((await floorOf(on, site)).aisles.map((a) => [a.id, Math.round(a.x * 100)]));
    const inFile = new Map<string, number>();
    const homes = list.map((r) => String(r.values['home'] ?? '')).filter(Boolean);
    const skus =
      homes.length === 0
        ? new Set<string>()
        : await known(
            on,
            sql`select sku as code from item where sku in (select jsonb_array_elements_text(${recordset(homes)}))`,
          );
    return faultsOf(list, (r, fail) => {
      if (r['home'] && !skus.has(String(r['home']))) fail('home', 'a-known', { what: 'items' });
      if (!there.has(String(r['zone']))) fail('zone', 'a-known', { what: 'zones' });
      const [aisle, x] = [String(r['aisle']), r['aisle_x_m']];
      if (x === null || x === undefined) {
        if (!aisles.has(aisle) && !inFile.has(aisle)) fail('aisle_x_m', 'a-value');
        return;
      }
      const before = inFile.get(aisle);
      if (before !== undefined && before !== x) fail('aisle_x_m', 'together', { before: before / 100 });
      inFile.set(aisle, Number(x));
    });
  },
  refusesRetiring: async (on, site, list) => {
    const holding = await known(
      on,
      sql`select p.code from place p where p.site_id = ${site} and p.kind = 'bin'
          and exists (select 1 from balance b where b.place_id = p.id)`,
    );
    return list.flatMap((r, i) =>
      holding.has(String(r['bin']))
        ? [{ row: i + 1, column: 'bin', value: String(r['bin']), expected: 'nothing-there' as const }]
        : [],
    );
  },
  async write({ tx, actor, newId }, list) {
    await tx.execute(sql`
      insert into place (id, site_id, kind, code, zone_id, aisle, y, side, level, bay, sequence, blocked, home_item_id, retired)
      select r.id, ${actor.siteId}, 'bin', r.bin, z.id, r.aisle, r.y_m / 100.0, r.side, r.level, r.bay, r.walk_number, r.blocked, h.id, r.retired
      from jsonb_to_recordset(${recordset(list.map((r) => ({ ...r, id: newId(), retired: r['retired'] ?? false })))})
        as r(id text, bin text, zone text, aisle text, y_m int, side text, level int, bay int, walk_number int, blocked text, home text, retired boolean)
      join zone z on z.site_id = ${actor.siteId} and z.code = r.zone left join item h on h.sku = r.home
      on conflict (site_id, kind, code) do update set zone_id = excluded.zone_id, aisle = excluded.aisle, y = excluded.y,
        side = excluded.side, level = excluded.level, bay = excluded.bay, sequence = excluded.sequence, blocked = excluded.blocked, home_item_id = excluded.home_item_id, retired = excluded.retired`);
    await writeFloor(tx, actor.siteId, list);
  },
};

/**
 * Brings the floor up to its bins: aisles that are new or stand elsewhere, cross aisles at both ends that bound every
 * bin, and no aisle of which the last bin is retired, unless work was done there or somebody drew more of it than a
 * line.
 */
async function writeFloor(tx: Tx, siteId: string, list: readonly Row[]): Promise<void> {
  const floor = await floorOf(tx, siteId);
  const aisles = new Map(floor.aisles.map((a) => [a.id, a]));
  for (const r of list)
    if (typeof r['aisle_x_m'] === 'number') {
      const id = String(r['aisle']);
      aisles.set(id, { ...aisles.get(id), id, x: r['aisle_x_m'] / 100 });
    }
  for (const aisle of await emptied(tx, siteId, list)) {
    const { from, to, oneWay } = aisles.get(aisle) ?? {};
    const drawn = floor.blocked?.some((b) => 'aisle' in b && b.aisle === aisle) ?? false;
    if (from === undefined && to === undefined && oneWay === undefined && !drawn) aisles.delete(aisle);
  }
  const [range] = await rows<{ low: number | null; high: number | null }>(
    tx,
    sql`select min(y) as low, max(y) as high from place where site_id = ${siteId} and kind = 'bin' and not retired`,
  );
  if (aisles.size === 0) {
    // The next floor begins with cross aisles of its own.
    const empty: Floor = { ...floor, aisles: [] };
    await tx.execute(sql`update site set floor = ${JSON.stringify(empty)}::jsonb where id = ${siteId}`);
    return;
  }
  const { low, high } = range!;
  if (low === null || high === null) return;
  const cross = floor.crossAisles.filter((y) => y >= low - 20 && y <= high + 20);
  if (cross.length === 0 || cross[0]! > low) cross.unshift(Math.min(0, Math.floor(low - 1)));
  if (cross.length === 1 || cross.at(-1)! < high) cross.push(Math.ceil(high + 1));
  const next: Floor = { ...floor, aisles: [...aisles.values()].sort((a, b) => a.x - b.x), crossAisles: cross };
  await tx.execute(sql`
    update site set floor = ${JSON.stringify(next)}::jsonb,
      start = case when start->>'aisle' in (select a->>'id' from jsonb_array_elements(${JSON.stringify(next)}::jsonb->'aisles') a)
                    and (start->>'y')::float8 between ${cross[0]!} and ${cross.at(-1)!}
              then start else ${JSON.stringify({ aisle: next.aisles[0]!.id, y: cross[0]! })}::jsonb end
    where id = ${siteId}`);
}

/** Aisles of retired rows in which no bin is in use any more, nothing was ever picked and no run ends. */
async function emptied(tx: Tx, siteId: string, list: readonly Row[]): Promise<string[]> {
  const retired = new Set(list.filter((r) => r['retired'] === true).map((r) => String(r['aisle'])));
  if (retired.size === 0) return [];
  const found = await rows<{ aisle: string }>(
    tx,
    sql`select a.aisle from jsonb_array_elements_text(${recordset([...retired])}) a(aisle)
        where not exists (
          select 1 from site s where s.id = ${siteId} and s.finish->>'aisle' = a.aisle
        ) and not exists (
          select 1 from place p where p.site_id = ${siteId} and p.kind = 'bin' and p.aisle = a.aisle
            and (not p.retired or exists (select 1 from pick k where k.bin_id = p.id)))`,
  );
  return found.map((f) => f.aisle);
}

export const places: Kind = {
  read: (on, site) =>
    rows<Row>(
      on,
      sql`select code as place, kind, name, round(x::numeric * 100)::int as x_m, round(y::numeric * 100)::int as y_m, fits, scale,
                 coalesce(for_carrier, '') as for_carrier, coalesce(for_zone, '') as for_zone, from_litres, retired from place where site_id = ${site} and kind in ('lane', 'bench', 'door') order by kind, code`,
    ),
  async faults(on, site, list) {
    const kinds = new Map(
      (
        await rows<{ code: string; kind: string }>(
          on,
          sql`select code, kind from place where site_id = ${site} and kind in ('lane', 'bench', 'door')`,
        )
      ).map((p) => [p.code, p.kind]),
    );
    const carriers = await listed(on, sql`select name from carrier`, 'for_carrier', list);
    const zones = await listed(
      on,
      sql`select code as name from zone where site_id = ${site} and not retired`,
      'for_zone',
      list,
    );
    return faultsOf(list, (r, fail) => {
      const kind = kinds.get(String(r['place']));
      if (kind && kind !== r['kind']) fail('kind', 'as-it-is', { is: kind });
      const [x, y] = [r['x_m'] ?? null, r['y_m'] ?? null];
      if ((x === null) !== (y === null)) fail(x === null ? 'x_m' : 'y_m', 'a-value');
      if (typeof r['fits'] === 'number' && r['kind'] === 'door') fail('fits', 'no-door');
      const notAtBench = r['kind'] !== 'bench' && (!kind || kind === r['kind']);
      for (const column of ['for_carrier', 'for_zone', 'from_litres'])
        if (r[column] && notAtBench) fail(column, 'benches-for');
      if (r['for_carrier'] && !carriers.has(String(r['for_carrier'])))
        fail('for_carrier', 'a-known', { what: 'carriers' });
      if (r['for_zone'] && !zones.has(String(r['for_zone']))) fail('for_zone', 'a-known', { what: 'zones' });
      const scale = String(r['scale'] ?? '');
      if (scale !== '' && notAtBench) fail('scale', 'benches-alone');
      else if (scale !== '' && !isScaleAddress(scale)) fail('scale', 'scale-address');
    });
  },
  refusesRetiring: nothing,
  async write(change: Change, list) {
    const { tx, actor, newId } = change;
    await tx.execute(sql`
      insert into place (id, site_id, kind, code, name, x, y, fits, scale, for_carrier, for_zone, from_litres, retired)
      select r.id, ${actor.siteId}, r.kind, r.place, coalesce(nullif(r.name, ''), r.place), r.x_m / 100.0, r.y_m / 100.0, r.fits, coalesce(r.scale, ''), nullif(r.for_carrier, ''), nullif(r.for_zone, ''), r.from_litres, r.retired
      from jsonb_to_recordset(${recordset(list.map((r) => ({ ...r, id: newId(), retired: r['retired'] ?? false })))})
        as r(id text, kind text, place text, name text, x_m int, y_m int, fits int, scale text, for_carrier text, for_zone text, from_litres int, retired boolean)
      on conflict (site_id, kind, code) do update set name = excluded.name, x = excluded.x, y = excluded.y, fits = excluded.fits, scale = excluded.scale,
        for_carrier = excluded.for_carrier, for_zone = excluded.for_zone, from_litres = excluded.from_litres, retired = excluded.retired`);
  },
};
