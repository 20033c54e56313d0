import fc from 'fast-check';
import { isOn, placesToWork, shiftOf, silentSince, workforce, type Shift } from './index.ts';

const shift = (person: string, from: string, until: string, more: Partial<Shift> = {}): Shift => ({
  person,
  day: '2026-12-01',
  from,
  until,
  team: '',
  ...more,
});
const at = (time: string, day = '2026-12-01') => ({ day, time });
const worker = (id: string, here = false, team = '') => ({ id, here, team });

describe('shifts', () => {
  it('are on from their begin to their end, also past midnight', () => {
    const early = shift('a', '06:00', '14:00');
    expect(['05:59', '06:00', '13:59', '14:00'].map((t) => isOn(early, at(t)))).toEqual([false, true, true, false]);
    const night = shift('a', '22:00', '06:00');
    expect(['21:59', '22:00', '23:59'].map((t) => isOn(night, at(t)))).toEqual([false, true, true]);
    expect(['00:00', '05:59', '06:00'].map((t) => isOn(night, at(t, '2026-12-02')))).toEqual([true, true, false]);
    expect(isOn(night, at('23:00', '2026-12-02'))).toBe(false);
  });

  it('cover every minute of a day once, however it is cut', () =>
    fc.assert(
      fc.property(
        fc.integer({ min: 0, max: 1438 }),
        fc.integer({ min: 1, max: 1439 }),
        fc.integer({ min: 0, max: 1439 }),
        (a, by, m) => {
          const clock = (n: number) =>
            `${String(Math.floor(n / 60)).padStart(2, '0')}:${String(n % 60).padStart(2, '0')}`;
          const [from, until] = [clock(a), clock((a + by) % 1440)];
          // One shift and its complement on the same days, seen on the second of them.
          const days = ['2026-12-01', '2026-12-02'];
          const both = days.flatMap((day) => [shift('x', from, until, { day }), shift('y', until, from, { day })]);
          expect(both.filter((s) => isOn(s, at(clock(m), '2026-12-02')))).toHaveLength(1);
        },
      ),
    ));

  it('say who is on, or comes next today', () => {
    const shifts = [shift('a', '14:00', '22:00'), shift('a', '06:00', '10:00'), shift('b', '06:00', '14:00')];
    expect(shiftOf(shifts, 'a', at('07:00'))?.from).toBe('06:00');
    expect(shiftOf(shifts, 'a', at('12:00'))?.from).toBe('14:00');
    expect(shiftOf(shifts, 'a', at('05:00'))?.from).toBe('06:00');
    expect(shiftOf(shifts, 'b', at('15:00'))).toBeUndefined();
  });

  it('add those on shift to those who are there, each once; before the first of them its people count', () => {
    const workers = [worker('a', true), worker('b'), worker('c'), worker('d', false, 'cold')];
    const shifts = [shift('a', '06:00', '14:00'), shift('b', '06:00', '14:00'), shift('c', '14:00', '22:00')];
    expect(workforce(workers, shifts, at('07:00'))).toBe(2);
    expect(workforce(workers, shifts, at('15:00'))).toBe(2);
    const away = workers.map((w) => ({ ...w, here: false }));
    expect(workforce(away, shifts, at('04:00'))).toBe(2);
    expect(workforce(away, shifts, at('23:00'))).toBe(0);
    // Somebody who may not do the work does not count, nor does another team; a shift can lend somebody to one.
    expect(workforce([worker('c')], shifts, at('07:00'))).toBe(1);
    expect(workforce(workers, shifts, at('07:00'), 'cold')).toBe(0);
    expect(workforce(workers, [...shifts, shift('d', '06:00', '14:00')], at('07:00'), 'cold')).toBe(1);
    expect(workforce(workers, [shift('b', '06:00', '14:00', { team: 'cold' })], at('07:00'), 'cold')).toBe(1);
  });
});

describe('what there is to work with', () => {
  it('limits pickers by carts that no goods wait on, packers by benches, and nobody where a site has none', () => {
    const means = { carts: 5, waiting: 2, benches: 3 };
    expect(placesToWork('pick', means)).toBe(3);
    expect(placesToWork('pack', means)).toBe(3);
    expect(placesToWork('pick', { carts: 2, waiting: 3, benches: 0 })).toBe(0);
    const none = { carts: 0, waiting: 0, benches: 0 };
    expect([placesToWork('pick', none), placesToWork('pack', none)]).toEqual([Infinity, Infinity]);
  });

  it('takes a device for offline that was not heard for three minutes', () => {
    const now = Date.parse('2026-03-02T10:00:00Z');
    expect(new Date(silentSince(now)).toISOString()).toBe('2026-03-02T09:57:00.000Z');
  });
});
