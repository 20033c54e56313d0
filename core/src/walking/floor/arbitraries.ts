import fc from 'fast-check';
import type { Blocked, Floor, Place } from './index.ts';

/** Any floor of up to six aisles and so many blocks, nothing blocked and no way forbidden, for property tests. */
export const plainFloor = (blocks = 3): fc.Arbitrary<Floor> =>
  fc
    .record({
      gaps: fc.array(fc.integer({ min: 1, max: 6 }), { minLength: 1, maxLength: 6 }),
      blocks: fc.array(fc.integer({ min: 4, max: 20 }), { minLength: 1, maxLength: blocks }),
    })
    .map(({ gaps, blocks: sizes }) => {
      let x = 0;
      let y = 0;
      return {
        aisles: gaps.map((gap, i) => ({ id: String.fromCharCode(65 + i), x: (x += gap) })),
        crossAisles: [0, ...sizes.map((b) => (y += b))],
      };
    });

export const anyFloor: fc.Arbitrary<Floor> = plainFloor();

const stretch = (most: number) =>
  fc
    .tuple(fc.integer({ min: 0, max: most - 1 }), fc.integer({ min: 1, max: 6 }))
    .map(([from, long]) => ({ from, to: from + long }));

/** A floor with a few blocked stretches and aisles that are cut short. */
export const brokenFloor: fc.Arbitrary<Floor> = anyFloor.chain((floor) => {
  const high = floor.crossAisles.at(-1)!;
  const ids = floor.aisles.map((a) => a.id);
  const width = floor.aisles.at(-1)!.x;
  const inAisle = fc.tuple(fc.constantFrom(...ids), stretch(high)).map(([aisle, s]): Blocked => ({ aisle, ...s }));
  const inCross = fc
    .tuple(fc.constantFrom(...floor.crossAisles), stretch(width + 1))
    .map(([crossAisle, s]): Blocked => ({ crossAisle, ...s }));
  return fc
    .record({
      blocked: fc.array(fc.oneof(inAisle, inCross), { maxLength: 4 }),
      short: fc.array(fc.record({ at: fc.nat(ids.length - 1), from: fc.integer({ min: 0, max: 5 }) }), {
        maxLength: 2,
      }),
    })
    .map(({ blocked, short }) => ({
      ...floor,
      blocked,
      aisles: floor.aisles.map((a, i) => {
        const cut = short.find((s) => s.at === i);
        return cut ? { ...a, from: cut.from, to: high - 2 } : a;
      }),
    }));
});

/** A floor of which some aisles are one-way. */
export const oneWayFloor: fc.Arbitrary<Floor> = anyFloor.chain((floor) =>
  fc
    .array(fc.constantFrom('up' as const, 'down' as const, undefined), {
      minLength: floor.aisles.length,
      maxLength: floor.aisles.length,
    })
    .map((ways) => ({ ...floor, aisles: floor.aisles.map((a, i) => ({ ...a, oneWay: ways[i] })) })),
);

/** Any place on a floor, for property tests. */
export const placeOn = (floor: Floor): fc.Arbitrary<Place> =>
  fc.record({
    aisle: fc.constantFrom(...floor.aisles.map((a) => a.id)),
    y: fc.integer({ min: 0, max: floor.crossAisles.at(-1)! }),
  });
