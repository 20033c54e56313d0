import { sql } from 'drizzle-orm';
import type { z } from 'zod';
import type { dayAnswer } from '@hand-relay/contract';
import { actsFor, openAt } from '@hand-relay/core/deciding/dayEnd';
import type { Amounts } from '@hand-relay/core/handling/progress';
import { iso, rows, type Db } from '../../platform/index.ts';
import { present } from '../../setup/people/index.ts';

type Answer = z.input<typeof dayAnswer>;
type Open = Answer['open'][number];

/** Orders of a site that should have left by a day and have not, those of the earliest departure first. */
export async function openOn(db: Db, siteId: string, date: string): Promise<Open[]> {
  const found = await rows<Omit<Open, 'at' | 'waits' | 'can'> & Amounts & { shipComplete: boolean }>(
    db,
    sql`
    with o as (select o.* from customer_order o where o.site_id = ${siteId} and o.status = 'open' and o.due <= ${date})
    select o.id, o.number, c.name as customer, o.due::text as due, d.name as departure, ${iso(sql`o.leaves_at`)} as "leavesAt", o.ship_complete as "shipComplete",
           l.asked, l.released, l.picked, l.packed, l.shipped,
           (select h.text from order_hold h where h.order_id = o.id and h.lifted_at is null order by h.held_at limit 1) as hold,
           coalesce((select sum(e.units)::int from exception e where e.order_id = o.id and e.settled_at is null and e.kind in ('short', 'out')), 0) as short,
           coalesce(w.list, '[]') as waves, coalesce(r.list, '[]') as runs,
           (select jsonb_build_object('id', s.id, 'number', s.number) from shipment s where s.order_id = o.id and s.state = 'open' limit 1) as shipment
    from o join customer c on c.id = o.customer_id left join departure d on d.id = o.departure_id
    join lateral (
      select sum(l.asked - l.cancelled)::int as asked, sum(l.released)::int as released, sum(l.picked)::int as picked, sum(l.packed)::int as packed, sum(l.shipped)::int as shipped
      from order_line l where l.order_id = o.id
    ) l on l.asked > l.shipped
    left join lateral (
      select jsonb_agg(distinct jsonb_build_object('id', w.id, 'number', w.number, 'state', w.state)) as list
      from order_line x join wave_line y on y.line_id = x.id and y.units > 0 join wave w on w.id = y.wave_id and w.state in ('gathering', 'planned', 'started')
      where x.order_id = o.id
    ) w on true
    left join lateral (
      select jsonb_agg(jsonb_build_object('id', r.id, 'number', r.number, 'state', r.state, 'picker', p.name, 'cart', coalesce(r.cart_code, r.call_sign)) order by r.number) as list
      from run_position q join run r on r.id = q.run_id and r.state in ('planned', 'waiting', 'picking', 'left') left join person p on p.id = r.picker_id
      where q.order_id = o.id
    ) r on true
    order by o.leaves_at nulls last, o.number`,
  );
  return found.flatMap(({ asked, released, picked, packed, shipped, shipComplete, ...order }) => {
    const { waits, at } = openAt({ asked, released, picked, packed, shipped });
    return at === null ? [] : [{ ...order, at, waits, can: actsFor(waits, { shipComplete }) }];
  });
}

/** What else is not settled at a site now, whatever order it is of. */
export async function leftOver(db: Db, siteId: string, now: Date): Promise<Answer['left']> {
  const [found] = await rows<Answer['left']>(
    db,
    sql`
    select (select count(*)::int from exception where site_id = ${siteId} and settled_at is null) as exceptions,
           (select count(*)::int from bin_count where site_id = ${siteId} and state in ('asked', 'counted')) as counts,
           (select count(*)::int from desk_task where site_id = ${siteId} and decision is null) as surplus,
           (select count(*)::int from put_away where site_id = ${siteId} and done_at is null) as "putAways",
           (select count(*)::int from run where site_id = ${siteId} and state in ('picking', 'left')) as carts,
           coalesce((
             select jsonb_agg(jsonb_build_object('id', r.id, 'number', r.number, 'picker', p.name, 'done', k.done, 'picks', k.picks) order by r.number)
             from run r join person p on p.id = r.picker_id
             join lateral (select count(*) filter (where state <> 'open')::int as done, count(*)::int as picks from pick where run_id = r.id and state <> 'out') k on true
             where r.site_id = ${siteId} and r.state = 'picking' and not exists (
               select 1 from membership m where m.site_id = r.site_id and m.person_id = r.picker_id and ${present(sql`m`, now)})
           ), '[]') as absent`,
  );
  return found!;
}
