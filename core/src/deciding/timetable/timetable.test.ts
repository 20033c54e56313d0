import fc from 'fast-check';
import { chooseForWave, dueSteps, gathersNow, type TimetableRule } from './index.ts';

const rule: TimetableRule = {
  waveOrders: 3,
  waveUnits: 10,
  gather: 'time',
  gatherAt: '09:30',
  gatherLevel: 4,
  plan: 'gathered',
  planAt: '10:00',
  start: 'time',
  startAt: '11:00',
};
const orders = (...units: number[]) => units.map((n, i) => ({ id: `o${i}`, units: n }));
const chosen = (...[limits, open, waiting]: Parameters<typeof chooseForWave<{ id: string; units: number }>>) => {
  const got = chooseForWave(limits, open, waiting);
  return [got.joins, ...got.orders.map((o) => o.id)];
};

describe('what gathers into a wave', () => {
  it('is the most urgent that fits, whole, in the wave that gathers or in a new one', () => {
    expect(chosen(rule, null, orders(4, 5, 9, 1))).toEqual([false, 'o0', 'o1', 'o3']);
    expect(chosen(rule, { orders: 1, units: 8 }, orders(4, 2))).toEqual([true, 'o1']);
    expect(chosen(rule, { orders: 3, units: 3 }, orders(4))).toEqual([false, 'o0']);
    expect(chosen(rule, { orders: 1, units: 10 }, orders(4))).toEqual([false, 'o0']);
    // Larger than the limit by itself.
    expect(chosen(rule, null, orders(25, 1))).toEqual([false, 'o0']);
    expect(chosen({ waveOrders: null, waveUnits: null }, null, orders(25, 1))).toEqual([false, 'o0', 'o1']);
  });

  it('obeys both limits, and passes over nothing that would still fit', () => {
    const limit = fc.option(fc.integer({ min: 1, max: 12 }));
    const open = fc.option(
      fc.record({ orders: fc.integer({ min: 1, max: 6 }), units: fc.integer({ min: 1, max: 14 }) }),
    );
    fc.assert(
      fc.property(
        limit,
        limit,
        open,
        fc.array(fc.integer({ min: 1, max: 9 })),
        (waveOrders, waveUnits, wave, units) => {
          const waiting = orders(...units);
          const got = chooseForWave({ waveOrders, waveUnits }, wave, waiting);
          const before = got.joins ? wave! : { orders: 0, units: 0 };
          const all = before.orders + got.orders.length;
          const sum = got.orders.reduce((n, o) => n + o.units, before.units);
          expect(all).toBeLessThanOrEqual(Math.max(waveOrders ?? Infinity, before.orders));
          if (all > 1 && got.orders.length > 0)
            expect(sum).toBeLessThanOrEqual(Math.max(waveUnits ?? Infinity, before.units));
          const left = waiting.filter((o) => !got.orders.includes(o));
          if (all < (waveOrders ?? Infinity))
            for (const o of left) expect(sum + o.units).toBeGreaterThan(waveUnits ?? Infinity);
        },
      ),
    );
  });
});

describe('what the timetable does by itself', () => {
  const now = { time: '09:30', waiting: 0, gatheredToday: false };
  it('gathers once a day at its time, or whenever enough waits', () => {
    expect(['09:29', '09:30', '23:00'].map((time) => gathersNow(rule, { ...now, time }))).toEqual([false, true, true]);
    expect(gathersNow(rule, { ...now, gatheredToday: true })).toBe(false);
    const level = { ...rule, gather: 'level' as const };
    expect([3, 4].map((waiting) => gathersNow(level, { ...now, waiting, gatheredToday: true }))).toEqual([false, true]);
    expect(gathersNow({ ...rule, gather: 'hand' }, { ...now, waiting: 99 })).toBe(false);
  });

  it('plans and starts when each is due; what a day before left over at once', () => {
    const steps = (part: Partial<TimetableRule>, state: string, time: string, day = '2026-03-02') =>
      dueSteps({ ...rule, ...part }, { state, day }, { day: '2026-03-02', time }).join(' ');
    expect(steps({}, 'gathering', '09:00')).toBe('plan');
    expect(steps({}, 'gathering', '11:00')).toBe('plan start');
    expect(steps({}, 'planned', '10:59')).toBe('');
    expect(steps({}, 'planned', '00:10', '2026-03-01')).toBe('start');
    expect(steps({ plan: 'time' }, 'gathering', '09:59')).toBe('');
    expect(steps({ plan: 'time', start: 'planned' }, 'gathering', '10:00')).toBe('plan start');
    expect(steps({ plan: 'hand', start: 'planned' }, 'gathering', '12:00')).toBe('');
    expect(steps({ start: 'hand' }, 'planned', '12:00')).toBe('');
    expect(steps({ startAt: null }, 'planned', '12:00')).toBe('');
  });
});
