import { hash, verify } from '@node-rs/argon2';
import { createHash, randomBytes } from 'node:crypto';
import { EventEmitter } from 'node:events';
import { eq, sql } from 'drizzle-orm';
import type { Me, Right } from '@hand-relay/contract';
import { iso, Refusal, rows, type Actor, type Change, type Platform } from '../../platform/index.ts';
import { person, session, site } from '../../tables/index.ts';
import { settingsOf } from '../settings/index.ts';
import { changesOf } from './changes.ts';
import { countTry, forgetTries, hashOf, type Trial } from './tries.ts';

const SHIFT_HOURS = 14;
/** A device on which nobody signed in for so long is a stranger again. */
const KNOWN_FOR_MS = 400 * 86_400_000;
/** How long a session's owner is remembered without asking the database again. */
const REMEMBER_MS = 5_000;
/** How exactly it is known when a device was last heard: each is written down once in this time. */
const HEARD_MS = 60_000;

export type Credentials =
  | { name: string; password: string }
  | { badge: string; pin: string }
  | { person: string; password: string }
  | { person: string; pin: string };

/** Hash of a password or PIN (argon2id, the library's defaults: 19 MiB, two passes). */
export function hashSecret(secret: string): Promise<string> {
  return hash(secret);
}

let decoy: Promise<string> | undefined;

/** Rights of a person's roles at a site together. */
const rightsAt = sql`
  coalesce((select array_agg(distinct g) from role r, unnest(r.rights) g
            where r.site_id = m.site_id and r.name = any(m.roles) and not r.retired), '{}')`;

/** Sites where a person works, the one worked at last first. */
const sitesOf = (personId: string) => sql`
  select s.id, s.code, s.name, 'orders.release' = any(${rightsAt}) as releases from membership m join site s on s.id = m.site_id join person p on p.id = m.person_id
  where m.person_id = ${personId} and m.active order by s.id <> p.site_id, s.code`;

/** From where somebody signs in. */
export interface SignInFrom {
  /** What the device calls itself. */
  device: string;
  browser: string;
  address: string;
  /** The cookie by which a device is known again; a new one where it has none. */
  cookie: string;
}

/**
 * Signs a person in by name and password or by badge and PIN; or by either secret alone on a device that knows who was
 * signed in on it last.
 *
 * An unknown name costs the same time as a wrong password, and every refusal reads the same, so that nobody learns
 * which part was wrong.
 *
 * @returns the value for the cookie, and when it ends
 * @throws Refusal 401 `sign-in`; 429 `sign-in-locked` after too many tries
 */
export async function signIn(
  platform: Platform,
  credentials: Credentials,
  from: SignInFrom,
): Promise<{ token: string; expiresAt: Date; personId: string; siteId: string; sessionId: string }> {
  const { db, clock, log } = platform;
  const now = clock();
  const byPassword = 'password' in credentials;
  const [found] = await db.select().from(person).where(namedBy(credentials));
  const account = found ? ((byPassword ? found.login : found.badge) ?? found.id) : typed(credentials);
  const device = hashOf(from.cookie);
  const known = await rows<{ device: string }>(
    db,
    sql`select device from known_device where person_id = ${found?.id ?? ''} and device = ${device}`,
  );
  const trial: Trial = {
    account,
    kind: byPassword ? 'password' : 'pin',
    address: from.address,
    device: { cookie: from.cookie, known: known.length > 0 },
  };
  await countTry(platform, trial);
  const stored = byPassword ? found?.passwordHash : found?.pinHash;
  const secret = byPassword ? credentials.password : credentials.pin;
  const right = await verify(stored ?? (await (decoy ??= hashSecret('nobody has this one'))), secret);
  const [at] = found ? await rows<{ id: string }>(db, sitesOf(found.id)) : [];
  if (!found || !stored || !right || !at) {
    log.warn({ device: from.device, known: Boolean(found) }, 'sign-in refused');
    throw new Refusal('sign-in');
  }
  await forgetTries(platform, trial);
  const token = randomBytes(32).toString('base64url');
  const expiresAt = new Date(now.getTime() + SHIFT_HOURS * 3_600_000);
  await db.transaction(async (tx) => {
    await tx.insert(session).values({
      id: digest(token),
      personId: found.id,
      siteId: at.id,
      device: from.device,
      browser: from.browser,
      createdAt: now,
      expiresAt,
      heardAt: now,
    });
    await tx.execute(sql`
      insert into known_device (person_id, device, at) values (${found.id}, ${device}, ${now.toISOString()})
      on conflict (person_id, device) do update set at = excluded.at`);
    await tx.execute(sql`delete from session where expires_at < ${now.toISOString()}`);
    await tx.execute(sql`delete from known_device where at < ${new Date(now.getTime() - KNOWN_FOR_MS).toISOString()}`);
  });
  return { token, expiresAt, personId: found.id, siteId: at.id, sessionId: digest(token) };
}

/** What somebody typed or scanned to say who they are, as accounts are written. */
const typed = (given: Credentials): string =>
  'name' in given ? given.name.toLowerCase() : 'badge' in given ? given.badge.toUpperCase() : given.person;

const namedBy = (given: Credentials) =>
  eq('name' in given ? person.login : 'badge' in given ? person.badge : person.id, typed(given));

