import { sql } from 'drizzle-orm';
import type { Actor } from './change.ts';
import type { Platform } from './platform.ts';

/** Who does what happens without a person: the trail names it. */
export async function unattended(platform: Platform, siteId: string, id: string, name: string): Promise<Actor> {
  await platform.db.execute(
    sql`insert into person (id, site_id, name) values (${id}, ${siteId}, ${name}) on conflict (id) do nothing`,
  );
  return {
    personId: id,
    name,
    siteId,
    sessionId: '',
    rights: new Set(),
    device: 'server',
    requestId: platform.newId(),
  };
}

/**
 * Does something again and again, one turn after the other.
 *
 * @param what is named in the log when a turn fails; the next one comes all the same
 * @returns ends it, once the turn under way is over
 */
export function runTurns(platform: Platform, what: string, everyMs: number, turn: () => Promise<unknown>) {
  let working: Promise<unknown> = Promise.resolve();
  let busy = false;
  const timer = setInterval(() => {
    if (busy) return;
    busy = true;
    working = turn()
      .catch((error: unknown) => platform.log.error({ err: error }, what))
      .finally(() => (busy = false));
  }, everyMs);
  return async (): Promise<void> => {
    clearInterval(timer);
    await working;
  };
}
