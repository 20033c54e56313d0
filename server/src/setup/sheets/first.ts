import { createHash, randomInt, timingSafeEqual } from 'node:crypto';
import { sql } from 'drizzle-orm';
import type { z } from 'zod';
import type { firstRunBody } from '@hand-relay/contract';
import { createSite, firstRules } from './createSite.ts';
import { hashSecret } from '../people/index.ts';
import { Refusal, rows, type Db, type Platform, type Tx } from '../../platform/index.ts';

export async function isEmpty(on: Db | Tx): Promise<boolean> {
  const [found] = await rows<{ n: number }>(on, sql`select count(*)::int as n from site`);
  return found!.n === 0;
}

/** Letters and digits that nobody confuses when they are read aloud or typed. */
const TOKEN_SIGNS = 'ABCDEFGHJKMNPQRSTUVWXYZ23456789';

const plain = (token: string) => token.toUpperCase().replace(/[^A-Z0-9]/g, '');

/**
 * The token that the first run must name, made when a server without any site starts; the same for every server of
 * one database.
 *
 * @param given one of the operator's own, in place of a new one
 * @returns null where there is a site already
 */
export async function setupToken(db: Db, given?: string): Promise<string | null> {
  if (!(await isEmpty(db))) return null;
  const signs = Array.from({ length: 12 }, () => TOKEN_SIGNS[randomInt(TOKEN_SIGNS.length)]).join('');
  const fresh = given ?? signs.replace(/(....)(?=.)/g, '$1-');
  const [there] = await rows<{ token: string }>(
    db,
    given
      ? sql`update house set setup_token = ${given} returning setup_token as token`
      : sql`update house set setup_token = coalesce(setup_token, ${fresh}) returning setup_token as token`,
  );
  return there!.token;
}

async function isToken(db: Db, token: string): Promise<boolean> {
  const [there] = await rows<{ token: string | null }>(db, sql`select setup_token as token from house`);
  if (!there?.token) return false;
  const [a, b] = [plain(token), plain(there.token)].map((t) => createHash('sha256').update(t).digest());
  return timingSafeEqual(a!, b!);
}

/**
 * Makes the site and its first supervisor. Only a server without any site takes it: afterwards people are made by
 * who may.
 *
 * @throws Refusal 409 `not-empty`; 422 `setup-token` when the token is not the one that the server printed
 */
export async function firstRun(
  { db, clock, newId }: Platform,
  { token, site, units, person }: z.output<typeof firstRunBody>,
): Promise<void> {
  // Asked before the costly hash: this door is open to everybody.
  if (!(await isEmpty(db))) throw new Refusal('not-empty');
  if (!(await isToken(db, token)))
    throw new Refusal('setup-token', {}, [{ path: 'token', message: 'the setup token that the server printed' }]);
  const password = await hashSecret(person.password);
  await db.transaction(async (tx) => {
    await tx.execute(sql`lock table site in exclusive mode`);
    if (!(await isEmpty(tx))) throw new Refusal('not-empty');
    const id = newId();
    const personId = person.login.replace(/\W+/g, '-');
    await createSite(tx, { id, code: 'S1', site, settings: { work: { units } } });
    await tx.execute(sql`
      insert into person (id, site_id, name, login, password_hash)
      values (${personId}, ${id}, ${person.name}, ${person.login}, ${password})`);
    await firstRules(tx, id, newId);
    await tx.execute(
      sql`insert into membership (person_id, site_id, roles) values (${personId}, ${id}, '{administrator,supervisor}')`,
    );
    await tx.execute(sql`update house set setup_token = null`);
    await tx.execute(sql`
      insert into journal (at, site_id, person_id, device, request_id, kind, facts)
      values (${clock().toISOString()}, ${id}, ${personId}, 'browser', 'first-run', 'site-made', ${JSON.stringify({ name: site.name })}::jsonb)`);
  });
}
