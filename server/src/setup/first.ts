import { sql } from 'drizzle-orm';
import type { z } from 'zod';
import { firstHoldRules, firstRoles, type firstRunBody } from '@hand-relay/contract';
import { hashSecret } from '../people/index.ts';
import { recordset, Refusal, rows, type Db, type Platform, type Tx } from '../platform/index.ts';

export async function isEmpty(on: Db | Tx): Promise<boolean> {
  const [found] = await rows<{ n: number }>(on, sql`select count(*)::int as n from site`);
  return found!.n === 0;
}

/**
 * Makes the site and its first supervisor. Only a server without any site takes it: afterwards people are made by
 * who may.
 *
 * @throws Refusal 409 `not-empty`
 */
export async function firstRun(
  { db, clock, newId }: Platform,
  { site, units, person }: z.output<typeof firstRunBody>,
): Promise<void> {
  // Asked before the costly hash: this door is open to everybody.
  if (!(await isEmpty(db))) throw new Refusal(409, 'not-empty');
  const password = await hashSecret(person.password);
  await db.transaction(async (tx) => {
    await tx.execute(sql`lock table site in exclusive mode`);
    if (!(await isEmpty(tx))) throw new Refusal(409, 'not-empty');
    const id = newId();
    const personId = person.login.replace(/\W+/g, '-');
    await tx.execute(sql`
      insert into site (id, code, name, street, city, time_zone, currency, gs1_prefix, floor, start, settings)
      values (${id}, 'S1', ${site.name}, ${site.street}, ${site.city}, ${site.timeZone}, ${site.currency}, ${site.gs1Prefix},
        '{"aisles": [], "crossAisles": []}', '{"aisle": "", "y": 0}', ${JSON.stringify({ way: { units } })}::jsonb)`);
    await tx.execute(sql`
      insert into place (id, site_id, kind, code, name) values
        (${`outside-${id}`}, ${id}, 'outside', 'OUTSIDE', 'Beyond the doors'),
        (${`inquiry-${id}`}, ${id}, 'inquiry', 'TO-COUNT', 'Waits for a count')`);
    await tx.execute(sql`
      insert into person (id, site_id, name, login, password_hash)
      values (${personId}, ${id}, ${person.name}, ${person.login}, ${password})`);
    await tx.execute(sql`
      with roles as (
        insert into role (site_id, name, rights)
        select ${id}, r.key, array(select jsonb_array_elements_text(r.value)) from jsonb_each(${JSON.stringify(firstRoles)}::jsonb) r
      )
      insert into membership (person_id, site_id, roles) values (${personId}, ${id}, '{supervisor}')`);
    await tx.execute(sql`
      insert into hold_rule (id, site_id, name, text, conditions, stops, lifters)
      select r.id, ${id}, r.name, r.text, r.conditions, array(select jsonb_array_elements_text(r.stops)), array(select jsonb_array_elements_text(r.lifters))
      from jsonb_to_recordset(${recordset(firstHoldRules.map((r) => ({ ...r, id: newId() })))})
        as r(id text, name text, text text, conditions jsonb, stops jsonb, lifters jsonb)`);
    await tx.execute(sql`
      insert into journal (at, site_id, person_id, device, request_id, kind, facts)
      values (${clock().toISOString()}, ${id}, ${personId}, 'browser', 'first-run', 'site-made', ${JSON.stringify({ name: site.name })}::jsonb)`);
  });
}
