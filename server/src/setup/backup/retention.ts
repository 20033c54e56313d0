import { sql, type SQL } from 'drizzle-orm';
import { rows, type Platform } from '../../platform/index.ts';

/** Days for which a repeat of a request gets its first answer. */
const ANSWERS_DAYS = 7;
/** Days for which a plan that was looked at can be put in place. */
const DRAFTS_DAYS = 1;
/** Rows deleted in one transaction: short, so that a scan waits for none of them. */
const CHUNK = 2_000;
const EVERY_MS = 3_600_000;

/**
 * Deletes what is of no use any more, some rows at a time: answers kept for repeats, plans that were looked at, and
 * what was printed, imported, done and ended longer ago than the site keeps it. Orders, stock and the journal stay.
 *
 * @param days for which print jobs, jobs and what undoes an import are kept
 * @returns how many rows went, by table
 */
export async function dropOld(platform: Platform, days: number): Promise<Record<string, number>> {
  const before = (n: number) => new Date(platform.clock().getTime() - n * 86_400_000).toISOString();
  // A repeat of the request that began a job must find it.
  const jobs = before(Math.max(days, ANSWERS_DAYS));
  return {
    idempotency: await drop(platform, 'idempotency', sql`at < ${before(ANSWERS_DAYS)}`),
    replan_draft: await drop(platform, 'replan_draft', sql`at < ${before(DRAFTS_DAYS)}`),
    job: await drop(platform, 'job', sql`at < ${jobs} and state <> 'running'`),
    order_import: await drop(platform, 'order_import', sql`at < ${before(days)}`),
    packaging_due: await drop(platform, 'packaging_due', sql`posted_at < ${before(days)}`),
    print_job: await drop(platform, 'print_job', sql`at < ${before(days)} and state <> 'waiting'`),
  };
}

async function drop({ db }: Platform, table: string, which: SQL): Promise<number> {
  const name = sql.identifier(table);
  for (let gone = 0; ;) {
    const part = await rows(
      db,
      sql`delete from ${name} where ctid in (select ctid from ${name} where ${which} limit ${CHUNK}) returning 1`,
    );
    gone += part.length;
    if (part.length < CHUNK) return gone;
  }
}

/** Deletes what is old every hour; of several servers one does. */
export function runRetention(platform: Platform, days: number): () => void {
  const turn = () =>
    void platform
      .alone('retention', () => dropOld(platform, days), { wait: false })
      .catch((error: unknown) => platform.log.error({ err: error }, 'retention'));
  const timer = setInterval(turn, EVERY_MS);
  timer.unref();
  return () => clearInterval(timer);
}
