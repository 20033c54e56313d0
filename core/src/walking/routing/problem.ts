import { mapFloor, type Floor, type FloorMap, type Place } from '../floor/index.ts';

export interface Stop extends Place {
  id: string;
}

export interface RouteProblem {
  floor: Floor;
  start: Place;
  finish: Place;
  stops: Stop[];
}

/** A stop, or the finish (null), that no walk serves: one-way or blocked aisles are in the way. */
export class UnreachableStop extends Error {
  readonly stop: string | null;
  constructor(stop: string | null) {
    super(stop === null ? 'The finish cannot be reached.' : `Stop "${stop}" cannot be reached, or not left again.`);
    this.stop = stop;
  }
}

/** Places to visit with the walk from any to any: node 0 is the start, the last node the finish. */
export interface Walks {
  places: Place[];
  /** Stops found at each node, in the order given. */
  stopsAt: Stop[][];
  /** Metres, row by row, `size` by `size`. */
  metres: Float64Array;
  size: number;
}

/** Joins stops at one place into one node and measures all pairs. */
export function measure({ start, finish, stops }: Omit<RouteProblem, 'floor'>, map: FloorMap): Walks {
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
    for (let j = 0; j < size; j++)
      if (i !== j)
        metres[i * size + j] =
          i > j && !map.network.directed ? metres[j * size + i]! : map.distance(places[i]!, places[j]!);
  return { places, stopsAt: [[], ...groups, []], metres, size };
}

/** The same with the floor not yet prepared. */
export const walksOf = (problem: RouteProblem): Walks => measure(problem, mapFloor(problem.floor));

/** Length of a visiting order of inner nodes, from start to finish, in metres. */
export function lengthOf({ metres, size }: Walks, order: readonly number[]): number {
  let at = 0;
  let sum = 0;
  for (const next of order) {
    sum += metres[at * size + next]!;
    at = next;
  }
  return sum + metres[at * size + size - 1]!;
}
