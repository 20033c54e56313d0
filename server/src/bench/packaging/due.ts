import { sql } from 'drizzle-orm';
import { localDate } from '@hand-relay/core/calendar';
import { anyOf, rows, type Change } from '../../platform/index.ts';
import { accounted, palletsWith } from './kinds.ts';

/** Keeps in mind that a unit was closed, where its type is posted by the day and its order is of a kind that counts. */
export async function noteClosed(change: Change, kind: 'carton' | 'pallet', unit: string): Promise<void> {
  const { tx, actor, now } = change;
  const [site] = await rows<{ zone: string }>(tx, sql`select time_zone as zone from site where id = ${actor.siteId}`);
  const counted = await accounted(tx, actor.siteId);
  const counts =
    kind === 'carton'
      ? sql`exists (select 1 from customer_order o where o.id = (select order_id from carton where id = ${unit}) and ${counted})`
      : sql`exists (${palletsWith(sql`p.id = ${unit}`, counted)})`;
  await tx.execute(sql`
    insert into packaging_due (unit_id, site_id, type_id, day)
    select u.id, p.site_id, p.type_id, ${localDate(now.getTime(), site!.zone)}::date
    from (select id, type_id from carton where id = ${unit} union all select id, type_id from pallet where id = ${unit}) u
    join packaging p on p.type_id = u.type_id and p.site_id = ${actor.siteId} and p.accounting = 'daily'
    where ${counts}
    -- One that a posting has taken is the same piece of packaging when it is closed again.
    on conflict (unit_id) do nothing`);
}

/** A unit that was opened again before any posting is not used yet. */
export async function noteReopened({ tx }: Change, unit: string): Promise<void> {
  await tx.execute(sql`delete from packaging_due where unit_id = ${unit} and posted_at is null`);
}

/** Closed units of these types are taken, by a posting or since somebody counted. */
export const takeDue = (
  { tx, actor, now }: Change,
  types: readonly string[],
  before: string | null = null,
): Promise<{ type: string; day: string; units: number }[]> =>
  rows(
    tx,
    sql`
    with taken as (
      update packaging_due set posted_at = ${now.toISOString()}
      where site_id = ${actor.siteId} and type_id = ${anyOf([...types])} and posted_at is null and (${before}::date is null or day < ${before}::date)
      returning type_id, day
    ) select type_id as type, day::text as day, count(*)::int as units from taken group by 1, 2 order by 2, 1`,
  );
