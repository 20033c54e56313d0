import { sql } from 'drizzle-orm';
import type { z } from 'zod';
import type { dayReport } from '@hand-relay/contract';
import { estimate } from '@hand-relay/core/walking/labour';
import { iso, rows, type Db } from '../../platform/index.ts';
import { standards } from '../../setup/settings/index.ts';
import { pickTimes, spanOf, within, type Span } from '../trace/index.ts';

type Report = z.input<typeof dayReport>;

/** What a day of a site came to. */
export async function reportOf(db: Db, siteId: string, date: string): Promise<Report> {
  const span = await spanOf(db, siteId, { first: date, last: date });
  const [sums] = await rows<Pick<Report, 'shipments' | 'cartons' | 'weightG'>>(
    db,
    sql`select count(distinct s.id)::int as shipments, count(c.id)::int as cartons, coalesce(sum(c.weight_g), 0)::float8 as "weightG"
        from shipment s left join carton c on c.shipment_id = s.id where s.site_id = ${siteId} and s.state = 'confirmed' and ${within(sql`s.confirmed_at`, span)}`,
  );
  return {
    ...sums!,
    departures: await departuresOn(db, siteId, date),
    shorts: await rows<Report['shorts'][number]>(
      db,
      sql`select b.code as bin, i.sku, i.name as item, e.kind, e.reason, count(*)::int as times, sum(e.units)::int as units
          from exception e join place b on b.id = e.place_id join item i on i.id = e.item_id
          where e.site_id = ${siteId} and ${within(sql`e.at`, span)} and e.kind in ('short', 'elsewhere', 'out')
          group by 1, 2, 3, 4, 5 order by units desc, bin`,
    ),
    people: await peopleOn(db, siteId, span),
    waves: await rows<Report['waves'][number]>(
      db,
      sql`
      with w as (
        select w.* from wave w where w.site_id = ${siteId} and w.state in ('started', 'done') and w.id in (
          select r.wave_id from pick k join run r on r.id = k.run_id where ${within(sql`k.confirmed_at`, span)})
      )
      select w.id, w.number, w.state, (select count(distinct l.order_id)::int from wave_line x join order_line l on l.id = x.line_id where x.wave_id = w.id and x.units > 0) as orders,
             ${iso(sql`to_timestamp((w.foreseen->>'ends')::float8 / 1000)`)} as foreseen, ${iso(sql`case when k.open = 0 then k.last end`)} as ended
      from w join lateral (
        select max(k.confirmed_at) as last, count(*) filter (where k.state = 'open') as open from run r join pick k on k.run_id = r.id where r.wave_id = w.id
      ) k on true order by w.number`,
    ),
  };
}

/** Orders due on the day by departure: what left of each, and when. */
const departuresOn = (db: Db, siteId: string, date: string) =>
  rows<Report['departures'][number]>(
    db,
    sql`
    with o as (
      select o.id, coalesce(d.name, '') as name, o.leaves_at, l.asked, l.shipped,
             (select max(s.confirmed_at) from shipment s where s.order_id = o.id and s.state = 'confirmed') > o.leaves_at as late
      from customer_order o left join departure d on d.id = o.departure_id
      join lateral (select sum(l.asked)::int as asked, sum(l.shipped)::int as shipped from order_line l where l.order_id = o.id) l on true
      where o.site_id = ${siteId} and o.due = ${date} and o.status in ('open', 'closed') and l.asked > 0
    )
    select name, ${iso(sql`leaves_at`)} as "leavesAt", count(*)::int as orders, count(*) filter (where shipped >= asked)::int as "full",
           count(*) filter (where shipped > 0 and shipped < asked)::int as partial, count(*) filter (where shipped = 0)::int as open,
           count(*) filter (where shipped > 0 and late)::int as late
    from o group by name, leaves_at order by leaves_at nulls last, name`,
  );

/** Who picked, packed and confirmed, with what picking took beside what it should have. */
async function peopleOn(db: Db, siteId: string, span: Span): Promise<Report['people']> {
  const picked = await rows<{
    person: string;
    picks: number;
    handling: Record<string, number>;
    units: number;
    metres: number;
    runs: number;
    seconds: number;
  }>(
    db,
    sql`
    with ${pickTimes(siteId, span)},
    k as (
      select k.confirmed_by as person, i.handling, k.picked, coalesce(t.seconds, 0) as seconds, (r.metres + coalesce(r.approach, 0)) / n.picks as metres, 1.0 / n.picks as runs
      from t join pick k on k.id = t.id join run r on r.id = k.run_id join n on n.run_id = r.id join item i on i.id = k.item_id
      where ${within(sql`k.confirmed_at`, span)}
    ),
    h as (select person, jsonb_object_agg(handling, n) as handling from (select person, handling, sum(picked)::int as n from k group by 1, 2) g group by 1)
    select p.name as person, count(*)::int as picks, sum(k.picked)::int as units, h.handling, sum(k.metres)::float8 as metres, sum(k.runs)::float8 as runs, sum(k.seconds)::float8 as seconds
    from k join person p on p.id = k.person join h on h.person = k.person group by p.name, h.handling order by p.name`,
  );
  const others = await rows<{ person: string; refused: number; packed: number; shipments: number }>(
    db,
    sql`
    select p.name as person, (count(*) filter (where j.kind in ('scan-refused', 'pack-refused')))::int as refused,
           coalesce(sum((select sum((g->>'units')::int) from jsonb_array_elements(j.facts->'parts') g)) filter (where j.kind = 'packed'), 0)::int as packed,
           (count(*) filter (where j.kind = 'shipped'))::int as shipments
    from (values ('scan-refused'), ('pack-refused'), ('packed'), ('shipped')) k(kind)
    -- The journal is written in the order of time: what is older than the last entry before the day is not read.
    cross join lateral (
      select max(id) as id from journal where site_id = ${siteId} and kind = k.kind and at < ${span.a}
    ) before
    join journal j on j.site_id = ${siteId} and j.kind = k.kind and j.id > coalesce(before.id, 0) and ${within(sql`j.at`, span)}
    join person p on p.id = j.person_id group by p.name`,
  );
  const names = [...new Set([...picked, ...others].map((p) => p.person))].sort((a, b) => a.localeCompare(b));
  return names.map((person) => {
    const own = picked.find((p) => p.person === person);
    const rest = others.find((p) => p.person === person) ?? { refused: 0, packed: 0, shipments: 0 };
    const expected = own
      ? estimate(
          {
            runs: own.runs,
            distance: own.metres,
            stops: own.picks,
            scans: 2 * own.picks,
            drops: own.picks,
            units: own.handling,
          },
          standards,
        ).seconds
      : 0;
    return { ...rest, person, picks: own?.picks ?? 0, units: own?.units ?? 0, seconds: own?.seconds ?? 0, expected };
  });
}
