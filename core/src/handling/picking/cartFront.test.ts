import fc from 'fast-check';
import { cartFront } from './index.ts';

describe('the front of a cart', () => {
  it.each([
    [1, null, 1, 1],
    [4, null, 3, 2],
    [8, null, 4, 2],
    [12, null, 4, 3],
    [12, 6, 6, 2],
    [5, 9, 5, 1],
  ])('%i places, %s across: %i by %i', (places, across, columns, rows) =>
    expect(cartFront(places, across)).toEqual({ columns, rows }),
  );

  it('has a place for each, and no row for none', () =>
    fc.assert(
      fc.property(fc.integer({ min: 1, max: 99 }), fc.option(fc.integer({ min: 1, max: 99 })), (places, across) => {
        const { columns, rows } = cartFront(places, across);
        expect(columns * rows).toBeGreaterThanOrEqual(places);
        expect(columns * (rows - 1)).toBeLessThan(places);
      }),
    ));
});
