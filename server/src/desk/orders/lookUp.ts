import { sql } from 'drizzle-orm';
import type { DraftedOrder, Known, KnownItem } from '@hand-relay/core/reading/intake';
import { gtin14 } from '@hand-relay/core/reading/gs1';
import { recordset, rows, type Db, type Tx } from '../../platform/index.ts';

const distinct = (texts: Iterable<string>) => [...new Set(texts)];

/** What the house knows of what drafts name: customers by number or by a name that one has, items by number or barcode. */
export async function knownOf(on: Db | Tx, siteId: string, drafted: readonly DraftedOrder[]): Promise<Known> {
  const sites = await rows<{ code: string }>(on, sql`select code from site where id <> ${siteId}`);
  const channels = await rows<{ code: string }>(on, sql`select code from channel where not retired`);
  return {
    items: await itemsOf(on, distinct(drafted.flatMap((o) => o.draft.lines.map((l) => l.sku)))),
    customers: await customersOf(on, distinct(drafted.map((o) => o.draft.customer))),
    channels: new Set(channels.map((c) => c.code)),
    sites: new Set(sites.map((s) => s.code)),
  };
}

async function itemsOf(on: Db | Tx, names: readonly string[]): Promise<Map<string, KnownItem>> {
  const codes = names.flatMap((name) => {
    const gtin = /^\d{8,14}$/.test(name) ? gtin14(name) : undefined;
    return gtin ? [{ name, gtin }] : [];
  });
  const found = await rows<Omit<KnownItem, 'packs'> & { name: string; packs: KnownItem['packs'] | null }>(
    on,
    sql`with named as (
          select i.id, i.sku as name, null as level from item i
          where not i.retired and i.sku in (select jsonb_array_elements_text(${recordset(names)}))
          union all
          select p.item_id, c.name, p.level from jsonb_to_recordset(${recordset(codes)}) as c(name text, gtin text)
          join item_pack p on p.gtin = c.gtin join item i on i.id = p.item_id and not i.retired
        )
        select n.name, n.level, i.id, i.sku, i.service,
               (select jsonb_object_agg(p.level, p.units) from item_pack p where p.item_id = i.id) as packs
        from named n join item i on i.id = n.id order by n.level is null`,
  );
  // An item's own number stands above a barcode that reads alike.
  return new Map(found.map(({ name, packs, ...item }) => [name, { ...item, packs: packs ?? {} }]));
}

async function customersOf(on: Db | Tx, names: readonly string[]): Promise<Known['customers']> {
  const found = await rows<
    { asked: string; number: string } & Record<'name' | 'street' | 'postcode' | 'city' | 'country', string>
  >(
    on,
    sql`with asked as (select jsonb_array_elements_text(${recordset(names)}) as name), numbered as (
          select a.name as asked, c.id from asked a join customer c on c.number = a.name where not c.retired
        ), named as (
          select a.name as asked, min(c.id) as id from asked a join customer c on lower(c.name) = lower(a.name)
          where not c.retired and a.name not in (select asked from numbered) group by a.name having count(*) = 1
        )
        select f.asked, c.number, c.name, c.street, c.postcode, c.city, c.country
        from (select * from numbered union all select * from named) f join customer c on c.id = f.id`,
  );
  return new Map(found.map(({ asked, number, ...address }) => [asked, { number, address }]));
}
