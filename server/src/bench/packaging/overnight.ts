import { sql } from 'drizzle-orm';
import { localDate } from '@hand-relay/core/calendar';
import { change, rows, runTurns, unattended, type Platform } from '../../platform/index.ts';
import { postDays } from './change.ts';

const TURN_MS = 5 * 60_000;

/** Posts the days that are over at each site: what was closed after the last posting by hand is not forgotten. */
export async function postDaysOver(platform: Platform): Promise<void> {
  const sites = await rows<{ id: string; zone: string; first: string }>(
    platform.db,
    sql`select s.id, s.time_zone as zone, min(d.day)::text as first from packaging_due d join site s on s.id = d.site_id
        where d.posted_at is null group by s.id`,
  );
  for (const { id, zone, first } of sites) {
    const today = localDate(platform.clock().getTime(), zone);
    if (first >= today) continue;
    const actor = await unattended(platform, id, 'packaging', 'Packaging');
    await change(platform, actor, null, (current) => postDays(current, today));
  }
}

/** Lets the days be posted by themselves. */
export const runPackaging = (platform: Platform): (() => Promise<void>) =>
  runTurns(platform, 'packaging', TURN_MS, () =>
    platform.alone('packaging', () => postDaysOver(platform), { wait: false }),
  );
