import fc from 'fast-check';
import { fitFew, type Sides } from './fitFew.ts';

/**
 * By another method: boxes of whole millimetres are set down one after the other at every point of a small grid, turned
 * every way (Martello, Pisinger and Vigo's classes are of this kind, far larger).
 */
function bySettingDown(inner: Sides, boxes: readonly Sides[]): boolean {
  const turns = (b: Sides): Sides[] => [
    [b[0], b[1], b[2]],
    [b[0], b[2], b[1]],
    [b[1], b[0], b[2]],
    [b[1], b[2], b[0]],
    [b[2], b[0], b[1]],
    [b[2], b[1], b[0]],
  ];
  const place = (left: readonly Sides[], there: { at: Sides; size: Sides }[]): boolean => {
    const [next, ...rest] = left;
    if (!next) return true;
    for (const size of turns(next))
      for (let x = 0; x + size[0] <= inner[0]; x++)
        for (let y = 0; y + size[1] <= inner[1]; y++)
          for (let z = 0; z + size[2] <= inner[2]; z++) {
            const at: Sides = [x, y, z];
            const clear = there.every((o) =>
              [0, 1, 2].some((k) => at[k]! + size[k]! <= o.at[k]! || o.at[k]! + o.size[k]! <= at[k]!),
            );
            if (clear && place(rest, [...there, { at, size }])) return true;
          }
    return false;
  };
  return place(boxes, []);
}

describe('few boxes in a carton', () => {
  it('fit or not as setting them down everywhere says', () => {
    const sides = (most: number) => {
      const side = fc.integer({ min: 1, max: most });
      return fc.tuple(side, side, side) as fc.Arbitrary<Sides>;
    };
    let fitted = 0;
    fc.assert(
      fc.property(sides(4), fc.array(sides(4), { minLength: 1, maxLength: 3 }), (inner, boxes) => {
        const found = fitFew(inner, boxes);
        if (found) fitted += 1;
        expect(found).toBe(bySettingDown(inner, boxes));
      }),
      { numRuns: 400 },
    );
    expect(fitted).toBeGreaterThan(20);
  });

  it('interlock where no straight cut parts them, and are refused where volume alone would take them', () => {
    const bar: Sides = [2, 1, 1];
    expect(fitFew([2, 2, 2], [bar, bar, bar])).toBe(true);
    expect(
      fitFew(
        [300, 200, 150],
        [
          [160, 160, 140],
          [160, 160, 140],
        ],
      ),
    ).toBe(false);
    expect(() => fitFew([9, 9, 9], [bar, bar, bar, bar])).toThrow('received 4');
  });
});
