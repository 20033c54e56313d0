import { sql, type SQL } from 'drizzle-orm';
import type { CustomerChoice, ItemChoice } from '@hand-relay/contract';
import { match, recordset, rows, type Db, type Tx } from '../../platform/index.ts';
import { freeStock } from '../../stock/index.ts';

/** So many are offered; who looks for others types more of the name. */
const OFFERED = 20;

/** Customers by a part of number, name or city; without one, those who ordered last. */
export async function customerChoices(db: Db, siteId: string, find: string): Promise<{ customers: CustomerChoice[] }> {
  const columns = sql`c.number, c.name, c.class, c.street, c.postcode, c.city, c.country`;
  const m = match(find, ['c.number', 'c.name', 'c.city']);
  return {
    customers: await rows<CustomerChoice>(
      db,
      m.key === ''
        ? sql`select ${columns} from customer c join (
                select customer_id, max(created_at) as at from (
                  select customer_id, created_at from customer_order where site_id = ${siteId} and status = 'open' order by created_at desc limit 500) o
                group by 1) l on l.customer_id = c.id
              where not c.retired order by l.at desc, c.number limit ${OFFERED}`
        : sql`select ${columns} from customer c where not c.retired and ${m.is} order by ${m.rank}, c.name limit ${OFFERED}`,
    ),
  };
}

/** What a form must know of items, `found` being those items. */
const itemsIn = (db: Db | Tx, siteId: string, found: SQL, order: SQL) =>
  rows<ItemChoice>(
    db,
    sql`
    select i.id, i.sku, i.name, i.unit, i.picture, i.service,
           coalesce((select jsonb_object_agg(p.level, p.units) from item_pack p where p.item_id = i.id), '{}'::jsonb) as packs,
           case when i.service then null else coalesce((
             select sum(greatest(f.units, 0)) from (${freeStock(siteId, false)}) f where f.item_id = i.id), 0)::int end as free
    from (${found}) i order by ${order}`,
  );

/** Items and services by a part of number, name or GTIN. */
export async function itemChoices(db: Db, siteId: string, find: string): Promise<{ items: ItemChoice[] }> {
  const m = match(find, ['i.sku', 'i.name']);
  if (m.key === '') return { items: [] };
  const packs = match(find, ['p.gtin']);
  const found = sql`
    select i.* from item i where not i.retired
      and (${m.is} or i.id in (select p.item_id from item_pack p where ${packs.same}))
    order by ${m.rank}, i.name limit ${OFFERED}`;
  return { items: await itemsIn(db, siteId, found, sql`${m.rank}, i.name`) };
}

/** Items by their numbers. */
export const itemsOf = (db: Db | Tx, siteId: string, skus: readonly string[]): Promise<ItemChoice[]> =>
  itemsIn(
    db,
    siteId,
    sql`select * from item where sku in (select jsonb_array_elements_text(${recordset(skus)}))`,
    sql`i.sku`,
  );
