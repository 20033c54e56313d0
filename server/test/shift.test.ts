import { departuresAround, loadScenario, playShift, ShiftClock, SHIFT_MS, house } from '@hand-relay/demo';
import { localDate } from '@hand-relay/core/calendar';
import { sql } from 'drizzle-orm';
import { checkBooks } from './books.ts';
import { openEmpty, signedIn } from './relay.ts';

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
