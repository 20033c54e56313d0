import { sql } from 'drizzle-orm';
import { lookAlikes, type Goods } from '@hand-relay/core/handling/lookalikes';
import { anyOf, recordset, rows, type Change } from '../../platform/index.ts';

/** Metres along an aisle within which goods lie beside one another. */
const BESIDE = 1.5;
/** Days for which errors that scans caught are remembered. */
const REMEMBERED = 90;

interface Beside {
  pick: string;
  item: string;
  other: string;
  bin: string;
}

/**
 * Keeps with the picks of a run which goods, lying beside or caught before in their place, are easily taken for those
 * asked. Done once when the run is taken, so that scans need not ask.
 */
export async function noteLookAlikes({ tx, actor, now }: Change, run: string): Promise<void> {
  const since = new Date(now.getTime() - REMEMBERED * 86_400_000).toISOString();
  const beside = await rows<Beside>(
    tx,
    sql`
    select k.id as pick, k.item_id as item, b.item_id as other, min(n.code) as bin from pick k join place p on p.id = k.bin_id
    join place n on n.site_id = p.site_id and n.kind = 'bin' and n.aisle = p.aisle and abs(n.y - p.y) <= ${BESIDE}::float8
    join balance b on b.place_id = n.id and b.item_id <> k.item_id and b.units > 0
    where k.run_id = ${run} and k.state = 'open' group by 1, 2, 3`,
  );
  const caught = await rows<{ pick: string; item: string; other: string; n: number }>(
    tx,
    sql`
    select k.id as pick, k.item_id as item, p.item_id as other, count(*)::int as n from pick k join item i on i.id = k.item_id
    join journal j on j.site_id = ${actor.siteId} and j.kind = 'scan-refused' and j.at > ${since} and j.facts->>'code' = 'wrong-item' and j.facts->>'item' = i.name
    join item_pack p on p.gtin = j.facts->>'got' and p.item_id <> k.item_id
    where k.run_id = ${run} and k.state = 'open' group by 1, 2, 3`,
  );
  const ids = [...new Set([...beside, ...caught].flatMap((b) => [b.item, b.other]))];
  const goods = new Map(
    (
      await rows<Goods & { sku: string }>(
        tx,
        sql`select i.id, i.sku, i.name, i.picture, jsonb_build_array(i.length_mm, i.width_mm, i.height_mm) as "sizeMm",
                   (select coalesce(jsonb_agg(p.gtin), '[]') from item_pack p where p.item_id = i.id) as gtins
            from item i where i.id = ${anyOf(ids)}`,
      )
    ).map((g) => [g.id, g]),
  );
  const picks = new Map<string, { item: string; others: Set<string> }>();
  for (const { pick, item, other } of [...beside, ...caught]) {
    const known = picks.get(pick) ?? { item, others: new Set() };
    known.others.add(other);
    picks.set(pick, known);
  }
  const found = [...picks].flatMap(([pick, { item, others }]) => {
    const errors = (other: string) => caught.find((c) => c.pick === pick && c.other === other)?.n ?? 0;
    const [likest] = lookAlikes(
      goods.get(item)!,
      [...others].map((o) => goods.get(o)!),
      errors,
    );
    if (!likest) return [];
    const { sku, name } = goods.get(likest.item)!;
    const bin = beside.find((b) => b.pick === pick && b.other === likest.item)?.bin ?? '';
    return [{ pick, alike: { sku, name, bin, this: likest.this, other: likest.other } }];
  });
  await tx.execute(sql`
    update pick k set look_alike = f.alike from jsonb_to_recordset(${recordset(found)}) as f(pick text, alike jsonb) where k.id = f.pick`);
}
