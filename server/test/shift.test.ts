import { departuresAround, loadScenario, playShift, ShiftClock, SHIFT_MS, house } from '@hand-relay/demo';
import { instantOf, localDate } from '@hand-relay/core/calendar';
import { sql } from 'drizzle-orm';
import { checkBooks } from './books.ts';
import { openEmpty, signedIn, type Person } from './relay.ts';

/** What the track says of each departure, counted anew from the lines and the picks. */
async function tellsTrack(desk: Person, query: <T>(statement: string) => Promise<T[]>, opened: Date): Promise<void> {
  const { departures, earlier, pickers, packers } = await desk.get('track');
  const counted = await query<Record<string, number | string>>(
    `select d.name, count(distinct o.id)::int as orders, sum(l.asked - l.cancelled)::int as asked, sum(l.picked)::int as picked, sum(l.packed)::int as packed,
            sum(l.shipped)::int as shipped, (sum(l.asked - l.cancelled) - coalesce(sum(k.units), 0))::int as waits
     from customer_order o join departure d on d.id = o.departure_id join order_line l on l.order_id = o.id
     left join lateral (select sum(case state when 'open' then units else picked end)::int as units from pick where line_id = l.id and state <> 'out') k on true
     where o.site_id = 'larkmoor' and o.leaves_at < '${opened.toISOString()}'::timestamptz + interval '16 hours' group by d.name, o.leaves_at order by o.leaves_at`,
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

/** What the end of the day says, counted anew. */
async function tellsDay(desk: Person, query: <T>(statement: string) => Promise<T[]>, date: string): Promise<void> {
  const { open, left, report } = await desk.get('day', { query: { date } });
  const [counted] = await query<Record<string, number>>(
    `select (select count(*) from customer_order where site_id = 'larkmoor' and status = 'open' and due = '${date}')::int as open,
            (select count(*) from pick where confirmed_at is not null)::int as picks, (select sum(picked) from pick)::int as units,
            (select count(*) from journal where kind in ('scan-refused', 'pack-refused'))::int as refused,
            (select sum(packed) from order_line l join customer_order o on o.id = l.order_id where o.site_id = 'larkmoor')::int as packed,
            (select count(*) from shipment where state = 'confirmed')::int as shipments, (select count(*) from run where state in ('picking', 'left'))::int as carts`,
  );
  const sum = (of: 'picks' | 'units' | 'refused' | 'packed' | 'shipments') =>
    report.people.reduce((n, p) => n + p[of], 0);
  expect({
    open: open.length,
    picks: sum('picks'),
    units: sum('units'),
    refused: sum('refused'),
    packed: sum('packed'),
    shipments: sum('shipments'),
    carts: left.carts,
  }).toEqual(counted);
  expect(report.shipments).toBe(counted!['shipments']);
  expect(report.departures.map((d) => d.full + d.partial + d.open)).toEqual(report.departures.map((d) => d.orders));
  expect(report.departures.reduce((n, d) => n + d.full, 0)).toBe(counted!['shipments']);
  expect(report.shorts.map((s) => s.kind).sort()).toEqual(['elsewhere', 'short', 'short']);
  expect(report.waves.every((w) => w.foreseen !== null)).toBe(true);
  // What is short of an order that is packed but for that ships at once, and the rest stays open.
  const one = open.find((o) => o.can.includes('ship-short'))!;
  expect(one).toMatchObject({ at: 'release', short: one.waits.release });
  await desk.ask('tracking', { id: one.shipment!.id, body: { from: 'carrier' } });
  await desk.get('confirm', { id: one.shipment!.id, body: { rest: 'keep-open' } });
  const after = await desk.get('day', { query: { date } });
  expect(after.open.find((o) => o.id === one.id)).toMatchObject({
    waits: { ...one.waits, ship: 0 },
    can: ['move', 'cancel'],
  });
  expect(after.report.departures.reduce((n, d) => n + d.partial, 0)).toBe(1);
  // Of an earlier day there is nothing to tell, and its report can be printed all the same.
  const before = await desk.get('day', { query: { date: '2001-01-01' } });
  expect(before).toMatchObject({ open: [], report: { people: [], waves: [], shorts: [], shipments: 0 } });
  for (const query of [{ date }, { date: '2001-01-01' }]) {
    const paper = await desk.ask('dayPaper', { query });
    expect([paper.status, (paper.body as Buffer).subarray(0, 5).toString()]).toEqual([200, '%PDF-']);
  }
}

describe('the demo in mid-shift', () => {
  it('opens with waves done, under way and planned, carts at the bench, shipments that left, and things gone wrong', async () => {
    const clock = new ShiftClock();
    const relay = await openEmpty({ clock: clock.now });
    const query = async <T>(statement: string) => (await relay.platform.db.execute(sql.raw(statement))).rows as T[];
    try {
      // At noon, whatever the hour is in which this runs: a shift that began on the day before has another report.
      const today = localDate(Date.now(), house.site.timeZone);
      const opened = new Date(instantOf(today, '12:00', house.site.timeZone));
      await loadScenario(relay.platform.db, new Date(opened.getTime() - SHIFT_MS), {
        today,
        departures: departuresAround(opened),
      });
      await playShift(relay, { clock, opened });
      // Everything happened between the start of the shift and its opening; from now on its clock is that of everybody.
      const [span] = await query<{ first: Date; last: Date }>(
        `select min(at) as first, max(at) as last from journal where device <> 'demo'`,
      );
      expect(new Date(span!.first).getTime()).toBeGreaterThanOrEqual(opened.getTime() - SHIFT_MS);
      expect(new Date(span!.last).getTime()).toBeLessThanOrEqual(opened.getTime());
      const [before, now, after] = [Date.now(), clock.now().getTime(), Date.now()];
      expect([before <= now, now <= after]).toEqual([true, true]);
      clock.set(opened.getTime());
      await checkBooks({ query }, 'mid-shift');
      const desk = await signedIn(relay, 'maren');
      const { waves } = await desk.get('waves');
      const states = (state: string) => waves.filter((w) => w.state === state).length;
      expect([states('planned'), states('gathering'), waves.length]).toEqual([1, 1, 6]);
      expect(states('done')).toBeGreaterThan(0);
      expect(states('started')).toBeGreaterThan(1);
      const { exceptions } = await desk.get('exceptions');
      expect(exceptions.map((e) => e.kind)).toEqual(expect.arrayContaining(['short', 'elsewhere']));
      const dock = await signedIn(relay, 'len');
      const left = (await dock.get('dock', { query: { state: 'confirmed' } })).shipments;
      expect(left.length).toBeGreaterThan(8);
      expect(left.every((s) => s.tracking)).toBe(true);
      expect((await dock.get('dock')).shipments.length).toBeGreaterThan(5);
      expect((await (await signedIn(relay, 'ada')).get('bench')).runs.length).toBeGreaterThan(0);
      // Bram's phone is where there is no radio, with a run in hand; the others are heard.
      const { people } = await desk.get('crew');
      expect(people.filter((p) => p.offlineSince).map((p) => p.id)).toEqual(['bram']);
      const runs = await query<{ state: string; n: number }>('select state, count(*)::int as n from run group by 1');
      expect(runs.find((r) => r.state === 'picking')?.n).toBeGreaterThan(0);
      await tellsTrack(desk, query, opened);
      await tellsDay(desk, query, today);
    } finally {
      await relay.close();
    }
  }, 240_000);
});
