import { sql } from 'drizzle-orm';
import type { Row } from '@hand-relay/core/reading/sheets';
import { recordset, rows } from '../../../platform/index.ts';
import { faultsOf, nothing, type Kind } from './kind.ts';

/** When people are to work here. */
export const roster: Kind = {
  read: (on, site) =>
    rows<Row>(
      on,
      sql`select person_id as person, day::text as day, starts as "from", ends as until, team, retired
          from roster where site_id = ${site} order by day, starts, person_id`,
    ),
  async faults(on, site, list) {
    const there = new Set(
      (
        await rows<{ id: string }>(on, sql`select person_id as id from membership where site_id = ${site} and active`)
      ).map((m) => m.id),
    );
    return faultsOf(list, (r, fail) => {
      if (!there.has(String(r['person']))) fail('person', 'a-known', { what: 'people' });
    });
  },
  refusesRetiring: nothing,
  async write({ tx, actor }, list) {
    await tx.execute(sql`
      insert into roster (site_id, person_id, day, starts, ends, team, retired)
      select ${actor.siteId}, r.person, r.day, r."from", r.until, coalesce(r.team, ''), coalesce(r.retired, false)
      from jsonb_to_recordset(${recordset(list)}) as r(person text, day date, "from" text, until text, team text, retired boolean)
      on conflict (site_id, person_id, day, starts) do update set ends = excluded.ends, team = excluded.team, retired = excluded.retired`);
  },
};
