import fc from 'fast-check';
import { arrange, FEW } from './arrange.ts';
import { faultsOf, turnsOf, type BoxKind, type Sides } from './index.ts';

const kindOf = (size: Sides): BoxKind => ({
  size,
  weightG: 1,
  keepUpright: false,
  maxLoadOnTopG: null,
  stop: Infinity,
});

/** By another method: boxes are set down one after the other at every point of a small grid, turned every way. */
function bySettingDown(inner: Sides, boxes: readonly Sides[]): boolean {
  const place = (left: readonly Sides[], there: { at: Sides; size: Sides }[]): boolean => {
    const [next, ...rest] = left;
    if (!next) return true;
    for (const size of turnsOf(kindOf(next)))
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

describe('few boxes in a room', () => {
  it('have room or not as setting them down everywhere says, and lie as they are said to', () => {
    const side = (most: number) => fc.integer({ min: 1, max: most });
    const sides = (most: number) => fc.tuple(side(most), side(most), side(most));
    const seen = { room: 0, none: 0 };
    fc.assert(
      fc.property(sides(4), fc.array(sides(4), { minLength: 1, maxLength: 4 }), (inner, boxes) => {
        const kinds = boxes.map(kindOf);
        const found = arrange(
          inner,
          kinds,
          boxes.map((_, i) => i),
          1_000_000,
        );
        expect(found.room).toBe(bySettingDown(inner, boxes));
        seen[found.room ? 'room' : 'none'] += 1;
        if (found.room) expect(faultsOf({ inner, maxWeightG: 99, support: 0 }, kinds, found.units)).toEqual([]);
      }),
      { numRuns: 400 },
    );
    expect(Math.min(seen.room, seen.none)).toBeGreaterThan(20);
  });

  it('interlock where no straight cut parts them, and are refused where volume alone would take them', () => {
    const all = (n: number, size: Sides) =>
      [Array.from({ length: n }, () => kindOf(size)), [...Array(n).keys()]] as const;
    expect(arrange([2, 2, 2], ...all(3, [2, 1, 1]), 1000).room).toBe(true);
    expect(arrange([300, 200, 150], ...all(2, [160, 160, 140]), 1000)).toEqual({ room: false });
    expect(arrange([9, 9, 9], ...all(FEW, [4, 4, 4]), 100_000).room).toBe(true);
    // What it does not know it does not say.
    expect(arrange([9, 9, 9], ...all(FEW, [5, 4, 4]), 3)).toEqual({ room: null });
  });
});
