import fc from 'fast-check';
import { mapFloor } from '../floor/index.ts';
import { seeded } from '../../random/index.ts';
import { openMeter } from '../routing/index.ts';
import {
  chanceOf,
  chances,
  dueIn,
  estimate,
  firstStandards,
  forecast,
  roughWalk,
  forecastInTurn,
  paceOf,
} from './index.ts';

describe('work', () => {
  it("takes what the planner's example says", () => {
    const work = { runs: 1, distance: 402, stops: 14, scans: 30, drops: 16, units: { easy: 25, heavy: 2 } };
    expect(estimate(work, firstStandards)).toEqual({ seconds: 631.5, walk: 335, handling: 296.5 });
  });

  it('tells by when each departure is served, the earliest first, after what is under way', () => {
    const minutes = (n: number) => n * 60_000;
    const dues = [
      { leavesAt: minutes(60), seconds: 1200 },
      { leavesAt: minutes(20), seconds: 1200 },
      { leavesAt: null, seconds: 60 },
      { leavesAt: minutes(-1), seconds: 600 },
    ];
    expect(chances(dues, 2, 600, 0)).toEqual([
      { ends: minutes(25), chance: 'made' },
      { ends: minutes(15), chance: 'made' },
      { ends: minutes(25.5), chance: null },
      { ends: null, chance: 'gone' },
    ]);
    expect(chances(dues, 1, 600, 0).map((c) => c.chance)).toEqual(['tight', 'missed', null, 'gone']);
    expect(chances(dues, 0, 0, 0).map((c) => c.chance)).toEqual(['missed', 'missed', null, 'gone']);
  });

  it('is never made later by more people', () => {
    const due = fc.record({ leavesAt: fc.option(fc.integer({ min: 1, max: 1e7 })), seconds: fc.nat(5000) });
    fc.assert(
      fc.property(fc.array(due), fc.nat(5000), fc.integer({ min: 1, max: 20 }), (dues, backlog, people) => {
        const [few, more] = [chances(dues, people, backlog, 0), chances(dues, people + 1, backlog, 0)];
        few.forEach((f, i) => expect(more[i]!.ends! <= f.ends!).toBe(true));
      }),
    );
  });

  it('is foreseen roughly where only the number of stops is known: within a fifth of the mean of shortest walks', () => {
    const random = seeded(11);
    const home = { aisle: 'A0', y: 0 };
    for (const blocks of [1, 2, 3])
      for (const aisles of [4, 10, 20])
        for (const stops of [1, 2, 5, 10, 20, 40, 80]) {
          const map = mapFloor({
            aisles: Array.from({ length: aisles }, (_, i) => ({ id: `A${i}`, x: i * 5 })),
            crossAisles: Array.from({ length: blocks + 1 }, (_, i) => (i * 45) / blocks),
          });
          const meter = openMeter(map, home, home);
          const walks = Array.from({ length: 50 }, () =>
            meter.length([
              meter.load(
                Array.from({ length: stops }, () => ({
                  aisle: `A${random.int(0, aisles - 1)}`,
                  y: 45 * random.next(),
                })),
              ),
            ]),
          );
          const mean = walks.reduce((a, b) => a + b, 0) / walks.length;
          expect(Math.abs(roughWalk(map.network, stops) / mean - 1)).toBeLessThan(0.22);
        }
    expect(roughWalk(mapFloor({ aisles: [], crossAisles: [0, 1] }).network, 3)).toBe(0);
  });

  it('lets one crew work off several waves in turn, a team only what is its own', () => {
    const here = [
      { id: 'a', team: '' },
      { id: 'b', team: 'cold' },
    ];
    const ends = (waves: Parameters<typeof forecastInTurn>[0], crew = here) =>
      forecastInTurn(waves, crew).map((f) => f.ends);
    // The second wave waits until somebody is free, and never holds the first up.
    expect(ends([{ left: [{ seconds: 100 }, { seconds: 100 }] }, { left: [{ seconds: 50 }] }])).toEqual([100, 150]);
    expect(ends([{ left: [{ seconds: 60, team: 'cold' }] }, { left: [{ seconds: 10, team: 'cold' }] }])).toEqual([
      60, 70,
    ]);
    expect(ends([{ left: [{ seconds: 60, team: 'north' }] }, { left: [{ seconds: 10 }] }])).toEqual([null, 10]);
    // What somebody has begun in a later wave is finished first; people of a wave's own do nothing else.
    expect(ends([{ left: [{ seconds: 40 }] }, { left: [{ seconds: 30, person: 'a' }] }], [here[0]!])).toEqual([70, 30]);
    expect(ends([{ left: [{ seconds: 40 }], people: 1 }, { left: [{ seconds: 30 }] }], [])).toEqual([40, null]);
    fc.assert(
      fc.property(
        fc.array(fc.array(fc.integer({ min: 1, max: 900 }), { minLength: 1, maxLength: 5 }), {
          minLength: 1,
          maxLength: 4,
        }),
        fc.integer({ min: 1, max: 4 }),
        (waves, people) => {
          const crew = Array.from({ length: people }, (_, i) => ({ id: String(i), team: '' }));
          const all = forecastInTurn(
            waves.map((w) => ({ left: w.map((seconds) => ({ seconds })) })),
            crew,
          );
          // Worked off one after the other, each prefix of the waves is done as if it were one.
          waves.forEach((_, i) => {
            const before = waves.slice(0, i + 1).flat();
            const whole = forecast(
              before.map((seconds) => ({ seconds })),
              people,
            );
            expect(Math.max(...all.slice(0, i + 1).map((f) => f.ends!))).toBeCloseTo(whole.ends!);
          });
        },
      ),
    );
  });

  it('learns its pace from work that was done, and believes neither a few scans nor a run left lying', () => {
    expect(paceOf([])).toBe(1);
    expect(paceOf([{ expected: 1200, actual: 2400 }])).toBeCloseTo(1.5);
    expect(paceOf([{ expected: 12, actual: 36 }])).toBeLessThan(1.03);
    expect(paceOf([{ expected: 600, actual: 86_400 }])).toBeCloseTo(paceOf([{ expected: 600, actual: 1800 }]));
    expect(paceOf([{ expected: 3600, actual: 1800 }])).toBeLessThan(0.7);
  });

  it('ends when the last of the crew is done, with a range that narrows as work is shared out in more runs', () => {
    expect(forecast([{ seconds: 600 }, { seconds: 600 }, { seconds: 300, person: 'a' }], 2)).toMatchObject({
      ends: 900,
    });
    expect(forecast([{ seconds: 100 }], 1, 2)).toMatchObject({ ends: 200 });
    expect(forecast([], 0)).toEqual({ ends: 0, early: 0, late: 0 });
    expect(forecast([{ seconds: 5 }], 0).ends).toBeNull();
    // Whoever has a run goes on though nobody else is there.
    expect(forecast([{ seconds: 5, person: 'a' }, { seconds: 5 }], 0)).toMatchObject({ ends: 10 });
    const width = (runs: number) => {
      const { early, late } = forecast(
        Array.from({ length: runs }, () => ({ seconds: 3600 / runs })),
        1,
      );
      return late! - early!;
    };
    expect(width(8)).toBeLessThan(width(2));
    fc.assert(
      fc.property(
        fc.array(fc.integer({ min: 1, max: 5000 }), { minLength: 1, maxLength: 12 }),
        fc.integer({ min: 1, max: 5 }),
        (runs, people) => {
          const { ends, early, late } = forecast(
            runs.map((seconds) => ({ seconds })),
            people,
          );
          const all = runs.reduce((a, b) => a + b, 0);
          expect(ends).toBeGreaterThanOrEqual(Math.max(all / people, ...runs) - 1e-6);
          expect(ends).toBeLessThanOrEqual(all / people + Math.max(...runs) + 1e-6);
          expect(early! <= ends! && ends! <= late!).toBe(true);
        },
      ),
    );
    expect([900, 1100, 1300].map((due) => chanceOf({ ends: 1000, late: 1200 }, due))).toEqual([
      'missed',
      'tight',
      'made',
    ]);
    expect(chanceOf({ ends: null, late: null }, 9)).toBe('missed');
    expect(dueIn(3_600_000, 0, { packing: 1200, packers: 2, loading: 600 })).toBe(2400);
  });
});
