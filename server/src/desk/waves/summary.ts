import { sql, type SQL } from 'drizzle-orm';
import type { RunSummary, WaveSummary } from '@hand-relay/contract';
import { chanceOf, dueIn, forecastInTurn, paceOf, type Hand } from '@hand-relay/core/walking/labour';
import { present } from '../../setup/people/index.ts';
import { iso, rows, type Db, type Platform, type Tx } from '../../platform/index.ts';
import type { Foreseen } from '../../tables/index.ts';
import { placesHere } from './means.ts';
import { LOADING, peopleHere } from './problem.ts';
import { standards, settingsOf } from '../../setup/settings/index.ts';

type WaveRow = Omit<WaveSummary, 'foreseen' | 'forecast' | 'doneBy' | 'chance'> & {
  foreseen: Foreseen | null;
  /** Seconds left of each run that is not done, and who has it. */
  left: { seconds: number; person: string | null; team: string }[] | null;
};

const at = (ms: number) => new Date(ms).toISOString();

/** Waves that are over which a list still shows: each costs a look at all its lines. */
const OVER = 30;

/** What is under way, however much was made since, and what ended last. */
const recent = (siteId: string) => sql`(w.state not in ('done', 'cancelled') or w.number >= coalesce((
  select v.number from wave v where v.site_id = ${siteId} and v.state in ('done', 'cancelled') order by v.number desc offset ${OVER - 1} limit 1), 0))`;

/**
 * Waves as lists and heads show them, those that wait or are under way in the order of working.
 *
 * @param only which of the site's, as a condition on `w`; without it what is under way and what ended last
 */
export async function waveSummaries(
  platform: Platform,
  siteId: string,
  only: SQL = recent(siteId),
): Promise<WaveSummary[]> {
  const { db } = platform;
  const now = platform.clock();
  const found = await rows<WaveRow>(
    db,
    sql`
    with w as (
      select w.*, p.name as by from wave w join person p on p.id = w.created_by
      where w.site_id = ${siteId} and ${only}
    ), own as (
      select x.wave_id, x.line_id, x.units from wave_line x join w on w.id = x.wave_id and x.units > 0
    ), e as (
      -- What earlier waves had of a line was packed and shipped for them.
      select y.wave_id, y.line_id, coalesce(sum(y.units) over (
               partition by y.line_id order by v.number rows between unbounded preceding and 1 preceding), 0) as units
      from wave_line y join wave v on v.id = y.wave_id where v.site_id = ${siteId} and y.line_id in (select line_id from own)
    ), l as (
      select x.wave_id, count(distinct ol.order_id)::int as orders, count(*)::int as lines, sum(x.units)::int as units,
             sum(least(x.units, greatest(0, ol.packed - e.units)))::int as packed,
             sum(least(x.units, greatest(0, ol.shipped - e.units)))::int as shipped,
             min(o.leaves_at) as leaves
      from own x join e on e.wave_id = x.wave_id and e.line_id = x.line_id join order_line ol on ol.id = x.line_id
      join customer_order o on o.id = ol.order_id group by x.wave_id
    ), k as (
      select k.run_id, sum(k.picked)::int as picked, count(*) filter (where k.state <> 'out') as picks, count(*) filter (where k.state = 'open') as open
      from pick k join run r on r.id = k.run_id join w on w.id = r.wave_id group by k.run_id
    ), r as (
      select r.wave_id, count(*) filter (where r.state <> 'cancelled')::int as runs, sum(r.metres + coalesce(r.approach, 0)) filter (where r.state <> 'cancelled') as metres,
             coalesce(sum(k.picked), 0)::int as picked,
             jsonb_agg(jsonb_build_object('seconds', r.seconds * k.open / greatest(1, k.picks),
               'team', r.team, 'person', case when r.state = 'picking' then r.picker_id else r.assigned_id end) order by r.priority desc, r.rank)
               filter (where r.state in ('planned', 'waiting', 'picking') and k.open > 0) as "left"
      from run r join w on w.id = r.wave_id left join k on k.run_id = r.id group by r.wave_id
    )
    select w.id, w.number, w.state, ${iso(sql`w.created_at`)} as "createdAt", w.by as "createdBy",
           coalesce(l.orders, 0) as orders, coalesce(l.lines, 0) as lines, coalesce(l.units, 0) as units,
           coalesce(r.picked, 0) as picked, coalesce(l.packed, 0) as packed, coalesce(l.shipped, 0) as shipped,
           coalesce(r.runs, 0) as runs, coalesce(r.metres, 0) as metres, ${iso(sql`l.leaves`)} as "earliestDeparture",
           e.name as entry, w.picking, t.name as cart, w.team, w.people, w.foreseen, r."left",
           (select j.done from job j where j.kind = 'plan-wave' and j.of_id = w.id and j.state = 'running' and not j.cancel) as "planProgress"
    from w left join l on l.wave_id = w.id left join r on r.wave_id = w.id left join timetable e on e.id = w.entry_id
    left join cart_type t on t.id = w.cart_type_id
    order by case when w.state in ('gathering', 'planned', 'started') then 0 else 1 end, case when w.state in ('gathering', 'planned', 'started') then w.rank end,
      w.number desc`,
  );
  const under = found.some((w) => w.left);
  const here = under ? (await handsHere(db, siteId, now)).slice(0, await placesHere(db, siteId, 'runs.pick')) : [];
  const packers = under ? await peopleHere(db, siteId, 'orders.pack', now) : 0;
  const { stages } = await settingsOf(db, siteId);
  const pace = under ? await paceHere(db, siteId, now) : 1;
  // What is started is worked off before what only waits, each in the order of working.
  const working = (['started', 'planned'] as const).flatMap((state) => found.filter((w) => w.state === state));
  const forecasts = forecastInTurn(
    working.map(({ left, people }) => ({ left: left ?? [], people })),
    here,
    pace,
  );
  const seenOf = new Map(working.map((w, i) => [w.id, forecasts[i]!]));
  return found.map(({ left, foreseen, ...wave }) => {
    const open = left ?? [];
    const seen = seenOf.get(wave.id);
    const packing = stages === 'pick-pack-ship' ? Math.max(0, wave.units - wave.packed) * standards.perPacked : 0;
    const leaves = wave.earliestDeparture === null ? null : Date.parse(wave.earliestDeparture);
    const due = leaves === null ? null : dueIn(leaves, now.getTime(), { packing, packers, loading: LOADING });
    const after = (seconds: number | null) => (seconds === null ? null : at(now.getTime() + 1000 * seconds));
    return {
      ...wave,
      doneBy: after(due),
      chance: seen && due !== null ? chanceOf(seen, due) : null,
      foreseen: foreseen && {
        ...foreseen,
        ends: at(foreseen.ends),
        early: at(foreseen.early),
        late: at(foreseen.late),
      },
      forecast: seen
        ? {
            left: open.reduce((n, r) => n + r.seconds * pace, 0),
            ends: after(seen.ends),
            early: after(seen.early),
            late: after(seen.late),
          }
        : null,
    };
  });
}

