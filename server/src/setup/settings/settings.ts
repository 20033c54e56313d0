import { sql } from 'drizzle-orm';
import { siteSettings, type Language } from '@hand-relay/contract';
import type { SiteSettings } from '@hand-relay/core/deciding/settings';
import { rows, type Change, type Db, type Tx } from '../../platform/index.ts';

/** How a site works. */
export async function settingsOf(on: Db | Tx, siteId: string): Promise<SiteSettings> {
  const [site] = await rows<{ settings: unknown }>(
    on,
    sql`select coalesce(settings->'work', '{}') as settings from site where id = ${siteId}`,
  );
  return siteSettings.parse(site?.settings ?? {});
}

/** Waves that were planned and are not done: their runs go on under the new way. */
export async function wavesUnderWay(on: Db | Tx, siteId: string): Promise<number> {
  const [found] = await rows<{ n: number }>(
    on,
    sql`select count(*)::int as n from wave where site_id = ${siteId} and state in ('planned', 'started')`,
  );
  return found!.n;
}

/** Changes how the site works; what it was before stays in the journal. */
export async function changeSettings(change: Change, next: SiteSettings): Promise<void> {
  const { tx, actor } = change;
  const before = await settingsOf(tx, actor.siteId);
  await tx.execute(sql`
    update site set settings = jsonb_set(settings, '{work}', ${JSON.stringify(next)}::jsonb) where id = ${actor.siteId}`);
  change.journal({ kind: 'settings-changed', facts: { before, after: next } });
  change.publish('setup', []);
  change.publish('runs', []);
  change.publish('me', []);
}

/** What a person's papers are made on, and in which language they read. */
export async function paperFor(
  on: Db | Tx,
  siteId: string,
  personId: string,
): Promise<{ paper: SiteSettings['paper']; language: Language | null }> {
  const { paper } = await settingsOf(on, siteId);
  const [person] = await rows<{ language: Language | null }>(
    on,
    sql`select language from person where id = ${personId}`,
  );
  return { paper, language: person?.language ?? null };
}
