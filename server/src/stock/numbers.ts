import { sql } from 'drizzle-orm';
import { IN_HOUSE_PREFIX, ssccOf } from '@hand-relay/core/gs1';
import { rows, type Change } from '../platform/index.ts';

/** Draws the next numbers of one of the site's ranges. Gaps are left by work that was undone before it was kept. */
export async function nextNumbers(change: Change, name: string, count: number): Promise<number[]> {
  const [row] = await rows<{ last: number }>(
    change.tx,
    sql`insert into counter (site_id, name, last) values (${change.actor.siteId}, ${name}, ${count})
        on conflict (site_id, name) do update set last = counter.last + ${count} returning last::int as last`,
  );
  return Array.from({ length: count }, (_, i) => row!.last - count + 1 + i);
}

/** The next serial shipping container code of the site. */
export async function nextSscc(change: Change): Promise<string> {
  const [site] = await rows<{ prefix: string; extension: number }>(
    change.tx,
    sql`select gs1_prefix as prefix, sscc_extension as extension from site where id = ${change.actor.siteId}`,
  );
  const [serial] = await nextNumbers(change, 'sscc', 1);
  return ssccOf({ companyPrefix: site!.prefix || IN_HOUSE_PREFIX, extension: site!.extension }, serial!);
}
