import { sql } from 'drizzle-orm';
import type { z } from 'zod';
import { firstHoldRules, firstRoles, type makeSiteBody, type Sites, type siteBody } from '@hand-relay/contract';
import { recordset, Refusal, rows, type Change, type Db, type Tx } from '../../platform/index.ts';

type Site = z.output<typeof siteBody>;

/** Sites that can number their units by one company prefix: SSCCs of a site begin with a digit of its own. */
const EXTENSIONS = 10;

/**
 * The digit with which the SSCCs of a site begin: one that no other site with its company prefix has, so that no number
 * is given twice.
 *
 * @throws Refusal 422 `malformed` at `gs1Prefix` where ten sites have it already
 */
export async function extensionFor(tx: Tx, prefix: string, siteId: string): Promise<number> {
  const used = new Set(
    (
      await rows<{ extension: number }>(
        tx,
        sql`select sscc_extension as extension from site where gs1_prefix = ${prefix} and id <> ${siteId}`,
      )
    ).map((s) => s.extension),
  );
  const [own] = await rows<{ extension: number }>(
    tx,
    sql`select sscc_extension as extension from site where id = ${siteId}`,
  );
  if (prefix === '' || (own && !used.has(own.extension))) return own?.extension ?? 0;
  const free = Array.from({ length: EXTENSIONS }, (_, digit) => digit).find((digit) => !used.has(digit));
  if (free === undefined)
    throw new Refusal('malformed', {}, [{ path: 'gs1Prefix', message: 'ten sites number their units by it already' }]);
  return free;
}

/** Makes a site with the places that every site has, and nothing else. */
export async function createSite(
  tx: Tx,
  { id, code, site, settings }: { id: string; code: string; site: Site; settings: object },
): Promise<void> {
  const extension = await extensionFor(tx, site.gs1Prefix, id);
  await tx.execute(sql`
    insert into site (id, code, name, street, city, country, time_zone, currency, gs1_prefix, sscc_extension, floor, start, settings)
    values (${id}, ${code}, ${site.name}, ${site.street}, ${site.city}, ${site.country}, ${site.timeZone}, ${site.currency}, ${site.gs1Prefix}, ${extension},
      '{"aisles": [], "crossAisles": []}', '{"aisle": "", "y": 0}', ${JSON.stringify(settings)}::jsonb)`);
  await tx.execute(sql`
    insert into place (id, site_id, kind, code, name) values
      (${`outside-${id}`}, ${id}, 'outside', 'OUTSIDE', 'Beyond the doors'),
      (${`inquiry-${id}`}, ${id}, 'discrepancy', 'TO-COUNT', 'Waits for a count')`);
}

/** Roles and hold rules with which a site begins that is like no other. */
export async function firstRules(tx: Tx, siteId: string, newId: () => string): Promise<void> {
  await tx.execute(sql`
    insert into role (site_id, name, rights)
    select ${siteId}, r.key, array(select jsonb_array_elements_text(r.value)) from jsonb_each(${JSON.stringify(firstRoles)}::jsonb) r`);
  await tx.execute(sql`
    insert into hold_rule (id, site_id, name, text, conditions, stops, lifters)
    select r.id, ${siteId}, r.name, r.text, r.conditions, array(select jsonb_array_elements_text(r.stops)), array(select jsonb_array_elements_text(r.lifters))
    from jsonb_to_recordset(${recordset(firstHoldRules.map((r) => ({ ...r, id: newId() })))})
      as r(id text, name text, text text, conditions jsonb, stops jsonb, lifters jsonb)`);
}

/** Roles and hold rules of another site. */
async function copyRules(tx: Tx, from: string, siteId: string, newId: () => string): Promise<void> {
  await tx.execute(sql`
    insert into role (site_id, name, rights) select ${siteId}, name, rights from role where site_id = ${from} and not retired`);
  const rules = await rows<{ id: string }>(tx, sql`select id from hold_rule where site_id = ${from} and not retired`);
  await tx.execute(sql`
    insert into hold_rule (id, site_id, name, text, conditions, stops, lifters)
    select n.fresh, ${siteId}, h.name, h.text, h.conditions, h.stops, h.lifters
    from jsonb_to_recordset(${recordset(rules.map((r) => ({ ...r, fresh: newId() })))}) as n(id text, fresh text) join hold_rule h on h.id = n.id`);
}

/**
 * Makes another site of the house: as the actor's own is set up, or as a new house begins. Whoever makes it works there
 * with the rights of an administrator, or with the roles that they have.
 *
 * @returns the id of the site
 * @throws Refusal 409 `code-used`; 403 `beyond-rights` where people are to come along and the actor may not give rights
 */
export async function makeSite(
  change: Change,
  { code, site, like, people }: z.output<typeof makeSiteBody>,
): Promise<string> {
  const { tx, actor, newId } = change;
  await tx.execute(sql`lock table site in exclusive mode`);
  if ((await rows(tx, sql`select 1 from site where upper(code) = ${code}`)).length > 0)
    throw new Refusal('code-used', { code }, [{ path: 'code', message: 'another site has this code' }]);
  if (people && !actor.rights.has('house.people')) throw new Refusal('beyond-rights', { what: 'house.people' });
  const [own] = await rows<{ work: object | null }>(
    tx,
    sql`select settings->'work' as work from site where id = ${actor.siteId}`,
  );
  const id = newId();
  await createSite(tx, { id, code, site, settings: like === 'this' ? { work: own?.work ?? {} } : {} });
  if (like === 'this') await copyRules(tx, actor.siteId, id, newId);
  else await firstRules(tx, id, newId);
  await tx.execute(sql`
    insert into membership (person_id, site_id, roles, team)
    select person_id, ${id}, ${like === 'this' ? sql`roles` : sql`'{administrator,supervisor}'::text[]`}, team from membership
    where site_id = ${actor.siteId} and active and (person_id = ${actor.personId} or ${people && like === 'this'})`);
  change.journal({ kind: 'site-made', facts: { name: site.name, code, like } });
  change.publish('setup', []);
  change.publish('me', []);
  return id;
}

/** Sites of the house, the actor's own first. */
export const sitesOfHouse = (on: Db | Tx, siteId: string): Promise<Sites['sites']> =>
  rows(
    on,
    sql`select s.id, s.code, s.name, s.city,
               (select count(*) from membership m where m.site_id = s.id and m.active)::int as people,
               (select count(*) from customer_order o where o.site_id = s.id and o.status = 'open')::int as orders
        from site s order by s.id <> ${siteId}, s.name`,
  );
