import fc from 'fast-check';
import { relayOf, type RelayWork } from './index.ts';

const now = Date.UTC(2026, 2, 3, 12);
const work = (more: Partial<RelayWork> = {}): RelayWork => ({
  now,
  leavesAt: now + 3600_000,
  waiting: 0,
  floor: { ends: 900, early: 800, late: 1100 },
  packing: 1200,
  loading: 600,
  pickers: 3,
  packers: 2,
  ...more,
});
const minutes = (at: number) => (at - now) / 60_000;

describe('the relay to a departure', () => {
  it('lays what is left of each leg end to end, and says what is to spare', () => {
    const relay = relayOf(work({ waiting: 1800 }));
    expect(relay.stretches.map((s) => [s.leg, minutes(s.from), minutes(s.to)])).toEqual([
      ['desk', 0, 10],
      ['floor', 10, 25],
      ['bench', 25, 35],
      ['dock', 35, 45],
    ]);
    expect([minutes(relay.ends!), minutes(relay.latestPick), relay.spare]).toEqual([45, 40, 900]);
    expect(relay.chance).toBe('made');
  });

  it('is tight where only the likely range of the picking misses it, missed where all of it does', () => {
    // 15 minutes on the floor, ten at the bench, ten at the dock: 35.
    expect(relayOf(work({ leavesAt: now + 37 * 60_000 })).chance).toBe('tight');
    expect(relayOf(work({ leavesAt: now + 34 * 60_000 }))).toMatchObject({ chance: 'missed', spare: -60 });
  });

  it('has no end where nobody is there to do a leg of it, and is done where nothing is left', () => {
    for (const none of [{ packers: 0 }, { waiting: 5, pickers: 0 }, { floor: { ends: null, early: null, late: null } }])
      expect(relayOf(work(none))).toMatchObject({ stretches: [], ends: null, spare: null, chance: 'missed' });
    const idle = { floor: null, packing: 0, loading: 0, packers: 0, pickers: 0 };
    expect(relayOf(work(idle))).toMatchObject({ stretches: [], chance: 'done', spare: null });
  });

  it('loses to more work and gains by more people, whatever they are', () => {
    const some = fc.integer({ min: 0, max: 20_000 });
    const people = fc.integer({ min: 1, max: 9 });
    fc.assert(
      fc.property(some, some, some, people, people, (waiting, packing, ends, pickers, packers) => {
        const of = (more: Partial<RelayWork>) =>
          relayOf(
            work({
              waiting,
              packing,
              floor: { ends: ends + 1, early: ends, late: ends + 60 },
              pickers,
              packers,
              ...more,
            }),
          );
        const relay = of({});
        relay.stretches.forEach((s, i) => expect(s.from).toBe(i === 0 ? now : relay.stretches[i - 1]!.to));
        expect(of({ packing: packing + 100 }).spare!).toBeLessThan(relay.spare!);
        expect(of({ pickers: pickers + 1, packers: packers + 1 }).spare!).toBeGreaterThanOrEqual(relay.spare!);
      }),
    );
  });
});
