import { sql } from 'drizzle-orm';
import type { Right } from '@hand-relay/contract';
import type { Row, SheetError } from '@hand-relay/core/reading/sheets';
import { recordset, rows, type Actor, type Db, type Tx } from '../../../platform/index.ts';

/** A row of people or roles as it is to be, with its place in the list. */
export interface Wanted {
  row: number;
  values: Row;
}

/** What somebody holds: their rights by site, over all their active memberships. */
type Holdings = ReadonlyMap<string, ReadonlySet<string>>;

interface Known {
  id: string;
  name: string;
  login: string | null;
  badge: string | null;
  /** Sites where they work. */
  sites: string[];
  holds: Holdings;
}

/** Rights of the roles of a site, by name; a retired role gives none. */
async function rightsOfRoles(on: Db | Tx, siteId: string): Promise<Map<string, string[]>> {
  const found = await rows<{ name: string; rights: string[]; retired: boolean }>(
    on,
    sql`select name, rights, retired from role where site_id = ${siteId}`,
  );
  return new Map(found.map((r) => [r.name, r.retired ? [] : r.rights]));
}

/** People by id, with what they hold everywhere. */
async function peopleKnown(on: Db | Tx, ids: readonly string[]): Promise<Map<string, Known>> {
  const found = await rows<{
    id: string;
    name: string;
    login: string | null;
    badge: string | null;
    site: string | null;
    rights: string[] | null;
  }>(
    on,
    sql`select p.id, p.name, p.login, p.badge, m.site_id as site, (
               select array_agg(distinct g) from role r, unnest(r.rights) g
               where r.site_id = m.site_id and r.name = any(m.roles) and not r.retired) as rights
        from person p left join membership m on m.person_id = p.id and m.active
        where p.id in (select jsonb_array_elements_text(${recordset(ids)}))`,
  );
  const known = new Map<string, Known>();
  for (const { id, name, login, badge } of found)
    known.set(id, { id, name, login, badge, sites: [], holds: new Map() });
  for (const { id, site, rights } of found) {
    if (site === null) continue;
    const person = known.get(id)!;
    person.sites.push(site);
    (person.holds as Map<string, ReadonlySet<string>>).set(site, new Set(rights ?? []));
  }
  return known;
}

const within = (wanted: Iterable<string>, held: ReadonlySet<string>) => [...wanted].every((right) => held.has(right));

/** Whether one person holds, at each site, all that another holds there. */
const outranks = (actor: Holdings, other: Holdings) =>
  [...other].every(([site, rights]) => within(rights, actor.get(site) ?? new Set()));

/** Roles as a row lists them. */
export const rolesIn = (row: Row): string[] =>
  String(row['roles'])
    .toLowerCase()
    .split(/[\s,;]+/)
    .filter(Boolean);

/**
 * What an actor may not do to people, whatever the sheet says: nobody gives roles, or changes a person or a secret,
 * beyond what they hold themselves; and who works at other sites too is changed by whoever has the house's people.
 */
export async function peopleBeyond(on: Db | Tx, actor: Actor, list: readonly Wanted[]): Promise<SheetError[]> {
  const roles = await rightsOfRoles(on, actor.siteId);
  const known = await peopleKnown(on, [actor.personId, ...list.map((r) => String(r.values['person']))]);
  const own: Holdings = new Map([...(known.get(actor.personId)?.holds ?? []), [actor.siteId, actor.rights]]);
  return list.flatMap(({ row, values }): SheetError[] => {
    const id = String(values['person']);
    const person = known.get(id);
    const wanted = rolesIn(values).flatMap((role) => roles.get(role) ?? []);
    const fail = (column: string, expected: SheetError['expected']): SheetError[] => [
      { row, column, value: String(values[column] ?? ''), expected },
    ];
    if (!within(wanted, actor.rights)) return fail('roles', 'within-own-rights');
    if (!person) return [];
    const here = person.holds.get(actor.siteId) ?? new Set();
    if (!within(here, actor.rights)) return fail('person', 'within-own-rights');
    const same = (column: string, there: string | null) => String(values[column] ?? '') === (there ?? '');
    const itself =
      Boolean(values['password']) ||
      Boolean(values['pin']) ||
      !same('name', person.name) ||
      String(values['login'] ?? '').toLowerCase() !== (person.login ?? '') ||
      !same('badge', person.badge);
    const elsewhere = person.sites.some((site) => site !== actor.siteId);
    const joins = elsewhere && !person.sites.includes(actor.siteId);
    if (id === actor.personId || (!itself && !joins)) return [];
    if (elsewhere && !actor.rights.has('house.people')) return fail('person', 'of-this-site-alone');
    return outranks(own, person.holds) ? [] : fail('person', 'within-own-rights');
  });
}

/** Roles that an actor may not make or change: those that hold, before or after, more than they hold themselves. */
export async function rolesBeyond(
  on: Db | Tx,
  actor: Actor,
  list: readonly Wanted[],
  rightsIn: (row: Row) => Right[],
): Promise<SheetError[]> {
  const there = await rightsOfRoles(on, actor.siteId);
  return list.flatMap(({ row, values }): SheetError[] => {
    const name = String(values['role']).toLowerCase();
    const touched = [...(there.get(name) ?? []), ...rightsIn(values)];
    if (within(touched, actor.rights)) return [];
    return [{ row, column: 'role', value: name, expected: 'within-own-rights' }];
  });
}
