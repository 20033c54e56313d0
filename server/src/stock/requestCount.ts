import { sql } from 'drizzle-orm';
import { rows, type Change } from '../platform/index.ts';
import type { CountReason } from '../tables/index.ts';

export interface Wanted {
  /** Place id of the bin. */
  bin: string;
  item: string;
  lot: string;
  reason: CountReason;
  note?: string;
  runId?: string;
  pickId?: string;
}

/** Puts a bin up for a count of one item. Where one is asked already, the newer reason and note stand with it. */
export async function requestCount(change: Change, { bin, item, lot, reason, note = '', runId, pickId }: Wanted) {
  const { tx, actor, now } = change;
  const [made] = await rows<{ id: string; fresh: boolean }>(
    tx,
    sql`
    insert into bin_count (id, site_id, bin_id, item_id, lot, state, reason, note, run_id, pick_id, asked_at, asked_by)
    values (${change.newId()}, ${actor.siteId}, ${bin}, ${item}, ${lot}, 'asked', ${reason}, ${note}, ${runId ?? null}, ${pickId ?? null}, ${now.toISOString()}, ${actor.personId})
    on conflict (bin_id, item_id, lot) where state in ('asked', 'counted')
    do update set reason = excluded.reason, note = concat_ws(' · ', nullif(bin_count.note, ''), nullif(excluded.note, '')),
      run_id = coalesce(excluded.run_id, bin_count.run_id), pick_id = coalesce(excluded.pick_id, bin_count.pick_id)
    returning id, xmax = 0 as fresh`,
  );
  change.publish('counts', [made!.id]);
  return made!.id;
}

/** Hangs a picture on what was found wrong at a pick. */
export async function addPicture(change: Change, pickId: string, picture: string): Promise<boolean> {
  const found = await rows<{ id: string }>(
    change.tx,
    sql`update bin_count set pictures = pictures || to_jsonb(${picture}::text)
        where id = (select id from bin_count where pick_id = ${pickId} and site_id = ${change.actor.siteId} order by asked_at desc limit 1) returning id`,
  );
  change.publish(
    'counts',
    found.map((c) => c.id),
  );
  return found.length > 0;
}
