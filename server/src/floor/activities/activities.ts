import { sql } from 'drizzle-orm';
import { iso, Refusal, rows, type Actor, type Change, type Db, type Tx } from '../../platform/index.ts';
import { settingsOf } from '../../setup/settings/index.ts';

/** Other work of the site, and what of it somebody does now. */
export async function activitiesOf(on: Db | Tx, { siteId, personId }: Actor) {
  const { otherWork } = await settingsOf(on, siteId);
  const [now] = await rows<{ kind: string; since: string }>(
    on,
    sql`select kind, ${iso(sql`began_at`)} as since from activity where person_id = ${personId} and site_id = ${siteId} and ended_at is null`,
  );
  return { list: otherWork, now: now ?? null };
}

/** Begins other work, which ends what was done before; or goes back to picking. */
export async function changeActivity(change: Change, kind: string | null): Promise<void> {
  const { tx, actor, now } = change;
  const { list, now: before } = await activitiesOf(tx, actor);
  if (kind !== null && !list.includes(kind)) throw new Refusal('no-such-work', { work: kind });
  if (before?.kind === kind || (before === null && kind === null)) return;
  await tx.execute(
    sql`update activity set ended_at = ${now.toISOString()} where person_id = ${actor.personId} and ended_at is null`,
  );
  if (before)
    change.journal({
      kind: 'work-ended',
      facts: { work: before.kind, seconds: Math.round((now.getTime() - Date.parse(before.since)) / 1000) },
    });
  if (kind === null) return;
  await tx.execute(sql`
    insert into activity (id, site_id, person_id, kind, began_at) values (${change.newId()}, ${actor.siteId}, ${actor.personId}, ${kind}, ${now.toISOString()})`);
  change.journal({ kind: 'work-begun', facts: { work: kind } });
}
