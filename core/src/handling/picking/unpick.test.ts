import fc from 'fast-check';
import { describe, expect, it } from '@jest/globals';
import { offCarts, outOfCartons } from './unpick.ts';

const lot = fc.constantFrom('A', 'B');
const sumBy = <T>(list: readonly T[], key: (t: T) => string, units: (t: T) => number) => {
  const sums = new Map<string, number>();
  for (const one of list) sums.set(key(one), (sums.get(key(one)) ?? 0) + units(one));
  return sums;
};

describe('taking picked goods back', () => {
  it('takes two picks of one line out of one place, and leaves what another line has there', () => {
    const rows = ['p1', 'p2'].map((pick) => ({ pick, place: '1', lot: '', serial: '', units: 3, there: 10 }));
    expect(offCarts(rows, new Map([['', 6]]), 9).map((t) => [t.from.pick, t.units])).toEqual([
      ['p1', 3],
      ['p2', 3],
    ]);
    // Two of the six were packed.
    expect(offCarts(rows, new Map([['', 4]]), 9).map((t) => t.units)).toEqual([3, 1]);
  });

  it('never takes more than was picked, is there, is loose or is wanted, and nothing is left that could be taken', () => {
    const rowsOf = fc
      .uniqueArray(fc.tuple(fc.nat(3), fc.nat(2), lot), { selector: ([pick, place, l]) => `${pick} ${place} ${l}` })
      .chain((keys) =>
        fc.record({
          keys: fc.constant(keys),
          picked: fc.array(fc.nat(5), { minLength: 4, maxLength: 4 }),
          there: fc.array(fc.nat(6), { minLength: 6, maxLength: 6 }),
          loose: fc.record({ A: fc.nat(9), B: fc.nat(9) }),
          most: fc.nat(12),
        }),
      );
    fc.assert(
      fc.property(rowsOf, ({ keys, picked, there, loose, most }) => {
        const spot = (place: string, l: string) => Number(place) * 2 + (l === 'A' ? 0 : 1);
        const rows = keys.map(([pick, place, l]) => ({
          pick: String(pick),
          place: String(place),
          lot: l,
          serial: '',
          units: picked[pick]!,
          there: there[spot(String(place), l)]!,
        }));
        const taken = offCarts(rows, new Map(Object.entries(loose)), most);
        const of = (key: (t: (typeof taken)[number]) => string) => sumBy(taken, key, (t) => t.units);
        const [picks, spots, lots] = [
          of((t) => t.from.pick),
          of((t) => `${t.from.place} ${t.from.lot}`),
          of((t) => t.from.lot),
        ];
        const total = taken.reduce((n, t) => n + t.units, 0);
        expect(taken.every((t) => t.units > 0)).toBe(true);
        expect(total).toBeLessThanOrEqual(most);
        for (const r of rows) {
          const room = [
            most - total,
            r.units - (picks.get(r.pick) ?? 0),
            r.there - (spots.get(`${r.place} ${r.lot}`) ?? 0),
            loose[r.lot] - (lots.get(r.lot) ?? 0),
          ];
          expect(Math.min(...room)).toBe(0);
        }
      }),
    );
  });

  it('takes as much out of cartons as they hold of what was picked, lot by lot', () => {
    const list = fc.array(fc.record({ lot, units: fc.nat(6) }), { maxLength: 5 });
    fc.assert(
      fc.property(list, list, fc.nat(20), (packed, picks, most) => {
        const taken = outOfCartons(packed, picks, most);
        expect(taken.every((t) => t.units > 0 && t.from.lot === t.pick.lot)).toBe(true);
        for (const c of packed)
          expect(taken.filter((t) => t.from === c).reduce((n, t) => n + t.units, 0)).toBeLessThanOrEqual(c.units);
        for (const p of picks)
          expect(taken.filter((t) => t.pick === p).reduce((n, t) => n + t.units, 0)).toBeLessThanOrEqual(p.units);
        const [held, picked] = [packed, picks].map((side) =>
          sumBy(
            side,
            (s) => s.lot,
            (s) => s.units,
          ),
        );
        const can = ['A', 'B'].reduce((n, l) => n + Math.min(held!.get(l) ?? 0, picked!.get(l) ?? 0), 0);
        expect(taken.reduce((n, t) => n + t.units, 0)).toBe(Math.min(most, can));
      }),
    );
  });
});