function digest(token: string): string {
  return createHash('sha256').update(token).digest('base64url');
}

type Owner = Omit<Actor, 'requestId'>;

/** Whose session a cookie is, remembered for a few seconds. */
export class Sessions {
  private readonly remembered = new Map<string, { owner: Owner; until: number }>();
  private readonly platform: Platform;
  private readonly endings = new EventEmitter().setMaxListeners(0);

  constructor(platform: Platform) {
    this.platform = platform;
  }

  async owner(token: string): Promise<Owner | null> {
    const id = digest(token);
    const now = this.platform.clock();
    const known = this.remembered.get(id);
    if (known && known.until > now.getTime()) return known.owner;
    this.remembered.delete(id);
    const [found] = await rows<Omit<Owner, 'rights'> & { rights: Right[]; heard: Date | string }>(
      this.platform.db,
      sql`select p.id as "personId", p.name, s.site_id as "siteId", s.device, s.id as "sessionId", ${rightsAt} as rights, s.heard_at as heard
          from session s join person p on p.id = s.person_id
          join membership m on m.person_id = s.person_id and m.site_id = s.site_id and m.active
          where s.id = ${id} and s.expires_at > ${now.toISOString()}`,
    );
    if (!found) return null;
    const { heard, rights, ...who } = found;
    const owner: Owner = { ...who, rights: new Set(rights) };
    const before = new Date(now.getTime() - HEARD_MS).toISOString();
    if (new Date(heard).toISOString() < before)
      await this.platform.db.execute(
        sql`update session set heard_at = ${now.toISOString()} where id = ${id} and heard_at < ${before}`,
      );
    if (this.remembered.size > 5000) this.remembered.clear();
    this.remembered.set(id, { owner, until: now.getTime() + REMEMBER_MS });
    return owner;
  }

  /**
   * The owner of a session at another site where they work, with their rights there: a screen may work for a site
   * that the session is not at.
   *
   * @throws Refusal 403 `not-at-site` where the person does not work
   */
  async ownerAt(owner: Owner, siteId: string): Promise<Owner> {
    const key = `${owner.sessionId} ${siteId}`;
    const now = this.platform.clock().getTime();
    const known = this.remembered.get(key);
    if (known && known.until > now) return known.owner;
    const [found] = await rows<{ rights: Right[] }>(
      this.platform.db,
      sql`select ${rightsAt} as rights from membership m where m.person_id = ${owner.personId} and m.site_id = ${siteId} and m.active`,
    );
    if (!found) throw new Refusal('not-at-site');
    const there: Owner = { ...owner, siteId, rights: new Set(found.rights) };
    this.remembered.set(key, { owner: there, until: now + REMEMBER_MS });
    return there;
  }

  /** Forgets what is remembered of a session that was changed or ended, and has its streams look again. */
  forget(id: string): void {
    for (const key of this.remembered.keys()) if (key === id || key.startsWith(`${id} `)) this.remembered.delete(key);
    this.endings.emit(id);
  }

  async end(token: string): Promise<void> {
    await this.platform.db.delete(session).where(eq(session.id, digest(token)));
    this.forget(digest(token));
  }

  /** Calls back when a session was changed or ended on this server, until the returned function is called. */
  onForgotten(id: string, hear: () => void): () => void {
    this.endings.on(id, hear);
    return () => this.endings.off(id, hear);
  }
}

/**
 * Takes a session to another site of the person's.
 *
 * @throws Refusal 403 `not-at-site` where the person does not work
 */
export async function switchSite(change: Change, siteId: string): Promise<void> {
  const { tx, actor } = change;
  const sites = await rows<{ id: string }>(tx, sitesOf(actor.personId));
  if (!sites.some((s) => s.id === siteId)) throw new Refusal('not-at-site');
  await tx.execute(sql`
    with begun as (update person set site_id = ${siteId} where id = ${actor.personId})
    update session set site_id = ${siteId} where id = ${actor.sessionId}`);
  change.journal({ kind: 'site-switched', facts: { to: siteId } });
}

/** What the app learns of the person who is signed in. */
export async function whoIs(
  platform: Platform,
  { personId, siteId, sessionId }: { personId: string; siteId: string; sessionId: string },
): Promise<Me> {
  const { db } = platform;
  const [found] = await rows<Me['person'] & Pick<Me, 'until' | 'restored'>>(
    db,
    sql`select p.id, p.name, p.language, m.roles, ${rightsAt} as rights, ${iso(sql`s.expires_at`)} as until, (select restored from house) as restored from person p
        join membership m on m.person_id = p.id and m.site_id = ${siteId} and m.active
        join session s on s.id = ${sessionId} where p.id = ${personId}`,
  );
  const [at] = await db.select().from(site).where(eq(site.id, siteId));
  if (!found || !at) throw new Refusal('not-signed-in');
  const { until, restored, ...who } = found;
  return {
    person: who,
    site: { id: at.id, code: at.code, name: at.name, timeZone: at.timeZone, currency: at.currency },
    sites: await rows<Me['sites'][number]>(db, sitesOf(personId)),
    settings: await settingsOf(db, siteId),
    until,
    restored,
    version: platform.version,
    standins: platform.standins,
    accountChanges: await changesOf(db, personId),
  };
}
