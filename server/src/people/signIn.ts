import { hash, verify } from '@node-rs/argon2';
import { createHash, randomBytes } from 'node:crypto';
import { eq, sql } from 'drizzle-orm';
import { rightsOf, type Me, type Right, type Role } from '@hand-relay/contract';
import { Refusal, type Actor, type Platform } from '../platform/index.ts';
import { person, session, site } from '../tables/index.ts';

/** Wrong tries after which an account rests. */
const TRIES = 5;
const REST_MINUTES = 5;
const SHIFT_HOURS = 14;
/** How long a session's owner is remembered without asking the database again. */
const REMEMBER_MS = 5_000;

export type Credentials = { name: string; password: string } | { badge: string; pin: string };

/** Hash of a password or PIN (argon2id, the library's defaults: 19 MiB, two passes). */
export function hashSecret(secret: string): Promise<string> {
  return hash(secret);
}

let decoy: Promise<string> | undefined;

/** Rights of a person's roles together. */
function rightsFor(roles: readonly string[]): Right[] {
  return [...new Set(roles.flatMap((role) => rightsOf[role as Role] ?? []))];
}

/**
 * Signs a person in by name and password or by badge and PIN.
 *
 * An unknown name costs the same time as a wrong password, and every refusal reads the same, so that nobody learns
 * which part was wrong.
 *
 * @returns the value for the cookie, and when it ends
 * @throws Refusal 401 `sign-in`
 */
export async function signIn(
  platform: Platform,
  credentials: Credentials,
  device: string,
): Promise<{ token: string; expiresAt: Date; personId: string }> {
  const { db, clock, log } = platform;
  const now = clock();
  const byName = 'name' in credentials;
  const [found] = await db
    .select()
    .from(person)
    .where(
      byName ? eq(person.login, credentials.name.toLowerCase()) : eq(person.badge, credentials.badge.toUpperCase()),
    );
  const stored = byName ? found?.passwordHash : found?.pinHash;
  const secret = byName ? credentials.password : credentials.pin;
  const right = await verify(stored ?? (await (decoy ??= hashSecret('nobody has this one'))), secret);
  const resting = found?.lockedUntil && found.lockedUntil > now;
  if (!found || !stored || !right || !found.active || resting) {
    if (found && !resting) {
      await db
        .update(person)
        .set({
          failures: sql`case when ${person.failures} + 1 >= ${TRIES} then 0 else ${person.failures} + 1 end`,
          lockedUntil: sql`case when ${person.failures} + 1 >= ${TRIES} then ${new Date(now.getTime() + REST_MINUTES * 60_000).toISOString()}::timestamptz else ${person.lockedUntil} end`,
        })
        .where(eq(person.id, found.id));
    }
    log.warn({ device, known: Boolean(found) }, 'sign-in refused');
    throw new Refusal(401, 'sign-in', { minutes: REST_MINUTES });
  }
  const token = randomBytes(32).toString('base64url');
  const expiresAt = new Date(now.getTime() + SHIFT_HOURS * 3_600_000);
  await db.transaction(async (tx) => {
    await tx.update(person).set({ failures: 0, lockedUntil: null }).where(eq(person.id, found.id));
    await tx.insert(session).values({ id: digest(token), personId: found.id, device, createdAt: now, expiresAt });
    await tx.execute(sql`delete from session where expires_at < ${now.toISOString()}`);
  });
  return { token, expiresAt, personId: found.id };
}

function digest(token: string): string {
  return createHash('sha256').update(token).digest('base64url');
}

type Owner = Omit<Actor, 'requestId'>;

/** Whose session a cookie is, remembered for a few seconds. */
export class Sessions {
  private readonly remembered = new Map<string, { owner: Owner; until: number }>();
  private readonly platform: Platform;

  constructor(platform: Platform) {
    this.platform = platform;
  }

  async owner(token: string): Promise<Owner | null> {
    const id = digest(token);
    const now = this.platform.clock();
    const kept = this.remembered.get(id);
    if (kept && kept.until > now.getTime()) return kept.owner;
    this.remembered.delete(id);
    const [found] = await this.platform.db
      .select({ person, device: session.device, expiresAt: session.expiresAt })
      .from(session)
      .innerJoin(person, eq(person.id, session.personId))
      .where(eq(session.id, id));
    if (!found || found.expiresAt <= now || !found.person.active) return null;
    const owner: Owner = {
      personId: found.person.id,
      name: found.person.name,
      siteId: found.person.siteId,
      rights: new Set(rightsFor(found.person.roles)),
      device: found.device,
    };
    if (this.remembered.size > 5000) this.remembered.clear();
    this.remembered.set(id, { owner, until: now.getTime() + REMEMBER_MS });
    return owner;
  }

  async end(token: string): Promise<void> {
    this.remembered.delete(digest(token));
    await this.platform.db.delete(session).where(eq(session.id, digest(token)));
  }
}

/** What the app learns of the person who is signed in. */
export async function whoIs(platform: Platform, personId: string): Promise<Me> {
  const [found] = await platform.db
    .select()
    .from(person)
    .innerJoin(site, eq(site.id, person.siteId))
    .where(eq(person.id, personId));
  if (!found) throw new Refusal(401, 'not-signed-in');
  const { id, name, roles } = found.person;
  return {
    person: { id, name, roles: roles as Role[], rights: rightsFor(roles) },
    site: {
      id: found.site.id,
      code: found.site.code,
      name: found.site.name,
      timeZone: found.site.timeZone,
      currency: found.site.currency,
    },
  };
}
