import { sql } from 'drizzle-orm';
import type { Right } from '@hand-relay/contract';
import type { Row } from '@hand-relay/core/reading/sheets';
import { hashSecret, journalAccounts, membersOf, type ChangedAccount } from '../../people/index.ts';
import { recordset, rows, type Change, type Db, type Tx } from '../../../platform/index.ts';
import { peopleBeyond, rolesBeyond, rolesIn } from './beyond.ts';
import { faultsOf, type Kind } from './kind.ts';

/** Roles of a site that may set it up. */
async function settingUp(on: Db | Tx, siteId: string): Promise<Set<string>> {
  const found = await rows<{ name: string }>(
    on,
    sql`select name from role where site_id = ${siteId} and not retired and 'setup.change' = any(rights)`,
  );
  return new Set(found.map((r) => r.name));
}

const holds = (row: Row, roles: ReadonlySet<string>) => rolesIn(row).some((role) => roles.has(role));

/** Active people of a site who may set it up, other than those named: without any, nobody could mend anything. */
async function othersWhoSetUp(
  on: Db | Tx,
  siteId: string,
  except: readonly Row[],
  roles: ReadonlySet<string>,
): Promise<number> {
  const named = new Set(except.map((r) => r['person']));
  const there = await people.read(on, siteId);
  return there.filter((r) => r['retired'] !== true && !named.has(r['person'] ?? '') && holds(r, roles)).length;
}

export const people: Kind = {
  read: (on, site) =>
    rows<Row>(
      on,
      sql`select p.id as person, p.name, array_to_string(m.roles, ' ') as roles, coalesce(p.login, '') as login, coalesce(p.badge, '') as badge,
                 '' as password, '' as pin, m.team, not m.active as retired
          from membership m join person p on p.id = m.person_id where m.site_id = ${site} order by p.name`,
    ),
  async faults(on, site, list) {
    const others = await rows<{
      id: string;
      login: string | null;
      badge: string | null;
    }>(on, sql`select id, login, badge from person`);
    const named = await rows<{ name: string }>(on, sql`select name from role where site_id = ${site} and not retired`);
    const roles = named.map((r) => r.name);
    const setUp = await settingUp(on, site);
    const logins = new Map(others.flatMap((o) => (o.login ? [[o.login, o.id]] : [])));
    const badges = new Map(others.flatMap((o) => (o.badge ? [[o.badge, o.id]] : [])));
    const known = new Set(others.map((o) => o.id));
    const nobodyElse =
      (await othersWhoSetUp(
        on,
        site,
        list.map((o) => o.values),
        setUp,
      )) === 0;
    return faultsOf(list, (r, fail) => {
      const id = String(r['person']);
      const wanted = rolesIn(r);
      if (wanted.length === 0 || wanted.some((w) => !roles.includes(w)))
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
      if (nobodyElse && known.has(id) && !holds(r, setUp) && !list.some((o) => holds(o.values, setUp)))
        fail('roles', 'a-supervisor');
    });
  },
  async refusesRetiring(on, site, list) {
    const setUp = await settingUp(on, site);
    if ((await othersWhoSetUp(on, site, list, setUp)) > 0) return [];
    return list.flatMap((r, i) =>
      holds(r, setUp)
        ? [{ row: i + 1, column: 'person', value: String(r['person']), expected: 'a-supervisor' as const }]
        : [],
    );
  },
  beyond: peopleBeyond,
  async write(change, list) {
    const { tx, actor } = change;
    journalAccounts(change, await changedAccounts(change, list));
    const data = await Promise.all(
      list.map(async (r) => ({
        person: r['person'],
        name: r['name'],
        roles: rolesIn(r),
        team: String(r['team'] ?? ''),
        login: String(r['login'] ?? '').toLowerCase() || null,
        badge: r['badge'] || null,
        password: r['password'] ? await hashSecret(String(r['password'])) : null,
        pin: r['pin'] ? await hashSecret(String(r['pin'])) : null,
        active: r['retired'] !== true,
      })),
    );
    await tx.execute(sql`
      with r as (
        select * from jsonb_to_recordset(${recordset(data)}) as r(person text, name text, login text, badge text, password text, pin text, roles jsonb, team text, active boolean)
      ), kept as (
        insert into person (id, site_id, name, login, badge, password_hash, pin_hash)
        select r.person, ${actor.siteId}, r.name, r.login, r.badge, r.password, r.pin from r
        on conflict (id) do update set name = excluded.name, login = excluded.login, badge = excluded.badge,
          password_hash = coalesce(excluded.password_hash, person.password_hash),
          pin_hash = coalesce(excluded.pin_hash, person.pin_hash)
        returning id
      )
      insert into membership (person_id, site_id, roles, team, active)
      select r.person, ${actor.siteId}, array(select jsonb_array_elements_text(r.roles)), r.team, r.active from r join kept on kept.id = r.person
      on conflict (person_id, site_id) do update set roles = excluded.roles, team = excluded.team, active = excluded.active`);
    await tx.execute(sql`
      delete from session where person_id in (
        select r.person from jsonb_to_recordset(${recordset(data)}) as r(person text, active boolean, password text, pin text)
        where not r.active or r.password is not null or r.pin is not null)
        and id <> ${actor.sessionId}`);
  },
};

