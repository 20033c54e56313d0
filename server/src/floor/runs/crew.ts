import { sql } from 'drizzle-orm';
import type { Crew } from '@hand-relay/contract';
import { isOn, shiftOf } from '@hand-relay/core/walking/labour';
import { present, shiftsAt, silentBefore } from '../../setup/people/index.ts';
import { iso, rows, type Db } from '../../platform/index.ts';
import { paceHere } from '../../desk/waves/index.ts';

type PersonRow = Omit<Crew['people'][number], 'ends' | 'shift'> & { seconds: number | null };

/** How long after a carton was closed its bench counts as one that somebody packs at. */
const PACKS_MS = 10 * 60_000;

/** Who may pick here, who is here, what each has in hand and where they scanned last; what waits, team by team. */
export async function crewOf(on: Db, siteId: string, now: Date): Promise<Crew> {
  const found = await rows<PersonRow>(
    on,
    sql`
    select p.id, p.name, m.team, ${present(sql`m`, now)} as here,
           r.id as run, r.number, ${iso(sql`k.at`)} as "lastScan", k.place as at,
           (select case when r.id is not null and max(s.heard_at) < ${silentBefore(now)} then ${iso(sql`max(s.heard_at)`)} end
            from session s where s.person_id = p.id and s.site_id = m.site_id and s.expires_at > ${now.toISOString()}) as "offlineSince", coalesce(c.picks, 0) as picks, coalesce(c.done, 0) as "picksDone",
           q.queued, coalesce(r.seconds * (c.picks - c.done) / greatest(1, c.picks), 0) + q.seconds as seconds
    from membership m join person p on p.id = m.person_id
    left join run r on r.picker_id = p.id and r.state = 'picking' and r.site_id = m.site_id
    left join lateral (
      select count(*)::int as picks, (count(*) filter (where k.state <> 'open'))::int as done from pick k where k.run_id = r.id and k.state <> 'out'
    ) c on r.id is not null
    left join lateral (
      select k.confirmed_at as at, jsonb_build_object('aisle', b.aisle, 'y', b.y) as place from pick k join place b on b.id = k.bin_id
      where k.run_id = r.id and k.confirmed_at is not null order by k.confirmed_at desc limit 1
    ) k on true
    cross join lateral (
      select count(*)::int as queued, coalesce(sum(w.seconds), 0) as seconds from run w
      where w.site_id = m.site_id and w.assigned_id = p.id and w.state = 'waiting'
    ) q
    where m.site_id = ${siteId} and m.active and exists (
      select 1 from role o where o.site_id = m.site_id and o.name = any(m.roles) and 'runs.pick' = any(o.rights)) order by p.name, r.number`,
  );
  // Who has two runs in hand is one person.
  const people = [...new Map(found.map((p) => [p.id, p])).values()];
  const { shifts, at } = await shiftsAt(on, siteId, now);
  const shiftFor = (person: string) => {
    const shift = shiftOf(shifts, person, at);
    return shift ? { from: shift.from, until: shift.until, on: isOn(shift, at), team: shift.team } : null;
  };
  const runs = await rows<Crew['runs'][number]>(
    on,
    sql`
    select r.id, r.number, r.call_sign as "callSign", w.id as wave, w.number as "waveNumber", r.state, r.picker_id as "pickerId",
           r.assigned_id as "assignedId", r.team, r.priority, q.orders, k.picks, k.done as "picksDone", ${iso(sql`q.leaves`)} as "leavesAt",
           r.seconds * (k.picks - k.done) / greatest(1, k.picks) as "secondsLeft"
    from run r join wave w on w.id = r.wave_id
    join lateral (
      select count(*)::int as orders, min(o.leaves_at) as leaves from run_position q join customer_order o on o.id = q.order_id where q.run_id = r.id
    ) q on true
    join lateral (
      select count(*)::int as picks, (count(*) filter (where k.state <> 'open'))::int as done from pick k where k.run_id = r.id and k.state <> 'out'
    ) k on true
    where r.site_id = ${siteId} and r.state in ('planned', 'waiting', 'picking')
    order by r.priority desc, q.leaves nulls last, r.rank, r.number`,
  );
  const pace = runs.length > 0 ? await paceHere(on, siteId, now) : 1;
  const carts = await rows<Crew['carts'][number]>(
    on,
    sql`select t.id, t.name, t.positions, (
          select count(*)::int from cart c where c.type_id = t.id and c.site_id = ${siteId} and not c.retired and not exists (
            select 1 from run r where r.site_id = c.site_id and r.cart_code = c.code and (r.state in ('waiting', 'picking', 'left')
              or exists (select 1 from put_away g where g.run_id = r.id and g.done_at is null)))
        ) as free from cart_type t where exists (
          select 1 from cart c where c.type_id = t.id and c.site_id = ${siteId} and not c.retired) order by t.positions desc, t.name`,
  );
  const queues = await rows<Crew['queues'][number]>(
    on,
    sql`select coalesce(m.team, r.team) as team, (count(*) filter (where r.state = 'waiting'))::int as waiting, (count(*) filter (where r.state = 'picking'))::int as picking
        from run r left join membership m on m.site_id = r.site_id and m.person_id = coalesce(r.picker_id, r.assigned_id)
        where r.site_id = ${siteId} and r.state in ('waiting', 'picking') group by 1 order by 1`,
  );
  const [after] = await rows<{ waiting: number; ready: number; benches: number; free: number }>(
    on,
    sql`select (select count(*)::int from place b where b.site_id = ${siteId} and b.kind = 'bench' and not b.retired) as benches,
               (select count(*)::int from place b where b.site_id = ${siteId} and b.kind = 'bench' and not b.retired and b.code not in (
                  select c.bench from carton c where c.site_id = ${siteId} and (c.closed_at is null or c.closed_at > ${new Date(now.getTime() - PACKS_MS).toISOString()}))) as free,
               (select count(*)::int from run r where r.site_id = ${siteId} and r.state = 'left') as waiting,
               (select count(distinct l.order_id)::int from order_line l join customer_order o on o.id = l.order_id
                where o.site_id = ${siteId} and l.packed > l.shipped) as ready`,
  );
  return {
    people: people.map(({ seconds, ...p }) => ({
      ...p,
      shift: shiftFor(p.id),
      ends: seconds ? new Date(now.getTime() + 1000 * pace * seconds).toISOString() : null,
    })),
    runs,
    pace,
    teams: [...new Set(people.map((p) => p.team).filter(Boolean))].sort(),
    queues,
    bench: { waiting: after!.waiting, free: after!.free, all: after!.benches },
    dock: { ready: after!.ready },
    carts,
  };
}
