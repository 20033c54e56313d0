import { sql } from 'drizzle-orm';
import type { Row } from '@hand-relay/core/reading/sheets';
import { recordset, rows } from '../../../platform/index.ts';
import { faultsOf, nothing, type Kind } from './kind.ts';
import { customers, items, known } from './known.ts';

const cartonTypes = sql`select code as name from carton_type where not retired`;

/** How many units of an item the site packs into a carton and onto a pallet, for whom and where to. */
export const packrules: Kind = {
  read: (on, site) =>
    rows<Row>(
      on,
      sql`select i.sku as item, coalesce(c.number, '') as customer, r.country, r.per_carton, coalesce(t.code, '') as carton, r.per_pallet, r.retired
          from pack_rule r join item i on i.id = r.item_id left join customer c on c.id = r.customer_id left join carton_type t on t.id = r.type_id
          where r.site_id = ${site} order by i.sku, c.number nulls first, r.country`,
    ),
  async faults(on, _site, list) {
    const there = {
      item: await known(on, items, 'item', list),
      customer: await known(on, customers, 'customer', list),
      carton: await known(on, cartonTypes, 'carton', list),
    };
    return faultsOf(list, (r, fail) => {
      for (const column of ['item', 'customer', 'carton'] as const)
        if (r[column] && !there[column].has(String(r[column]))) fail(column, 'a-known', { what: `${column}s` });
      const [carton, pallet] = [Number(r['per_carton']), r['per_pallet']];
      if (typeof pallet === 'number' && pallet % carton !== 0) fail('per_pallet', 'whole-cartons', { units: carton });
    });
  },
  refusesRetiring: nothing,
  async write(change, list) {
    await change.tx.execute(sql`
      insert into pack_rule (site_id, item_id, customer_id, country, type_id, per_carton, per_pallet, retired)
      select ${change.actor.siteId}, i.id, c.id, r.country, t.id, r.per_carton, r.per_pallet, coalesce(r.retired, false)
      from jsonb_to_recordset(${recordset([...list])})
        as r(item text, customer text, country text, carton text, per_carton int, per_pallet int, retired boolean)
      join item i on i.sku = r.item left join customer c on c.number = r.customer left join carton_type t on t.code = r.carton
      on conflict (site_id, item_id, coalesce(customer_id, ''), country) do update set type_id = excluded.type_id,
        per_carton = excluded.per_carton, per_pallet = excluded.per_pallet, retired = excluded.retired`);
    change.publish('bench', []);
  },
};
