import fc from 'fast-check';
import { replacementBin, sendsOthersAway, shortReasons, suspectStock, type ShortAt } from './index.ts';

const short: ShortAt = { reason: 'not-enough', missing: 2, there: [{ serial: '', units: 10 }], sentFor: 3, free: 9 };
const units = (at: Partial<ShortAt>) => suspectStock({ ...short, ...at }).reduce((n, s) => n + s.units, 0);

describe('goods that were missing', () => {
  it('put in doubt what should be left and others do not fetch; damaged ones only themselves; a blocked bin nothing', () => {
    expect(units({})).toBe(7);
    expect(units({ reason: 'damaged' })).toBe(2);
    expect(units({ reason: 'bin-blocked' })).toBe(0);
    expect(units({ free: 4 })).toBe(4);
    expect(units({ free: -1 })).toBe(0);
    expect(
      suspectStock({ ...short, there: ['s1', 's2', 's3'].map((serial) => ({ serial, units: 1 })), sentFor: 1 }),
    ).toEqual([
      { serial: 's1', units: 1 },
      { serial: 's2', units: 1 },
    ]);
    expect(shortReasons.filter((r) => !sendsOthersAway(r))).toEqual(['damaged']);
  });

  it('never put in doubt more than lies there, nor what is promised or fetched', () => {
    const there = fc.array(fc.record({ serial: fc.string(), units: fc.nat(9) }), { maxLength: 4 });
    fc.assert(
      fc.property(
        fc.constantFrom(...shortReasons),
        fc.nat(9),
        there,
        fc.nat(9),
        fc.nat(20),
        (reason, missing, lying, sentFor, free) => {
          const got = suspectStock({ reason, missing, there: lying, sentFor, free }).reduce((n, s) => n + s.units, 0);
          const inBin = lying.reduce((n, b) => n + b.units, 0);
          expect(got).toBeLessThanOrEqual(Math.min(free, Math.max(0, inBin - sentFor)));
        },
      ),
    );
  });
});

describe('a bin in place of another', () => {
  it('holds enough and is the nearest, in the same aisle if there is one', () => {
    const bin = (code: string, aisle: string, y: number, there: number) => ({ bin: code, aisle, y, units: there });
    const bins = [bin('C-1', 'C', 10, 9), bin('B-9', 'B', 40, 9), bin('B-2', 'B', 14, 4), bin('B-1', 'B', 6, 9)];
    const from = { aisle: 'B', y: 10 };
    expect([3, 5, 10].map((n) => replacementBin(bins, from, n)?.bin)).toEqual(['B-1', 'B-1', undefined]);
    expect(replacementBin(bins.slice(0, 3), from, 5)?.bin).toBe('B-9');
    expect(replacementBin(bins.slice(0, 1), from, 5)?.bin).toBe('C-1');
  });
});
