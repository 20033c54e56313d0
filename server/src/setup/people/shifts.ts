import { sql } from 'drizzle-orm';
import { isOn, shiftOf, type LocalMoment, type Shift } from '@hand-relay/core/walking/labour';
import { rows, type Db, type Tx } from '../../platform/index.ts';

/** Shifts around a moment at a site, and what its clock shows: those of the day, and of the day before past midnight. */
export async function shiftsAt(on: Db | Tx, siteId: string, now: Date): Promise<{ shifts: Shift[]; at: LocalMoment }> {
  const local = sql`${now.toISOString()}::timestamptz at time zone s.time_zone`;
  const [at] = await rows<LocalMoment>(
    on,
    sql`select to_char(${local}, 'YYYY-MM-DD') as day, to_char(${local}, 'HH24:MI') as time from site s where s.id = ${siteId}`,
  );
  const shifts = await rows<Shift>(
    on,
    sql`select r.person_id as person, r.day::text as day, r.starts as "from", r.ends as until, r.team from roster r
        where r.site_id = ${siteId} and not r.retired and r.day between ${at!.day}::date - 1 and ${at!.day}::date`,
  );
  return { shifts, at: at! };
}

/** The team that somebody works in now: that of the shift that is on, else the one they belong to. */
export async function teamOf(on: Db | Tx, siteId: string, person: string, now: Date): Promise<string> {
  const { shifts, at } = await shiftsAt(on, siteId, now);
  const shift = shiftOf(shifts, person, at);
  if (shift?.team && isOn(shift, at)) return shift.team;
  const [own] = await rows<{ team: string }>(
    on,
    sql`select team from membership where person_id = ${person} and site_id = ${siteId}`,
  );
  return own?.team ?? '';
}
