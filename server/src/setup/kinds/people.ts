import { sql } from 'drizzle-orm';
import { rightsOf, roles, type Role } from '@hand-relay/contract';
import type { Row } from '@hand-relay/core/sheets';
import { hashSecret } from '../../people/index.ts';
import { recordset, rows, type Db, type Tx } from '../../platform/index.ts';
import { faultsOf, type Kind } from './kind.ts';

export const carts: Kind = {
  read: (on, site) =>
    rows<Row>(
      on,
      sql`select c.code as cart, t.name as type, t.positions, t.max_weight_g, t.max_volume_cm3 as max_volume_l, c.retired
          from cart c join cart_type t on t.id = c.type_id where c.site_id = ${site} order by c.code`,
    ),
  faults: (_on, _site, list) => {
    const types = new Map<string, string>();
    return Promise.resolve(
      faultsOf(list, (r, fail) => {
        // What a type takes is told once; every cart of it says the same.
        const told = JSON.stringify([r['positions'], r['max_weight_g'], r['max_volume_l']]);
        const before = types.get(String(r['type']));
        if (before !== undefined && before !== told) fail('positions', 'together', { before: String(r['type']) });
        types.set(String(r['type']), told);
      }),
    );
  },
  keeps: async (on, site, list) => {
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
      insert into cart_type (id, name, positions, max_weight_g, max_volume_cm3)
      select distinct on (type) id, type, positions, max_weight_g, max_volume_l
      from jsonb_to_recordset(${data}) as r(id text, type text, positions int, max_weight_g int, max_volume_l int)
      on conflict (name) do update set positions = excluded.positions, max_weight_g = excluded.max_weight_g,
        max_volume_cm3 = excluded.max_volume_cm3`);
    await tx.execute(sql`
      insert into cart (site_id, code, type_id, retired)
      select ${actor.siteId}, r.cart, t.id, r.retired
      from jsonb_to_recordset(${data}) as r(cart text, type text, retired boolean) join cart_type t on t.name = r.type
      on conflict (site_id, code) do update set type_id = excluded.type_id, retired = excluded.retired`);
  },
};

const rolesIn = (row: Row): string[] =>
  String(row['roles'])
    .toLowerCase()
    .split(/[\s,;]+/)
    .filter(Boolean);

const maySetUp = (row: Row) => rolesIn(row).some((role) => rightsOf[role as Role]?.includes('setup.change'));

/** Active people of a site who may set it up, other than those named: without any, nobody could mend anything. */
async function othersWhoSetUp(on: Db | Tx, siteId: string, except: readonly Row[]): Promise<number> {
  const named = new Set(except.map((r) => r['person']));
  const there = await people.read(on, siteId);
  return there.filter((r) => r['retired'] !== true && !named.has(r['person'] ?? '') && maySetUp(r)).length;
}

export const people: Kind = {
  read: (on, site) =>
    rows<Row>(
      on,
      sql`select id as person, name, array_to_string(roles, ' ') as roles, coalesce(login, '') as login, coalesce(badge, '') as badge,
                 '' as password, '' as pin, not active as retired from person where site_id = ${site} order by name`,
    ),
  async faults(on, site, list) {
    const others = await rows<{
      id: string;
      login: string | null;
      badge: string | null;
      site: string;
      secret: boolean;
    }>(
      on,
      sql`select id, login, badge, site_id as site, coalesce(password_hash, pin_hash) is not null as secret from person`,
    );
    const logins = new Map(others.flatMap((o) => (o.login ? [[o.login, o.id]] : [])));
    const badges = new Map(others.flatMap((o) => (o.badge ? [[o.badge, o.id]] : [])));
    const known = new Map(others.map((o) => [o.id, o]));
    const nobodyElse =
      (await othersWhoSetUp(
        on,
        site,
        list.map((o) => o.values),
      )) === 0;
    return faultsOf(list, (r, fail) => {
      const id = String(r['person']);
      if (known.has(id) && known.get(id)!.site !== site) fail('person', 'once', { first: id });
      const wanted = rolesIn(r);
      if (wanted.length === 0 || wanted.some((w) => !(roles as readonly string[]).includes(w)))
        fail('roles', 'one-of', { of: roles.join(', ') });
      const login = String(r['login']).toLowerCase();
      const badge = String(r['badge']);
      if (!login && !badge) fail('badge', 'a-value');
      for (const [column, value, taken] of [
        ['login', login, logins],
        ['badge', badge, badges],
      ] as const) {
        if (!value) continue;
        const owner = taken.get(value);
        if (owner !== undefined && owner !== id) fail(column, 'once', { first: owner });
        taken.set(value, id);
      }
      if (r['pin'] && !/^\d{4,8}$/.test(String(r['pin']))) fail('pin', 'a-pin');
      if (r['password'] && String(r['password']).length < 8) fail('password', 'a-password');
      if (nobodyElse && known.has(id) && !maySetUp(r) && !list.some((o) => maySetUp(o.values)))
        fail('roles', 'a-supervisor');
    });
  },
  keeps: async (on, site, list) =>
    (await othersWhoSetUp(on, site, list)) > 0
      ? []
      : list.flatMap((r, i) =>
          maySetUp(r)
            ? [{ row: i + 1, column: 'person', value: String(r['person']), expected: 'a-supervisor' as const }]
            : [],
        ),
  async write({ tx, actor }, list) {
    const data = await Promise.all(
      list.map(async (r) => ({
        person: r['person'],
        name: r['name'],
        roles: rolesIn(r),
        login: String(r['login'] ?? '').toLowerCase() || null,
        badge: r['badge'] || null,
        password: r['password'] ? await hashSecret(String(r['password'])) : null,
        pin: r['pin'] ? await hashSecret(String(r['pin'])) : null,
        active: r['retired'] !== true,
      })),
    );
    await tx.execute(sql`
      insert into person (id, site_id, name, login, badge, password_hash, pin_hash, roles, active)
      select r.person, ${actor.siteId}, r.name, r.login, r.badge, r.password, r.pin, array(select jsonb_array_elements_text(r.roles)), r.active
      from jsonb_to_recordset(${recordset(data)}) as r(person text, name text, login text, badge text, password text, pin text, roles jsonb, active boolean)
      on conflict (id) do update set name = excluded.name, login = excluded.login, badge = excluded.badge, roles = excluded.roles,
        active = excluded.active, password_hash = coalesce(excluded.password_hash, person.password_hash),
        pin_hash = coalesce(excluded.pin_hash, person.pin_hash)`);
    await tx.execute(sql`
      delete from session where person_id in (
        select r.person from jsonb_to_recordset(${recordset(data)}) as r(person text, active boolean, password text, pin text)
        where not r.active or r.password is not null or r.pin is not null) and person_id <> ${actor.personId}`);
  },
};
