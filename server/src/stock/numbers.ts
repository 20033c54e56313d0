import { sql } from 'drizzle-orm';
import {
  IN_HOUSE_PREFIX,
  lastSerial,
  serialOf,
  ssccOf,
  ssccPrefix,
  type SsccRange,
} from '@hand-relay/core/reading/gs1';
import { Refusal, rows, type Change, type Db, type Tx } from '../platform/index.ts';

/** Draws the next numbers of one of the site's ranges. Gaps are left by work that was undone before it was kept. */
export async function nextNumbers(change: Change, name: string, count: number): Promise<number[]> {
  const [row] = await rows<{ last: number }>(
    change.tx,
    sql`insert into counter (site_id, name, last) values (${change.actor.siteId}, ${name}, ${count})
        on conflict (site_id, name) do update set last = counter.last + ${count} returning last::int as last`,
  );
  return Array.from({ length: count }, (_, i) => row!.last - count + 1 + i);
}

/** The range from which a site numbers its cartons and pallets. */
export async function ssccRange(on: Db | Tx, siteId: string): Promise<SsccRange> {
  const [site] = await rows<{ prefix: string; extension: number }>(
    on,
    sql`select gs1_prefix as prefix, sscc_extension as extension from site where id = ${siteId}`,
  );
  return { companyPrefix: site!.prefix || IN_HOUSE_PREFIX, extension: site!.extension };
}

/**
 * The next serial shipping container codes of the site.
 *
 * @throws Refusal 409 `sscc-used-up` where its range has no more: a number is never given twice
 */
export async function nextSsccs(change: Change, count: number): Promise<string[]> {
  const range = await ssccRange(change.tx, change.actor.siteId);
  const serials = await nextNumbers(change, 'sscc', count);
  if (serials.at(-1)! > lastSerial(range)) throw new Refusal('sscc-used-up', { prefix: range.companyPrefix });
  return serials.map((serial) => ssccOf(range, serial));
}

/**
 * A site numbers its units from another range: what was drawn from the one before is kept under its name, so that a site
 * that comes back to it goes on where it was, and no number is given twice.
 */
export async function changeSsccRange({ tx, actor }: Change, before: SsccRange, after: SsccRange): Promise<void> {
  const [from, to] = [before, after].map((range) => `sscc ${ssccPrefix(range)}`);
  if (from === to) return;
  await tx.execute(sql`update counter set name = ${from} where site_id = ${actor.siteId} and name = 'sscc'`);
  await tx.execute(sql`update counter set name = 'sscc' where site_id = ${actor.siteId} and name = ${to}`);
}

/** The next serial shipping container code of the site. */
export const nextSscc = async (change: Change): Promise<string> => (await nextSsccs(change, 1))[0]!;

/** Whether a number was drawn for a carton of the site before, printed ahead or not. */
export async function isIssued(change: Change, sscc: string): Promise<boolean> {
  const { tx, actor } = change;
  const serial = serialOf(await ssccRange(tx, actor.siteId), sscc);
  const [drawn] = await rows<{ last: number }>(
    tx,
    sql`select last::int as last from counter where site_id = ${actor.siteId} and name = 'sscc'`,
  );
  return serial !== null && serial <= (drawn?.last ?? 0);
}
