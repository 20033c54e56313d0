import { sql } from 'drizzle-orm';
import type { Row } from '@hand-relay/core/reading/sheets';
import { recordset, rows } from '../../../platform/index.ts';
import { faultsOf, type Kind } from './kind.ts';

export const carts: Kind = {
  read: (on, site) =>
    rows<Row>(
      on,
      sql`select c.code as cart, t.name as type, t.positions, t.across, t.max_weight_g, t.max_volume_cm3 as max_volume_l, c.retired
          from cart c join cart_type t on t.id = c.type_id where c.site_id = ${site} order by c.code`,
    ),
  faults: (_on, _site, list) => {
    const types = new Map<string, string>();
    return Promise.resolve(
      faultsOf(list, (r, fail) => {
        // What a type takes is told once; every cart of it says the same.
        const layout = JSON.stringify([r['positions'], r['across'] ?? null, r['max_weight_g'], r['max_volume_l']]);
        const before = types.get(String(r['type']));
        if (before !== undefined && before !== layout) fail('positions', 'together', { before: String(r['type']) });
        types.set(String(r['type']), layout);
      }),
    );
  },
  // A type of cart is known by its name at every site: changing one that others use is a matter of the house.
  async beyond(on, actor, list) {
    if (actor.rights.has('house.items')) return [];
    const elsewhere = await rows<{
      name: string;
      positions: number;
      across: number | null;
      weight: number | null;
      volume: number | null;
    }>(
      on,
      sql`select t.name, t.positions, t.across, t.max_weight_g as weight, t.max_volume_cm3 as volume from cart_type t
          where exists (select 1 from cart c where c.type_id = t.id and c.site_id <> ${actor.siteId})`,
    );
    const types = new Map(elsewhere.map((t) => [t.name, JSON.stringify([t.positions, t.across, t.weight, t.volume])]));
    return list.flatMap(({ row, values: r }) => {
      const there = types.get(String(r['type']));
      const wanted = JSON.stringify([
        r['positions'],
        r['across'] ?? null,
        r['max_weight_g'] ?? null,
        r['max_volume_l'] ?? null,
      ]);
      return there === undefined || there === wanted
        ? []
        : [{ row, column: 'type', value: String(r['type']), expected: 'not-of-another-site' as const }];
    });
  },
  refusesRetiring: async (on, site, list) => {
    const used = new Set(
      (
        await rows<{ code: string }>(
          on,
          sql`select cart_code as code from run where site_id = ${site} and state in ('picking', 'left') and cart_code is not null`,
        )
      ).map((u) => u.code),
    );
    return list.flatMap((r, i) =>
      used.has(String(r['cart']))
        ? [{ row: i + 1, column: 'cart', value: String(r['cart']), expected: 'nothing-there' as const }]
        : [],
    );
  },
  async write({ tx, actor, newId }, list) {
    const data = recordset(list.map((r) => ({ ...r, id: newId(), retired: r['retired'] ?? false })));
    await tx.execute(sql`
      insert into cart_type (id, name, positions, across, max_weight_g, max_volume_cm3)
      select distinct on (type) id, type, positions, across, max_weight_g, max_volume_l
      from jsonb_to_recordset(${data}) as r(id text, type text, positions int, across int, max_weight_g int, max_volume_l int)
      on conflict (name) do update set positions = excluded.positions, across = excluded.across, max_weight_g = excluded.max_weight_g,
        max_volume_cm3 = excluded.max_volume_cm3`);
    await tx.execute(sql`
      insert into cart (site_id, code, type_id, retired)
      select ${actor.siteId}, r.cart, t.id, r.retired
      from jsonb_to_recordset(${data}) as r(cart text, type text, retired boolean) join cart_type t on t.name = r.type
      on conflict (site_id, code) do update set type_id = excluded.type_id, retired = excluded.retired`);
  },
};
