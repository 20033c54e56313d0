import { sql, type SQL } from 'drizzle-orm';
import type { RunSummary, WaveSummary } from '@hand-relay/contract';
import { iso, rows, type Db, type Tx } from '../platform/index.ts';

/** Waves as lists and heads show them. */
export function waveSummaries(on: Db | Tx, siteId: string, only: SQL = sql`true`): Promise<WaveSummary[]> {
  return rows<WaveSummary>(
    on,
    sql`
    with w as (
      select w.*, p.name as by from wave w join person p on p.id = w.created_by
      where w.site_id = ${siteId} and ${only} order by w.number desc limit 200
    ), l as (
      select x.wave_id, count(distinct ol.order_id)::int as orders, count(*)::int as lines, sum(x.units)::int as units,
             sum(least(x.units, ol.packed))::int as packed, sum(least(x.units, ol.shipped))::int as shipped,
             min(o.leaves_at) as leaves
      from wave_line x join w on w.id = x.wave_id join order_line ol on ol.id = x.line_id
      join customer_order o on o.id = ol.order_id group by x.wave_id
    ), r as (
      select r.wave_id, count(*)::int as runs, sum(r.metres) as metres from run r join w on w.id = r.wave_id
      where r.state <> 'cancelled' group by r.wave_id
    ), k as (
      select r.wave_id, sum(k.picked)::int as picked from pick k join run r on r.id = k.run_id join w on w.id = r.wave_id group by r.wave_id
    )
    select w.id, w.number, w.state, ${iso(sql`w.created_at`)} as "createdAt", w.by as "createdBy",
           coalesce(l.orders, 0) as orders, coalesce(l.lines, 0) as lines, coalesce(l.units, 0) as units,
           coalesce(k.picked, 0) as picked, coalesce(l.packed, 0) as packed, coalesce(l.shipped, 0) as shipped,
           coalesce(r.runs, 0) as runs, coalesce(r.metres, 0) as metres, ${iso(sql`l.leaves`)} as "earliestDeparture"
    from w left join l on l.wave_id = w.id left join r on r.wave_id = w.id left join k on k.wave_id = w.id
    order by w.number desc`,
  );
}

/** Runs as lists and heads show them, the earliest departure first. */
export function runSummaries(on: Db | Tx, siteId: string, only: SQL): Promise<RunSummary[]> {
  return rows<RunSummary>(
    on,
    sql`
    select r.id, r.number, r.call_sign as "callSign", r.state, p.name as picker, r.picker_id as "pickerId",
           r.cart_code as cart, r.positions, q.orders, r.stops, k.picks, k.done as "picksDone", k.units, k.picked as "unitsPicked",
           r.metres, lane.code as lane, w.number as wave, ${iso(sql`q.leaves`)} as "leavesAt"
    from run r join wave w on w.id = r.wave_id left join person p on p.id = r.picker_id left join place lane on lane.id = r.lane_id
    join lateral (
      select count(*)::int as orders, min(o.leaves_at) as leaves
      from run_position q join customer_order o on o.id = q.order_id where q.run_id = r.id
    ) q on true
    join lateral (
      select count(*)::int as picks, (count(*) filter (where k.state <> 'open'))::int as done,
             coalesce(sum(k.units), 0)::int as units, coalesce(sum(k.picked), 0)::int as picked
      from pick k where k.run_id = r.id and k.state <> 'out'
    ) k on true
    where r.site_id = ${siteId} and ${only}
    order by q.leaves nulls last, r.number`,
  );
}
