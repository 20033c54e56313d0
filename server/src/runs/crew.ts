import { sql } from 'drizzle-orm';
import type { Crew } from '@hand-relay/contract';
import { iso, rows, type Db } from '../platform/index.ts';

/** Who may pick here, who is here, what each has in hand and where they scanned last; teams, and types of carts there are. */
export async function crewOf(on: Db, siteId: string, now: Date): Promise<Crew> {
  const people = await rows<Crew['people'][number]>(
    on,
    sql`
    select p.id, p.name, m.team, exists (
             select 1 from session s where s.person_id = p.id and s.site_id = m.site_id and s.expires_at > ${now.toISOString()}) as here,
           r.id as run, ${iso(sql`k.at`)} as "lastScan", k.place as at
    from membership m join person p on p.id = m.person_id
    left join run r on r.picker_id = p.id and r.state = 'picking' and r.site_id = m.site_id
    left join lateral (
      select k.confirmed_at as at, jsonb_build_object('aisle', b.aisle, 'y', b.y) as place from pick k join place b on b.id = k.bin_id
      where k.run_id = r.id and k.confirmed_at is not null order by k.confirmed_at desc limit 1
    ) k on true
    where m.site_id = ${siteId} and m.active and exists (
      select 1 from role o where o.site_id = m.site_id and o.name = any(m.roles) and 'runs.pick' = any(o.rights)) order by p.name`,
  );
  const carts = await rows<Crew['carts'][number]>(
    on,
    sql`select t.id, t.name, t.positions from cart_type t where exists (
          select 1 from cart c where c.type_id = t.id and c.site_id = ${siteId} and not c.retired) order by t.positions desc, t.name`,
  );
  return { people, teams: [...new Set(people.map((p) => p.team).filter(Boolean))].sort(), carts };
}