/** Who is here to pick, with their teams. */
const handsHere = (on: Db | Tx, siteId: string, now: Date): Promise<Hand[]> =>
  rows<Hand>(
    on,
    sql`
    select m.person_id as id, m.team from membership m where m.site_id = ${siteId} and m.active and ${present(sql`m`, now)} and exists (select 1 from role r where r.site_id = m.site_id and r.name = any(m.roles) and 'runs.pick' = any(r.rights))
    order by exists (select 1 from run h where h.picker_id = m.person_id and h.site_id = m.site_id and h.state = 'picking') desc, 1`,
  );

/** Runs that the pace is learnt from, the newest first, and how far back they may lie. */
const PACE_RUNS = 24;
const PACE_DAYS = 30;

/**
 * What the newest runs took beside what they should have, up to their last scan: where many were picked today it is the
 * pace of the day, and before the first run of a day that of the days before.
 */
export async function paceHere(on: Db | Tx, siteId: string, now: Date): Promise<number> {
  const since = new Date(now.getTime() - PACE_DAYS * 86_400_000).toISOString();
  return paceOf(
    await rows<{ expected: number; actual: number }>(
      on,
      sql`
      select r.seconds * k.done / k.picks as expected, extract(epoch from k.last - r.started_at)::float8 as actual
      from (
        select * from run where site_id = ${siteId} and started_at > ${since} and state in ('picking', 'left', 'done')
        order by started_at desc limit ${PACE_RUNS}
      ) r join lateral (
        select count(*) as picks, count(*) filter (where k.state <> 'open') as done, max(k.confirmed_at) as last
        from pick k where k.run_id = r.id and k.state <> 'out'
      -- A run that was confirmed at once says nothing of how long it took.
      ) k on k.done > 0 and k.last > r.started_at`,
    ),
  );
}

/** Runs as lists and heads show them: the most urgent, then the earliest departure first. */
export function runSummaries(on: Db | Tx, siteId: string, only: SQL): Promise<RunSummary[]> {
  return rows<RunSummary>(
    on,
    sql`
    select r.id, r.number, r.call_sign as "callSign", r.state, p.name as picker, r.picker_id as "pickerId",
           r.cart_code as cart, r.positions, q.orders, q.list as "orderList", r.stops, k.picks, k.done as "picksDone", k.units, k.picked as "unitsPicked",
           r.metres, lane.code as lane, w.number as wave, ${iso(sql`q.leaves`)} as "leavesAt",
           a.name as assigned, r.assigned_id as "assignedId", r.team, r.priority, r.picking, r.area, r.lower_bound as "lowerBound", r.proven,
           r.approach, r.seconds, r.seconds * (k.picks - k.done) / greatest(1, k.picks) as "secondsLeft"
    from run r join wave w on w.id = r.wave_id left join person p on p.id = r.picker_id left join person a on a.id = r.assigned_id left join place lane on lane.id = r.lane_id
    join lateral (
      select count(*)::int as orders, min(o.leaves_at) as leaves,
             coalesce(jsonb_agg(jsonb_build_object('number', o.number, 'customer', c.name) order by q.number), '[]') as list
      from run_position q join customer_order o on o.id = q.order_id join customer c on c.id = o.customer_id where q.run_id = r.id
    ) q on true
    join lateral (
      select count(*)::int as picks, (count(*) filter (where k.state <> 'open'))::int as done,
             coalesce(sum(k.units), 0)::int as units, coalesce(sum(k.picked), 0)::int as picked
      from pick k where k.run_id = r.id and k.state <> 'out'
    ) k on true
    where r.site_id = ${siteId} and ${only}
    order by r.priority desc, q.leaves nulls last, r.rank, r.number`,
  );
}
