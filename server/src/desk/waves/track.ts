import { sql } from 'drizzle-orm';
import type { z } from 'zod';
import type { track } from '@hand-relay/contract';
import { estimate, roughWalk } from '@hand-relay/core/walking/labour';
import { networkOf } from '@hand-relay/core/walking/floor';
import { floorOf } from '../../floor/plan/index.ts';
import { iso, rows, type Platform } from '../../platform/index.ts';
import { settingsOf, standards } from '../../setup/settings/index.ts';
import { LOADING, peopleHere } from './problem.ts';

type Track = z.input<typeof track>;
type Departure = Track['departures'][number];

const HOUR = 3_600_000;
/** Departures that left so long ago are still shown, and those that leave so far ahead. */
const BACK_MS = 4 * HOUR;
const AHEAD_MS = 16 * HOUR;

/** The departures around now of a site, and what is left to do for each. */
export async function trackOf({ db, clock }: Platform, siteId: string): Promise<Track> {
  const now = clock();
  const [from, to] = [new Date(now.getTime() - BACK_MS), new Date(now.getTime() + AHEAD_MS)];
  // By the day that they are due too, as the index of orders has that one; time zones are less than a day apart.
  const among = sql`o.site_id = ${siteId} and o.status in ('open', 'closed') and o.due between ${day(from, -1)} and ${day(to, 1)}
    and o.leaves_at between ${from.toISOString()} and ${to.toISOString()} and o.departure_id is not null`;
  const found = await rows<
    Omit<Departure, 'waiting' | 'packing' | 'loading'> & {
      waits: { orders: number; lines: number; units: number };
      handling: Record<string, number> | null;
    }
  >(
    db,
    sql`
    with o as (select o.id, o.departure_id, o.leaves_at from customer_order o where ${among}),
    l as (
      select o.departure_id, o.leaves_at, o.id as order_id, l.id, i.handling, l.asked - l.cancelled as asked, l.released, l.picked, l.packed, l.shipped,
             l.asked - l.cancelled - l.released + coalesce(g.units, 0) as waits
      from o join order_line l on l.order_id = o.id join item i on i.id = l.item_id
      -- What gathers in a wave has no runs yet.
      left join lateral (select sum(x.units)::int as units from wave_line x join wave w on w.id = x.wave_id
        where x.line_id = l.id and w.state = 'gathering') g on l.released > l.picked
    ),
    h as (
      select departure_id, leaves_at, jsonb_object_agg(handling, n) as handling from (
        select departure_id, leaves_at, handling, sum(waits)::int as n from l where waits > 0 group by 1, 2, 3) parts group by 1, 2
    ),
    x as (
      select distinct l.departure_id, l.leaves_at, w.id, w.number, w.state from l join wave_line x on x.line_id = l.id and x.units > 0
      join wave w on w.id = x.wave_id and w.state in ('gathering', 'planned', 'started')
    ),
    v as (
      select distinct o.departure_id, o.leaves_at, t.id, t.number from o join load_order lo on lo.order_id = o.id join load t on t.id = lo.load_id where t.state = 'planned'
    )
    select d.id, d.name, c.name as carrier, ${iso(sql`l.leaves_at`)} as "leavesAt", count(distinct l.order_id)::int as orders,
           sum(l.asked)::int as asked, sum(l.released)::int as released, sum(l.picked)::int as picked, sum(l.packed)::int as packed, sum(l.shipped)::int as shipped,
           jsonb_build_object('orders', count(distinct l.order_id) filter (where l.waits > 0), 'lines', count(*) filter (where l.waits > 0),
             'units', coalesce(sum(l.waits), 0)) as waits,
           (select h.handling from h where h.departure_id = d.id and h.leaves_at = l.leaves_at) as handling,
           coalesce((select jsonb_agg(jsonb_build_object('id', x.id, 'number', x.number, 'state', x.state) order by x.number)
                     from x where x.departure_id = d.id and x.leaves_at = l.leaves_at), '[]') as waves,
           coalesce((select jsonb_agg(jsonb_build_object('id', v.id, 'number', v.number) order by v.number)
                     from v where v.departure_id = d.id and v.leaves_at = l.leaves_at), '[]') as loads
    from l join departure d on d.id = l.departure_id left join service s on s.id = d.service_id left join carrier c on c.id = s.carrier_id
    group by d.id, c.name, l.leaves_at order by l.leaves_at, d.name`,
  );
  const [earlier] = await rows<Track['earlier']>(
    db,
    sql`select count(distinct o.id)::int as orders, coalesce(sum(l.asked - l.cancelled - l.shipped), 0)::int as units
        from customer_order o join order_line l on l.order_id = o.id
        where o.site_id = ${siteId} and o.status = 'open' and o.due < ${day(now, 1)} and o.leaves_at < ${from.toISOString()}`,
  );
  const { stages } = await settingsOf(db, siteId);
  const network = networkOf((await floorOf(db, siteId)).floor);
  return {
    departures: found.map(({ waits, handling, ...d }) => ({
      ...d,
      waiting: {
        ...waits,
        // How it would be picked is not known yet: one walk past as many stops as there are lines, in one trip.
        seconds:
          waits.lines === 0
            ? 0
            : estimate(
                {
                  runs: 1,
                  distance: roughWalk(network, waits.lines),
                  stops: waits.lines,
                  scans: 2 * waits.lines,
                  drops: waits.lines,
                  units: handling ?? {},
                },
                standards,
              ).seconds,
      },
      packing: stages === 'pick-pack-ship' ? Math.max(0, d.asked - d.packed) * standards.perPacked : 0,
      loading: d.shipped < d.asked ? LOADING : 0,
    })),
    earlier: earlier!,
    pickers: await peopleHere(db, siteId, 'runs.pick', now),
    packers: await peopleHere(db, siteId, 'orders.pack', now),
  };
}

/** The ISO date so many days from an instant's, in UTC. */
const day = (at: Date, later: number): string => new Date(at.getTime() + later * 24 * HOUR).toISOString().slice(0, 10);
