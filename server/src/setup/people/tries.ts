import { createHash, randomBytes } from 'node:crypto';
import { sql } from 'drizzle-orm';
import { Refusal, rows, type Db, type Platform } from '../../platform/index.ts';

/** Tries of one secret from one place within a window, after which it is locked until the window ends. */
const TRIES = 5;
const WINDOW_MINUTES = 5;
/** Tries from all places that the account does not know together: many addresses are no way around the limit. */
const STRANGERS_TRIES = 50;
/** Windows after which a count is of no use. */
const FORGET = 3;

/** Whose secret is tried, and from where. */
export interface Trial {
  /** The name or badge as typed; what nobody has is counted alike, so that nobody learns which exist. */
  account: string;
  /** A password and a PIN lock apart: whoever guesses at one does not shut the other out. */
  kind: 'password' | 'pin';
  address: string;
  /** The device's cookie, and whether this person has signed in on it before. */
  device: { cookie: string; known: boolean };
}

export function hashOf(text: string): string {
  return createHash('sha256').update(text).digest('base64url');
}

/** A name for a device that has none. */
export const newDevice = () => randomBytes(24).toString('base64url');

/**
 * Counts a try before its secret is looked at, in one statement, so that tries at the same time are counted too.
 *
 * A device on which the person signed in before counts for itself: what others try elsewhere does not lock it.
 *
 * @throws Refusal 429 `sign-in-locked` with the instant until which this place is locked
 */
export async function countTry({ db, clock }: Platform, trial: Trial): Promise<void> {
  const now = clock();
  const key = keyOf(trial);
  const counted = trial.device.known
    ? [{ key, most: TRIES }]
    : [
        { key, most: TRIES },
        { key: strangersKey(trial), most: STRANGERS_TRIES },
      ];
  for (const { key, most } of counted) {
    const { tries, until } = await countOne(db, key, now, WINDOW_MINUTES * 60_000);
    if (tries <= most) continue;
    throw new Refusal('sign-in-locked', { until: until.toISOString(), minutes: WINDOW_MINUTES });
  }
}

/** Counts one try in a window that begins with the first, and says until when that lasts. */
export async function countOne(
  db: Db,
  key: string,
  now: Date,
  windowMs: number,
): Promise<{ tries: number; until: Date }> {
  const begin = new Date(now.getTime() - windowMs).toISOString();
  const [found] = await rows<{ tries: number; since: string }>(
    db,
    sql`insert into sign_in_try as t (key, tries, since) values (${key}, 1, ${now.toISOString()})
        on conflict (key) do update set
          tries = case when t.since < ${begin}::timestamptz then 1 else least(t.tries + 1, 1000000) end,
          since = case when t.since < ${begin}::timestamptz then excluded.since else t.since end
        returning tries, since`,
  );
  return { tries: found!.tries, until: new Date(new Date(found!.since).getTime() + windowMs) };
}

/**
 * Forgets the tries of a place from which the right secret came, and what is too old to count. Of all strangers' tries
 * only this one is taken back: the others are still somebody's guesses.
 */
export async function forgetTries({ db, clock }: Platform, trial: Trial): Promise<void> {
  if (!trial.device.known)
    await db.execute(sql`update sign_in_try set tries = greatest(0, tries - 1) where key = ${strangersKey(trial)}`);
  const old = new Date(clock().getTime() - FORGET * WINDOW_MINUTES * 60_000).toISOString();
  await db.execute(sql`delete from sign_in_try where key = ${keyOf(trial)} or since < ${old}::timestamptz`);
}

const keyOf = ({ account, kind, address, device }: Trial) =>
  hashOf(JSON.stringify([kind, account, device.known ? `device ${device.cookie}` : `address ${address}`]));
const strangersKey = ({ account, kind }: Trial) => hashOf(JSON.stringify([kind, account, 'strangers']));