/** What a write changes about each account, by the columns of the sheet. */
async function changedAccounts({ tx, actor }: Change, list: readonly Row[]): Promise<ChangedAccount[]> {
  const there = new Map((await people.read(tx, actor.siteId)).map((r) => [r['person'], r]));
  const text = (value: Row[string] | undefined) => String(value ?? '');
  return list.flatMap((r) => {
    const before = there.get(r['person'] ?? '');
    const what = before
      ? ['name', 'login', 'badge', 'roles', 'team', 'retired'].filter((column) =>
          column === 'login'
            ? text(r[column]).toLowerCase() !== text(before[column])
            : column === 'retired'
              ? (r[column] === true) !== (before[column] === true)
              : text(r[column]) !== text(before[column]),
        )
      : ['new'];
    what.push(...['password', 'pin'].filter((column) => Boolean(r[column])));
    return what.length > 0 ? [{ person: text(r['person']), name: text(r['name']), what }] : [];
  });
}

/** Column of the sheet of roles for each right. */
const rightColumns = {
  see_orders: 'orders.see',
  take_in_orders: 'orders.import',
  change_orders: 'orders.change',
  release: 'orders.release',
  reserve: 'orders.reserve',
  choose: 'orders.choose',
  cancel: 'orders.cancel',
  run_waves: 'waves.run',
  pick: 'runs.pick',
  pick_by_touch: 'runs.touch',
  arrange_runs: 'runs.arrange',
  pack: 'orders.pack',
  ship: 'shipments.confirm',
  see_trails: 'trail.see',
  set_up: 'setup.change',
  serve_printers: 'printers.serve',
  house_people: 'house.people',
  house_items: 'house.items',
  house_backups: 'house.backups',
  house_sites: 'house.sites',
} as const satisfies Record<string, Right>;

const columns = Object.entries(rightColumns);

const rightsIn = (row: Row): Right[] => columns.filter(([column]) => row[column] === true).map(([, right]) => right);

export const roles: Kind = {
  async read(on, site) {
    const found = await rows<{ name: string; rights: string[]; retired: boolean }>(
      on,
      sql`select name, rights, retired from role where site_id = ${site} order by name`,
    );
    return found.map(({ name, rights, retired }) => ({
      role: name,
      ...Object.fromEntries(columns.map(([column, right]) => [column, rights.includes(right)])),
      retired,
    }));
  },
  async faults(on, site, list) {
    const hasOne = await leavesSetUp(
      on,
      site,
      list.map((r) => r.values),
    );
    return faultsOf(list, (r, fail) => {
      if (/[\s,;]/.test(String(r['role']))) fail('role', 'one-word');
      if (!columns.some(([column]) => r[column] === true)) fail('role', 'a-right');
      if (!hasOne && r['set_up'] !== true) fail('set_up', 'a-supervisor');
    });
  },
  async refusesRetiring(on, site, list) {
    const used = await rows<{ name: string }>(
      on,
      sql`select distinct unnest(roles) as name from membership where site_id = ${site} and active`,
    );
    const names = new Set(used.map((u) => u.name));
    return list.flatMap((r, i) =>
      names.has(String(r['role']))
        ? [{ row: i + 1, column: 'role', value: String(r['role']), expected: 'nothing-there' as const }]
        : [],
    );
  },
  beyond: (on, actor, list) => rolesBeyond(on, actor, list, rightsIn),
  async write(change, list) {
    const { tx, actor } = change;
    const data = list.map((r) => ({
      name: String(r['role']).toLowerCase(),
      rights: rightsIn(r),
      retired: r['retired'] ?? false,
    }));
    const members = await membersOf(
      change,
      data.map((r) => r.name),
    );
    journalAccounts(
      change,
      data.flatMap(({ name: role }) =>
        members.flatMap((m) => (m.roles.includes(role) ? [{ person: m.id, name: m.name, what: ['role'], role }] : [])),
      ),
    );
    await tx.execute(sql`
      insert into role (site_id, name, rights, retired)
      select ${actor.siteId}, r.name, array(select jsonb_array_elements_text(r.rights)), r.retired
      from jsonb_to_recordset(${recordset(data)}) as r(name text, rights jsonb, retired boolean)
      on conflict (site_id, name) do update set rights = excluded.rights, retired = excluded.retired`);
  },
};

/** Whether somebody may still set the site up when these roles are as told. */
async function leavesSetUp(on: Db | Tx, siteId: string, rows: readonly Row[]): Promise<boolean> {
  const setUp = await settingUp(on, siteId);
  for (const r of rows) {
    if (r['set_up'] === true && r['retired'] !== true) setUp.add(String(r['role']));
    else setUp.delete(String(r['role']));
  }
  return (await people.read(on, siteId)).some((r) => r['retired'] !== true && holds(r, setUp));
}
