import { departuresAround, loadScenario, playShift, ShiftClock, SHIFT_MS, house } from '@hand-relay/demo';
import { localDate } from '@hand-relay/core/calendar';
import { sql } from 'drizzle-orm';
import { checkBooks } from './books.ts';
import { openEmpty, signedIn, type Person } from './relay.ts';

/** What the track says of each departure, counted anew from the lines and the picks. */
async function tellsTrack(desk: Person, query: <T>(statement: string) => Promise<T[]>): Promise<void> {
  const { departures, earlier, pickers, packers } = await desk.get('track');
  const counted = await query<Record<string, number | string>>(
    `select d.name, count(distinct o.id)::int as orders, sum(l.asked - l.cancelled)::int as asked, sum(l.picked)::int as picked, sum(l.packed)::int as packed,
            sum(l.shipped)::int as shipped, (sum(l.asked - l.cancelled) - coalesce(sum(k.units), 0))::int as waits
     from customer_order o join departure d on d.id = o.departure_id join order_line l on l.order_id = o.id
     left join lateral (select sum(case state when 'open' then units else picked end)::int as units from pick where line_id = l.id and state <> 'out') k on true
     where o.site_id = 'larkmoor' and o.leaves_at < now() + interval '16 hours' group by d.name, o.leaves_at order by o.leaves_at`,
  );
  expect(
    departures.map(({ name, orders, asked, picked, packed, shipped, waiting }) => {
      return { name, orders, asked, picked, packed, shipped, waits: waiting.units };
    }),
  ).toEqual(counted);
  expect(departures.length).toBeGreaterThan(3);
  expect(departures.flatMap((d) => d.waves).length).toBeGreaterThan(1);
  // Nine lines take longer than one, and what is all packed takes no packing.
  const waiting = departures.map((d) => d.waiting).sort((a, b) => a.lines - b.lines);
  expect(waiting.at(-1)!.seconds).toBeGreaterThan(waiting[0]!.seconds);
  expect({ earlier, pickers, packers }).toEqual({ earlier: { orders: 0, units: 0 }, pickers: 3, packers: 2 });
}

describe('the demo in mid-shift', () => {
  it('opens with waves done, under way and planned, carts at the bench, shipments that left, and things gone wrong', async () => {
    const clock = new ShiftClock();
    const relay = await openEmpty({ clock: clock.now });
    const query = async <T>(statement: string) => (await relay.platform.db.execute(sql.raw(statement))).rows as T[];
    try {
      const opened = new Date();
      const { items } = await loadScenario(relay.platform.db, new Date(opened.getTime() - SHIFT_MS), {
        today: localDate(opened.getTime(), house.site.timeZone),
        departures: departuresAround(opened),
      });
      await playShift(relay, { clock, opened, items });
      await checkBooks({ query }, 'mid-shift');
      const desk = await signedIn(relay, 'maren');
      const { waves } = await desk.get('waves');
      expect(waves.map((w) => w.state).sort()).toEqual(
        ['done', 'gathering', 'planned', 'started', 'started', expect.stringMatching(/done|started/)].sort(),
      );
      const { exceptions } = await desk.get('exceptions');
      expect(exceptions.map((e) => e.kind)).toEqual(expect.arrayContaining(['short', 'elsewhere']));
      const dock = await signedIn(relay, 'len');
      const left = (await dock.get('dock', { query: { state: 'confirmed' } })).shipments;
      expect(left.length).toBeGreaterThan(8);
      expect(left.every((s) => s.tracking)).toBe(true);
      expect((await dock.get('dock')).shipments.length).toBeGreaterThan(5);
      expect((await (await signedIn(relay, 'ada')).get('bench')).runs.length).toBeGreaterThan(0);
      const runs = await query<{ state: string; n: number }>('select state, count(*)::int as n from run group by 1');
      expect(runs.find((r) => r.state === 'picking')?.n).toBeGreaterThan(0);
      await tellsTrack(desk, query);
      // Everything happened between the start of the shift and its opening, as scans of people, at their pace.
      const [span] = await query<{ first: Date; last: Date; scans: number }>(
        `select min(at) as first, max(at) as last, count(*) filter (where kind in ('scan', 'refused'))::int as scans from journal where device <> 'demo'`,
      );
      expect(new Date(span!.first).getTime()).toBeGreaterThanOrEqual(opened.getTime() - SHIFT_MS);
      expect(new Date(span!.last).getTime() - opened.getTime()).toBeLessThan(60_000);
      // From now on its clock is that of everybody.
      expect(Math.abs(clock.now().getTime() - Date.now())).toBeLessThan(1000);
    } finally {
      await relay.close();
    }
  }, 240_000);
});
