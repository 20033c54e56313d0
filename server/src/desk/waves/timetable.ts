import { sql } from 'drizzle-orm';
import type { TimetableEntry } from '@hand-relay/contract';
import { chooseForWave, dueSteps, gathersNow, type TimetableRule } from '@hand-relay/core/deciding/timetable';
import {
  anyOf,
  change,
  iso,
  notFound,
  Refusal,
  rows,
  runTurns,
  unattended,
  type Change,
  type Db,
  type Platform,
  type Tx,
} from '../../platform/index.ts';
import { printAtStart } from '../../setup/printing/index.ts';
import { planWave } from './plan.ts';
import { release } from './release.ts';
import { startWave } from './state.ts';

interface Entry extends TimetableRule {
  id: string;
  site: string;
  name: string;
  /** What the site's clock shows. */
  day: string;
  time: string;
}

/** Who does what the timetable does by itself. */
const itself = (platform: Platform, siteId: string) => unattended(platform, siteId, 'timetable', 'Timetable');

const entriesOf = (on: Db | Tx, now: Date, only = sql`true`): Promise<Entry[]> =>
  rows<Entry>(
    on,
    sql`select t.id, t.site_id as site, t.name, t.wave_orders as "waveOrders", t.wave_units as "waveUnits", t.gather, t.gather_at as "gatherAt",
               t.gather_level as "gatherLevel", t.plan, t.plan_at as "planAt", t.start, t.start_at as "startAt",
               to_char(${now.toISOString()}::timestamptz at time zone s.time_zone, 'YYYY-MM-DD') as day,
               to_char(${now.toISOString()}::timestamptz at time zone s.time_zone, 'HH24:MI') as time
        from timetable t join site s on s.id = t.site_id where not t.retired and ${only} order by t.site_id, t.name`,
  );

/**
 * Open orders that an entry gathers, the most urgent first: those of its departure that leave on the site's day, not on
 * hold and not released, of its channel, class, zone, kind and size.
 */
const candidates = (
  on: Db | Tx,
  entry: Pick<Entry, 'id' | 'day'>,
): Promise<{ order: string; lines: number; units: number }[]> =>
  rows(
    on,
    sql`
    select o.id as "order", count(l.id)::int as lines, sum(l.asked - l.cancelled - l.released)::int as units
    from timetable t join site s on s.id = t.site_id join customer_order o on o.site_id = t.site_id and o.status = 'open'
    join customer c on c.id = o.customer_id join order_line l on l.order_id = o.id and l.asked - l.cancelled - l.released > 0
    where t.id = ${entry.id} and (t.departure_id is null or o.departure_id = t.departure_id)
      and (o.leaves_at is null or (o.leaves_at at time zone s.time_zone)::date <= ${entry.day}::date)
      and (t.channel is null or o.channel = t.channel) and (t.customer_class is null or c.class = t.customer_class)
      and (t.kind is null or o.kind = t.kind)
      and not exists (select 1 from order_hold h where h.order_id = o.id and h.lifted_at is null and 'release' = any(h.stops))
      and (t.zone is null or exists (
        select 1 from balance b join place p on p.id = b.place_id and p.kind = 'bin' and p.site_id = t.site_id join zone z on z.id = p.zone_id
        where z.code = t.zone and b.item_id in (select l2.item_id from order_line l2 where l2.order_id = o.id)))
    group by o.id, t.id having (t.max_lines is null or count(l.id) <= t.max_lines)
      and (t.max_units is null or sum(l.asked - l.cancelled - l.released) <= t.max_units)
    order by o.priority, o.leaves_at nulls last, o.number`,
  );

/**
 * Releases what an entry gathers into its wave of the day that still gathers, or into a new one.
 *
 * @returns the wave, or null where nothing can be gathered
 */
async function gather(current: Change, entry: Entry): Promise<string | null> {
  const { tx } = current;
  await tx.execute(sql`select 1 from timetable where id = ${entry.id} for update`);
  const [open] = await rows<{ id: string; orders: number; units: number }>(
    tx,
    sql`select w.id, count(distinct l.order_id)::int as orders, coalesce(sum(x.units), 0)::int as units from wave w
        left join wave_line x on x.wave_id = w.id left join order_line l on l.id = x.line_id
        where w.entry_id = ${entry.id} and w.day = ${entry.day} and w.state = 'gathering' group by w.id order by w.number desc limit 1`,
  );
  const { joins, orders } = chooseForWave(entry, open ?? null, await candidates(tx, entry));
  if (orders.length === 0) return null;
  try {
    const { wave } = await release(current, {
      orders: orders.map((o) => o.order),
      lines: [],
      wave: joins ? open!.id : null,
    });
    await tx.execute(sql`
      update wave w set entry_id = t.id, day = ${entry.day}, picking = t.picking, cart_type_id = t.cart_type_id, team = t.team, people = t.people
      from timetable t where w.id = ${wave} and t.id = ${entry.id}`);
    return wave;
  } catch (error) {
    if (error instanceof Refusal && error.code === 'nothing-to-release') return null;
    throw error;
  }
}

