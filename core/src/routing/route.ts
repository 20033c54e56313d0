import { mapFloor, type Point } from '../floor/index.ts';
import { insertion, serpentine } from './construct.ts';
import { EXACT_PLACES, heldKarp } from './exact.ts';
import { improve } from './improve.ts';
import { lengthOf, measure, type RouteProblem } from './problem.ts';

export interface Route {
  /** Metres walked from start over every stop to finish. */
  distance: number;
  /** Stop ids in visiting order. */
  sequence: string[];
  /** Corners of the walk, as long as `distance`. */
  path: Point[];
  /** Whether the distance is known to be the shortest. */
  proven: boolean;
}

/**
 * A short walk through a set of stops: the shortest where few places are visited (Held and Karp 1962), else the
 * better of two constructions after local search, so never longer than the serpentine rule.
 *
 * @example
 * route({ floor: { aisles: [{ id: 'A', x: 0 }], crossAisles: [0, 10] },
 *         start: { aisle: 'A', y: 0 }, finish: { aisle: 'A', y: 0 },
 *         stops: [{ id: 's1', aisle: 'A', y: 4 }] }).distance // 8
 */
export function route(problem: RouteProblem): Route {
  const walks = measure(problem);
  const map = mapFloor(problem.floor);
  const proven = walks.size - 2 <= EXACT_PLACES;
  const candidates = proven
    ? [heldKarp(walks)]
    : [serpentine(walks, map.x), insertion(walks)].map((order) => improve(walks, order));
  const order = candidates.reduce((a, b) => (lengthOf(walks, b) < lengthOf(walks, a) ? b : a));

  const nodes = [0, ...order, walks.size - 1];
  const path: Point[] = [];
  for (let i = 1; i < nodes.length; i++) {
    const leg = map.walk(walks.places[nodes[i - 1]!]!, walks.places[nodes[i]!]!);
    path.push(...(path.length === 0 ? leg : leg.slice(1)));
  }
  return {
    distance: lengthOf(walks, order),
    sequence: order.flatMap((node) => walks.stopsAt[node]!.map((s) => s.id)),
    path,
    proven,
  };
}
