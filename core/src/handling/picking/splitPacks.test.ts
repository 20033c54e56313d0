import fc from 'fast-check';
import { splitPacks } from './index.ts';

describe('units as packs', () => {
  it('takes the largest packs first', () => {
    expect(splitPacks(130, [12, 60])).toEqual([
      { units: 60, count: 2 },
      { units: 1, count: 10 },
    ]);
    expect(splitPacks(85, [1, 60, 12])).toEqual([
      { units: 60, count: 1 },
      { units: 12, count: 2 },
      { units: 1, count: 1 },
    ]);
    expect(splitPacks(3, [])).toEqual([{ units: 1, count: 3 }]);
    expect(splitPacks(0, [12])).toEqual([]);
  });

  it('adds up to what was asked, with fewer of each than make the next larger', () => {
    fc.assert(
      fc.property(fc.nat(5000), fc.uniqueArray(fc.integer({ min: 2, max: 200 }), { maxLength: 3 }), (units, packs) => {
        const parts = splitPacks(units, packs);
        expect(parts.reduce((n, p) => n + p.units * p.count, 0)).toBe(units);
        const sizes = [...packs, 1].sort((a, b) => b - a);
        for (const { units: size } of parts) {
          const larger = sizes[sizes.indexOf(size) - 1];
          const below = parts.filter((p) => p.units <= size).reduce((n, p) => n + p.units * p.count, 0);
          if (larger !== undefined) expect(below).toBeLessThan(larger);
        }
      }),
    );
  });
});