/** Gathers for an entry by hand. */
export async function gatherEntry(current: Change, id: string): Promise<{ wave: string }> {
  const [entry] = await entriesOf(current.tx, current.now, sql`t.id = ${id} and t.site_id = ${current.actor.siteId}`);
  if (!entry) throw notFound('entry', id);
  const wave = await gather(current, entry);
  if (wave === null) throw new Refusal('nothing-to-gather', { entry: entry.name });
  return { wave };
}

/** Entries of a site with what each would gather now. */
export async function timetableOf(platform: Platform, siteId: string): Promise<TimetableEntry[]> {
  const found = await entriesOf(platform.db, platform.clock(), sql`t.site_id = ${siteId}`);
  const facts = await rows<{ id: string; departure: string | null; leaves: string | null }>(
    platform.db,
    sql`select t.id, d.name as departure, ${iso(sql`(
          select min(o.leaves_at) from customer_order o where o.site_id = t.site_id and o.departure_id = d.id and o.status = 'open' and o.leaves_at > ${platform.clock().toISOString()})`)} as leaves
        from timetable t left join departure d on d.id = t.departure_id where t.id = ${anyOf(found.map((e) => e.id))}`,
  );
  const entries: TimetableEntry[] = [];
  for (const e of found) {
    const waiting = await candidates(platform.db, e);
    const { departure, leaves } = facts.find((f) => f.id === e.id)!;
    const { id, name, gather: how, gatherAt, gatherLevel, plan, planAt, start, startAt } = e;
    const sum = (of: 'lines' | 'units') => waiting.reduce((n, c) => n + c[of], 0);
    entries.push({
      id,
      name,
      departure,
      leavesAt: leaves,
      orders: waiting.length,
      lines: sum('lines'),
      units: sum('units'),
      gather: how,
      gatherAt,
      gatherLevel,
      plan,
      planAt,
      start,
      startAt,
    });
  }
  return entries;
}

/** What decides whether an entry gathers now; nothing is read for one that does so by hand. */
async function isGathering({ db }: Platform, entry: Entry): Promise<boolean> {
  if (entry.gather === 'hand') return false;
  const waiting = entry.gather === 'level' ? (await candidates(db, entry)).length : 0;
  const today = await rows(db, sql`select 1 from wave where entry_id = ${entry.id} and day = ${entry.day} limit 1`);
  return gathersNow(entry, { time: entry.time, waiting, gatheredToday: today.length > 0 });
}

/**
 * What the timetable does by itself: gathers, plans and starts what is due. What cannot be done is tried again at the
 * next turn; one entry that fails keeps no other. Of several servers one takes the turn.
 */
export async function turnTimetable(platform: Platform): Promise<void> {
  await platform.alone('timetable', () => takeTurn(platform), { wait: false });
}

async function takeTurn(platform: Platform): Promise<void> {
  for (const entry of await entriesOf(platform.db, platform.clock()))
    try {
      const actor = await itself(platform, entry.site);
      if (await isGathering(platform, entry)) await change(platform, actor, null, (current) => gather(current, entry));
      const waves = await rows<{ id: string; state: string; day: string }>(
        platform.db,
        sql`select id, state, day::text as day from wave where entry_id = ${entry.id} and state in ('gathering', 'planned') order by rank`,
      );
      for (const wave of waves) {
        const steps = dueSteps(entry, wave, entry);
        if (steps.includes('plan')) await planWave(platform, actor, null, wave.id);
        if (steps.includes('start')) {
          await change(platform, actor, null, (current) => startWave(current, wave.id));
          await printAtStart(platform, actor, wave.id);
        }
      }
    } catch (error) {
      if (!(error instanceof Refusal)) platform.log.error({ err: error, entry: entry.name }, 'timetable');
    }
}

const TURN_MS = 20_000;

/** Lets the timetable work, one turn after the other. */
export const runTimetable = (platform: Platform): (() => Promise<void>) =>
  runTurns(platform, 'timetable', TURN_MS, () => turnTimetable(platform));
