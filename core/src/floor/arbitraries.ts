import fc from 'fast-check';
import type { Floor, Place } from './index.ts';

/** Any floor of up to six aisles and three blocks, for property tests. */
export const anyFloor: fc.Arbitrary<Floor> = fc
  .record({
    gaps: fc.array(fc.integer({ min: 1, max: 6 }), { minLength: 1, maxLength: 6 }),
    blocks: fc.array(fc.integer({ min: 4, max: 20 }), { minLength: 1, maxLength: 3 }),
  })
  .map(({ gaps, blocks }) => {
    let x = 0;
    let y = 0;
    return {
      aisles: gaps.map((gap, i) => ({ id: String.fromCharCode(65 + i), x: (x += gap) })),
      crossAisles: [0, ...blocks.map((b) => (y += b))],
    };
  });

/** Any place on a floor, for property tests. */
export const placeOn = (floor: Floor): fc.Arbitrary<Place> =>
  fc.record({
    aisle: fc.constantFrom(...floor.aisles.map((a) => a.id)),
    y: fc.integer({ min: 0, max: floor.crossAisles.at(-1)! }),
  });
