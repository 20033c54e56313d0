import fc from 'fast-check';
import { chances, estimate, firstStandards } from './index.ts';

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
});
