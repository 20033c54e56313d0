/** Sides of a box in millimetres. */
export type Sides = readonly [number, number, number];

const TURNS = [
  [0, 1, 2],
  [0, 2, 1],
  [1, 0, 2],
  [1, 2, 0],
  [2, 0, 1],
  [2, 1, 0],
] as const;

/** Every way in which a box can stand in another, by its sides along the three axes. */
function turned(box: Sides, inner: Sides): Sides[] {
  const ways = new Map<string, Sides>();
  for (const turn of TURNS) {
    const sides = [box[turn[0]], box[turn[1]], box[turn[2]]] as const;
    if (sides.every((side, axis) => side <= inner[axis]!)) ways.set(sides.join(), sides);
  }
  return [...ways.values()];
}

/** Boxes that `fitFew` takes at most. */
export const FEW_PIECES = 3;

/**
 * Whether up to three boxes find room in a carton, upright or turned, sides along its sides. Exact: two boxes that do not
 * overlap lie apart along some axis, so that every arrangement is a choice of an axis for each pair. Along an axis two
 * that lie apart need the sum of their sides; of three, one beside two others that share the rest needs its own side and
 * the longer of theirs; three in a row need all.
 *
 * @throws RangeError for more boxes
 *
 * @example
 * // Three bars of 2 × 1 × 1 interlock in a cube of 2, though no straight cut parts them.
 * fitFew([2, 2, 2], [[2, 1, 1], [2, 1, 1], [2, 1, 1]]) // true
 */
export function fitFew(inner: Sides, boxes: readonly Sides[]): boolean {
  if (boxes.length > FEW_PIECES) throw new RangeError(`At most ${FEW_PIECES} boxes, received ${boxes.length}.`);
  const ways = boxes.map((box) => turned(box, inner));
  if (ways.some((w) => w.length === 0)) return false;
  if (boxes.length < 2) return true;
  const [first, second, third] = ways as [Sides[], Sides[], Sides[] | undefined];
  for (const a of first)
    for (const b of second) {
      if (!third) {
        if (a.some((side, axis) => side + b[axis]! <= inner[axis]!)) return true;
        continue;
      }
      for (const c of third) if (threeFit(inner, a, b, c)) return true;
    }
  return false;
}

function threeFit(inner: Sides, a: Sides, b: Sides, c: Sides): boolean {
  for (let ab = 0; ab < 3; ab++)
    for (let ac = 0; ac < 3; ac++)
      for (let bc = 0; bc < 3; bc++) {
        const fits = [0, 1, 2].every((axis) => {
          const [x, y, z] = [a[axis]!, b[axis]!, c[axis]!];
          const [xy, xz, yz] = [ab === axis, ac === axis, bc === axis];
          const needs =
            xy && xz && yz
              ? x + y + z
              : xy && xz
                ? x + Math.max(y, z)
                : xy && yz
                  ? y + Math.max(x, z)
                  : xz && yz
                    ? z + Math.max(x, y)
                    : xy
                      ? x + y
                      : xz
                        ? x + z
                        : yz
                          ? y + z
                          : 0;
          return needs <= inner[axis]!;
        });
        if (fits) return true;
      }
  return false;
}
