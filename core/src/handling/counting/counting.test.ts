import fc from 'fast-check';
import { correct } from './index.ts';

describe('a count', () => {
  const units = fc.integer({ min: 0, max: 1000 });

  it('leaves the bin with what was counted and nothing in doubt, and neither makes nor loses a unit by the way', () => {
    fc.assert(
      fc.property(units, units, units, (booked, doubtful, counted) => {
        const { back, lost, found, gone, difference } = correct({ booked, doubtful, counted });
        expect(booked + back + found - gone).toBe(counted);
        expect(doubtful - back - lost).toBe(0);
        expect(Math.min(back, lost, found, gone)).toBeGreaterThanOrEqual(0);
        expect(gone * (back + found)).toBe(0);
        expect(difference).toBe(Math.abs(found - gone - lost));
      }),
    );
  });

  it.each([
    [
      { booked: 4, doubtful: 0, counted: 4 },
      { back: 0, lost: 0, found: 0, gone: 0, difference: 0 },
    ],
    [
      { booked: 4, doubtful: 3, counted: 7 },
      { back: 3, lost: 0, found: 0, gone: 0, difference: 0 },
    ],
    [
      { booked: 0, doubtful: 3, counted: 0 },
      { back: 0, lost: 3, found: 0, gone: 0, difference: 3 },
    ],
    [
      { booked: 9, doubtful: 2, counted: 5 },
      { back: 0, lost: 2, found: 0, gone: 4, difference: 6 },
    ],
  ])('%o', (count, correction) => expect(correct(count)).toEqual(correction));
});
