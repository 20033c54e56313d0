import { sql, type SQL } from 'drizzle-orm';
import type { z } from 'zod';
import type { PickedRow, picksAnswer, picksQuery } from '@hand-relay/contract';
import { localDate } from '@hand-relay/core/calendar';
import { estimate } from '@hand-relay/core/walking/labour';
import { iso, rows, type Db, type Platform } from '../../platform/index.ts';
import { standards } from '../../setup/settings/index.ts';

/** Most rows of a list: a busy day has as many. */
const MOST = 5_000;

type Found = Omit<PickedRow, 'expected'> & { handling: string; metres: number; ofRun: number; total: number };

/** Instants, as ISO texts: from the first of them to before the second. */
export interface Span {
  a: string;
  b: string;
}

/** The instants between which days of a site lie, the last of them whole. */
export async function spanOf(db: Db, siteId: string, { first, last }: { first: string; last: string }): Promise<Span> {
  const [span] = await rows<Span>(
    db,
    sql`select ${iso(sql`${first}::date::timestamp at time zone time_zone`)} as a, ${iso(sql`(${last}::date + 1)::timestamp at time zone time_zone`)} as b
        from site where id = ${siteId}`,
  );
  return span!;
}

/** Whether an instant lies in a span. Its ends are values, by which the database finds the index that has few of them. */
export const within = (at: SQL, { a, b }: Span): SQL => sql`(${at} >= ${a} and ${at} < ${b})`;

/**
 * Parts of a query about confirmed picks: `own` runs in which something was picked in a span, `t` the seconds of each of
 * their picks since the one before, `n` how many picks each run has.
 */
export const pickTimes = (siteId: string, span: Span): SQL => sql`
    own as materialized (
      select distinct k.run_id from pick k join run r on r.id = k.run_id
      where ${within(sql`k.confirmed_at`, span)} and r.site_id = ${siteId}
    ),
    -- What a run's picks took is told by the one before, also where that was on the day before.
    t as (
      select k.id, extract(epoch from k.confirmed_at - coalesce(lag(k.confirmed_at) over (partition by k.run_id order by k.confirmed_at, k.sequence), r.started_at))::float8 as seconds
      from own join run r on r.id = own.run_id join pick k on k.run_id = r.id and k.confirmed_at is not null
    ),
    n as (select k.run_id, count(*)::int as picks from own join pick k on k.run_id = own.run_id and k.state <> 'out' group by 1)`;

/** Confirmed picks of some days of a site, the newest first, with what each took beside what it should have. */
export async function picksOf(
  { db, clock }: Platform,
  siteId: string,
  { from, until, find, only }: z.output<typeof picksQuery>,
): Promise<z.input<typeof picksAnswer>> {
  const [site] = await rows<{ zone: string }>(db, sql`select time_zone as zone from site where id = ${siteId}`);
  const first = from ?? localDate(clock().getTime(), site!.zone);
  const span = await spanOf(db, siteId, { first, last: until ?? first });
  const like = `%${find.replace(/[\\%_]/g, '\\$&')}%`;
  const matches =
    find === ''
      ? sql`true`
      : sql`(o.number ilike ${like} or i.sku ilike ${like} or i.name ilike ${like} or b.code ilike ${like} or k.lot ilike ${like}
             or r.number ilike ${like} or p.name ilike ${like})`;
  const flaws = {
    short: sql`k.state = 'short'`,
    touched: sql`jsonb_array_length(coalesce(k.progress->'touched', '[]')) > 0`,
    refused: sql`f.refused > 0`,
  } as const;
  const found = await rows<Found>(
    db,
    sql`
    with ${pickTimes(siteId, span)},
    f as (
      select j.facts->>'pick' as pick, count(*)::int as refused from own join journal j on j.run_id = own.run_id and j.kind = 'scan-refused' group by 1
    )
    select k.id, ${iso(sql`k.confirmed_at`)} as at, p.name as person, jsonb_build_object('id', r.id, 'number', r.number) as run,
           jsonb_build_object('id', o.id, 'number', o.number) as "order", b.code as bin,
           jsonb_build_object('id', i.id, 'sku', i.sku, 'name', i.name) as item, k.lot, k.picked, greatest(k.units, k.picked) as asked,
           coalesce(k.progress->'touched', '[]') as touched, nullif(t.seconds, 0) as seconds, coalesce(f.refused, 0) as refused,
           i.handling, r.metres + coalesce(r.approach, 0) as metres, n.picks as "ofRun", (count(*) over ())::int as total
    from t join pick k on k.id = t.id join run r on r.id = k.run_id join n on n.run_id = r.id
    join customer_order o on o.id = k.order_id join item i on i.id = k.item_id join place b on b.id = k.bin_id
    join person p on p.id = k.confirmed_by left join f on f.pick = k.id
    where ${within(sql`k.confirmed_at`, span)} and ${matches} and ${only ? flaws[only] : sql`true`}
    order by k.confirmed_at desc, k.sequence desc limit ${MOST}`,
  );
  return {
    picks: found.map(({ handling, metres, ofRun, total: _, ...row }) => ({
      ...row,
      expected: estimate(
        {
          runs: 1 / ofRun,
          distance: metres / ofRun,
          stops: 1,
          scans: 2,
          drops: 1,
          units: { [handling]: row.picked },
        },
        standards,
      ).seconds,
    })),
    total: found[0]?.total ?? 0,
  };
}
