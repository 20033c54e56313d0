import fc from 'fast-check';
import { oddDensity } from './density.ts';

const row = (length_mm: number, width_mm: number, height_mm: number, weight_g: number) => ({
  length_mm,
  width_mm,
  height_mm,
  weight_g,
});

describe('sizes and weight that cannot both be right', () => {
  it.each([
    ['a jar of honey', row(80, 80, 110, 500), false],
    ['a block of polystyrene', row(1000, 500, 100, 750), false],
    ['a lead weight', row(50, 50, 50, 1400), false],
    ['the jar in tenths of a millimetre', row(800, 800, 1100, 500), true],
    ['the jar in centimetres', row(8, 8, 11, 500), true],
    ['a jar of three metres', row(3000, 900, 900, 340), true],
    ['what has no weight', row(80, 80, 110, 0), false],
  ])('%s', (_, item, odd) => expect(oddDensity(item) !== null).toBe(odd));

  it('are found whichever side was mistaken, for goods about as dense as water', () => {
    const side = fc.integer({ min: 20, max: 400 });
    fc.assert(
      fc.property(side, side, side, fc.double({ min: 0.3, max: 3, noNaN: true }), (l, w, h, dense) => {
        const grams = Math.max(1, Math.round((l * w * h * dense) / 1000));
        expect(oddDensity(row(l, w, h, grams))).toBeNull();
        // All three sides ten times too long, or ten times too short.
        expect(oddDensity(row(10 * l, 10 * w, 10 * h, grams))).toMatchObject({ grams });
        expect(oddDensity(row(l / 10, w / 10, h / 10, grams))).toMatchObject({ grams });
      }),
    );
  });
});
