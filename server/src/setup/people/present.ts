import { sql, type SQL } from 'drizzle-orm';
import { silentSince } from '@hand-relay/core/walking/labour';

/** How long after their last run somebody who supervises still counts as a pair of hands. */
const HANDS_FOR_MS = 2 * 3_600_000;

/** Devices that were last heard before this instant are offline. */
export const silentBefore = (now: Date): string => new Date(silentSince(now.getTime())).toISOString();

/**
 * Whether a member counts among those who are there to work: signed in, and not only to watch. Who may run waves sits at a
 * desk as a rule; they count while they have a run in hand, and for a while after it.
 *
 * @param m alias of the membership in the query
 */
export function present(m: SQL, now: Date): SQL {
  const since = new Date(now.getTime() - HANDS_FOR_MS).toISOString();
  return sql`(exists (
      select 1 from session s where s.person_id = ${m}.person_id and s.site_id = ${m}.site_id and s.expires_at > ${now.toISOString()}
    ) and (
      not exists (select 1 from role o where o.site_id = ${m}.site_id and o.name = any(${m}.roles) and 'waves.run' = any(o.rights))
      or exists (select 1 from run h where h.site_id = ${m}.site_id and h.picker_id = ${m}.person_id
                 and (h.state = 'picking' or h.left_at > ${since}))
    ))`;
}
