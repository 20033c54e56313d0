import { sql } from 'drizzle-orm';
import type { Row } from '@hand-relay/core/reading/sheets';
import { recordset, rows } from '../../../platform/index.ts';
import { faultsOf, nothing, type Kind } from './kind.ts';
import { customers, items, known } from './known.ts';

/** What is on its way to the site, by the document that tells of it. */
export const supply: Kind = {
  read: (on, site) =>
    rows<Row>(
      on,
      sql`select e.reference, i.sku as item, e.due::text as due, e.units, e.source, e.retired
          from expected_supply e join item i on i.id = e.item_id where e.site_id = ${site} order by e.due, e.reference, i.sku`,
    ),
  async faults(on, _site, list) {
    const there = await known(on, items, 'item', list);
    return faultsOf(list, (r, fail) => {
      if (!there.has(String(r['item']))) fail('item', 'a-known', { what: 'items' });
    });
  },
  refusesRetiring: nothing,
  async write(change, list) {
    const { tx, actor } = change;
    await tx.execute(sql`
      insert into expected_supply (site_id, reference, item_id, due, units, source, retired)
      select ${actor.siteId}, r.reference, i.id, r.due, r.units, r.source, r.retired
      from jsonb_to_recordset(${recordset(list.map((r) => ({ ...r, retired: r['retired'] ?? false })))})
        as r(reference text, item text, due date, units int, source text, retired boolean)
      join item i on i.sku = r.item
      on conflict (site_id, reference, item_id, due) do update set units = excluded.units, source = excluded.source,
        retired = excluded.retired`);
    change.publish('stock', []);
  },
};

/** How long goods must keep for a customer, item by item. */
export const shelf: Kind = {
  read: (on) =>
    rows<Row>(
      on,
      sql`select c.number as customer, i.sku as item, w.days as min_shelf_days, w.retired
          from minimum_shelf_life w join customer c on c.id = w.customer_id join item i on i.id = w.item_id order by c.number, i.sku`,
    ),
  async faults(on, _site, list) {
    const itemsThere = await known(on, items, 'item', list);
    const customersThere = await known(on, customers, 'customer', list);
    return faultsOf(list, (r, fail) => {
      if (!itemsThere.has(String(r['item']))) fail('item', 'a-known', { what: 'items' });
      if (!customersThere.has(String(r['customer']))) fail('customer', 'a-known', { what: 'customers' });
    });
  },
  refusesRetiring: nothing,
  async write(change, list) {
    await change.tx.execute(sql`
      insert into minimum_shelf_life (customer_id, item_id, days, retired)
      select c.id, i.id, r.min_shelf_days, r.retired
      from jsonb_to_recordset(${recordset(list.map((r) => ({ ...r, retired: r['retired'] ?? false })))})
        as r(customer text, item text, min_shelf_days int, retired boolean)
      join item i on i.sku = r.item join customer c on c.number = r.customer
      on conflict (customer_id, item_id) do update set days = excluded.days, retired = excluded.retired`);
    change.publish('orders', []);
  },
};
