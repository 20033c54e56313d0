/** The walking network of a site in metres: vertical aisles at `x`, horizontal cross aisles at the given `y`. */
export interface Floor {
  aisles: { id: string; x: number }[];
  /** Ascending; the first and the last bound every aisle. */
  crossAisles: number[];
}

/** A point on an aisle's centre line, in metres. */
export interface Place {
  aisle: string;
  y: number;
}

/** A point of a drawn walk: x and y in metres. */
export type Point = [x: number, y: number];

/** Answers distances and walks on one floor. */
export interface FloorMap {
  /** Shortest walk between two places, in metres. */
  distance: (from: Place, to: Place) => number;
  /** The corners of that walk, both ends included. */
  walk: (from: Place, to: Place) => Point[];
  x: (aisle: string) => number;
}

/**
 * Prepares a floor for questions.
 *
 * Between two aisles a walk leaves its aisle at one cross aisle: with every cross aisle crossing every aisle, no
 * walk with more turns is shorter.
 *
 * @throws RangeError when the floor has fewer than two cross aisles, they do not ascend, or a place is off the floor
 */
export function mapFloor(floor: Floor): FloorMap {
  const { crossAisles } = floor;
  if (crossAisles.length < 2)
    throw new RangeError(`A floor has at least two cross aisles, received ${crossAisles.length}.`);
  for (let i = 1; i < crossAisles.length; i++)
    if (crossAisles[i]! <= crossAisles[i - 1]!)
      throw new RangeError(`Cross aisles ascend, received ${crossAisles.join(', ')}.`);
  const xs = new Map(floor.aisles.map((a) => [a.id, a.x]));
  const low = crossAisles[0]!;
  const high = crossAisles.at(-1)!;

  const x = (aisle: string) => {
    const at = xs.get(aisle);
    if (at === undefined) throw new RangeError(`There is no aisle "${aisle}" on this floor.`);
    return at;
  };
  const check = (p: Place) => {
    if (p.y < low || p.y > high) throw new RangeError(`y ${p.y} lies outside ${low} to ${high} in aisle "${p.aisle}".`);
  };
  const crossing = (from: Place, to: Place) => {
    let best = crossAisles[0]!;
    let least = Infinity;
    for (const c of crossAisles) {
      const d = Math.abs(from.y - c) + Math.abs(to.y - c);
      if (d < least) [best, least] = [c, d];
    }
    return { at: best, y: least };
  };
  return {
    x,
    distance(from, to) {
      check(from);
      check(to);
      const across = Math.abs(x(from.aisle) - x(to.aisle));
      return across === 0 ? Math.abs(from.y - to.y) : across + crossing(from, to).y;
    },
    walk(from, to) {
      const [fx, tx] = [x(from.aisle), x(to.aisle)];
      const points: Point[] = [[fx, from.y]];
      if (fx !== tx) {
        const c = crossing(from, to).at;
        points.push([fx, c], [tx, c]);
      }
      points.push([tx, to.y]);
      return points.filter((p, i) => i === 0 || p[0] !== points[i - 1]![0] || p[1] !== points[i - 1]![1]);
    },
  };
}
