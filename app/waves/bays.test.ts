import fc from 'fast-check';
import type { CrewRun } from '@hand-relay/contract';
import { blocksOf, placed, spanOf } from './bays.ts';

const NOW = Date.parse('2031-07-15T10:00:00Z');
const MINUTE = 60_000;
const run = (id: string, minutes: number, state: CrewRun['state'] = 'waiting'): CrewRun => ({
  id,
  number: id,
  callSign: 'lobster',
  wave: 'w',
  waveNumber: 1,
  state,
  pickerId: null,
  assignedId: 'pico',
  team: '',
  priority: 0,
  orders: 1,
  picks: 1,
  picksDone: 0,
  leavesAt: null,
  secondsLeft: 60 * minutes,
});
const minutes = (blocks: { from: number; to: number }[]) =>
  blocks.map((b) => [(b.from - NOW) / MINUTE, (b.to - NOW) / MINUTE]);

describe('the runs of people on the track', () => {
  it('lie one after the other, what is in hand first, at the pace of the day', () => {
    const blocks = blocksOf([run('a', 10), run('b', 4, 'picking'), run('c', 6)], NOW, 1.5);
    expect(blocks.map((b) => b.run.id)).toEqual(['b', 'a', 'c']);
    expect(minutes(blocks)).toEqual([
      [0, 6],
      [6, 21],
      [21, 30],
    ]);
  });

  it('begin with the shift, unless one is in hand already', () => {
    const span = { from: NOW + 30 * MINUTE, to: NOW + 300 * MINUTE };
    expect(minutes(blocksOf([run('a', 10)], NOW, 1, span))).toEqual([[30, 40]]);
    expect(minutes(blocksOf([run('a', 10, 'picking')], NOW, 1, span))).toEqual([[0, 10]]);
  });

  it('take a shift over midnight for one stretch', () => {
    const night = { from: '22:00', until: '06:00' };
    const at = (iso: string) => Date.parse(iso);
    const late = at('2031-07-15T23:00:00Z');
    expect(spanOf({ ...night, on: true }, late, 'UTC')).toEqual({
      from: at('2031-07-15T22:00:00Z'),
      to: at('2031-07-16T06:00:00Z'),
    });
    const early = at('2031-07-16T03:00:00Z');
    expect(spanOf({ ...night, on: true }, early, 'UTC')).toEqual({
      from: at('2031-07-15T22:00:00Z'),
      to: at('2031-07-16T06:00:00Z'),
    });
    expect(spanOf({ ...night, on: false }, early, 'UTC').from).toBe(at('2031-07-16T22:00:00Z'));
  });

  it('are found by a finger however short they are, never overlap, and stay on their lane', () => {
    fc.assert(
      fc.property(
        fc.array(fc.integer({ min: 1, max: 90 }), { maxLength: 20 }),
        fc.integer({ min: 100, max: 900 }),
        (lengths, width) => {
          const blocks = blocksOf(
            lengths.map((m, i) => run(String(i), m)),
            NOW,
            1,
          );
          const along = (at: number) => Math.min(width, ((at - NOW) / (240 * MINUTE)) * width);
          const laid = placed(blocks, along, width, 46);
          expect(laid.length).toBeGreaterThanOrEqual(Math.min(1, lengths.length));
          let free = 0;
          for (const { x, width: wide } of laid) {
            expect(x).toBeGreaterThanOrEqual(free);
            expect(wide).toBeGreaterThanOrEqual(46);
            free = x + wide;
            expect(free).toBeLessThanOrEqual(width + 1e-9);
          }
        },
      ),
    );
  });
});
