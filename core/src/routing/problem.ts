import { mapFloor, type Floor, type Place } from '../floor/index.ts';

export interface Stop extends Place {
  id: string;
}

export interface RouteProblem {
  floor: Floor;
  start: Place;
  finish: Place;
  stops: Stop[];
}

/** Places to visit with the walk between any two: node 0 is the start, the last node the finish. */
export interface Walks {
  places: Place[];
  /** Stops found at each node, in the order given. */
  stopsAt: Stop[][];
  /** Metres, row by row, `size` by `size`. */
  metres: Float64Array;
  size: number;
}

/** Joins stops at one place into one node and measures all pairs. */
export function measure({ floor, start, finish, stops }: RouteProblem): Walks {
  const map = mapFloor(floor);
  const byPlace = new Map<string, Stop[]>();
  for (const stop of stops) {
    const key = `${stop.aisle}\u0000${stop.y}`;
    const group = byPlace.get(key);
    if (group) group.push(stop);
    else byPlace.set(key, [stop]);
  }
  const groups = [...byPlace.values()];
  const places: Place[] = [start, ...groups.map((g) => g[0]!), finish];
  const size = places.length;
  const metres = new Float64Array(size * size);
  for (let i = 0; i < size; i++)
    for (let j = i + 1; j < size; j++) {
      const d = map.distance(places[i]!, places[j]!);
      metres[i * size + j] = d;
      metres[j * size + i] = d;
    }
  return { places, stopsAt: [[], ...groups, []], metres, size };
}

/** Length of a visiting order of inner nodes, from start to finish, in metres. */
export function lengthOf(walks: Walks, order: readonly number[]): number {
  const { metres, size } = walks;
  let at = 0;
  let sum = 0;
  for (const next of order) {
    sum += metres[at * size + next]!;
    at = next;
  }
  return sum + metres[at * size + size - 1]!;
}
