import { mapFloor, type FloorMap, type Place, type Point } from '../floor/index.ts';
import { treeBound } from './bound.ts';
import { EXACT_PLACES, heldKarp } from './heldKarp.ts';
import { lengthOf, measure, UnreachableStop, type RouteProblem, type Stop, type Walks } from './problem.ts';
import { oneWayWalk } from './oneWay.ts';
import { byRule, NoRule, ruleNames } from './rules.ts';
import { insertion, search, type Effort } from './search.ts';
import type { Needed } from './options.ts';
import { sweep, SWEEP_ROWS } from './sweep.ts';
import { alongCorners, cornersOf, spotOf, trace, type Spot } from './trace.ts';

/**
 * How an answer was found: `line` within one aisle; `sweep` exact over the grid of aisles; `subsets` exact by Held and
 * Karp; `search` by local search with a bound beside it.
 */
export type Found = 'line' | 'sweep' | 'subsets' | 'search';

export interface Route {
  /** Metres walked from start over every stop to finish. */
  distance: number;
  /** Stop ids in visiting order. */
  sequence: string[];
  /** Corners of the walk, as long as `distance`. */
  path: Point[];
  /** Metres that no walk can beat. */
  lowerBound: number;
  /** Whether the two are equal. */
  proven: boolean;
  found: Found;
}

/**
 * The shortest walk through a set of stops. Exact over the grid of aisles (see `sweep`) on every floor without one-way
 * aisles and with at most six cross aisles (or as many as `effort` says), blocked stretches and aisles of unequal length
 * included; exact by subsets (Held and Karp 1962) up to thirteen places elsewhere; else by search, never longer than a
 * rule of thumb, with a bound: 1-trees, and on one-way floors what goes in and out of each junction (see `oneWay`).
 *
 * @throws UnreachableStop when one-way or blocked aisles leave a stop out
 *
 * @example
 * route({ floor: { aisles: [{ id: 'A', x: 0 }], crossAisles: [0, 10] },
 *         start: { aisle: 'A', y: 0 }, finish: { aisle: 'A', y: 0 },
 *         stops: [{ id: 's1', aisle: 'A', y: 4 }] }).distance // 8
 */
export function route(
  problem: RouteProblem,
  effort: Effort = { seed: 1 },
  map: FloorMap = mapFloor(problem.floor),
): Route {
  const { network } = map;
  mustBeReached(problem, map);
  const line = alongOneAisle(problem, map);
  if (line) return line;
  if (!network.directed && network.rows.length <= (effort.sweepRows ?? SWEEP_ROWS)) {
    const swept = bySweep(problem, map);
    if (swept) return swept;
  }
  const walks = measure(problem, map);
  if (walks.size - 2 <= EXACT_PLACES) {
    const order = heldKarp(walks);
    if (!order) throw new UnreachableStop(cutOff(walks));
    return drawn(walks, map, closed(walks, order), lengthOf(walks, order), 'subsets');
  }
  return bySearch(problem, walks, map, effort);
}

/** Steps of a search that only measures: a run's few stops are in their shortest order long before. */
export const MEASURED_STEPS = 150;

/**
 * Length of the walk that `route` finds, without the walk: much quicker where it is exact, and by a short search where
 * it is none. Infinite where no walk takes in every stop.
 */
export function lengthBetween(problem: RouteProblem, map: FloorMap): number {
  const { network } = map;
  if (network.directed || network.rows.length > SWEEP_ROWS)
    try {
      return route(problem, { seed: 1, steps: MEASURED_STEPS }, map).distance;
    } catch (error) {
      if (error instanceof UnreachableStop) return Infinity;
      throw error;
    }
  const line = alongOneAisle(problem, map);
  return line ? line.distance : sweep(network, neededBy(problem, map)).metres;
}

function mustBeReached({ start, finish, stops }: RouteProblem, map: FloorMap): void {
  if (map.network.plain) {
    for (const place of [start, finish, ...stops]) map.distance(place, place);
    return;
  }
  if (map.distance(start, finish) === Infinity) throw new UnreachableStop(null);
  for (const stop of stops)
    if (map.distance(start, stop) === Infinity || map.distance(stop, finish) === Infinity)
      throw new UnreachableStop(stop.id);
}

/** A stop that no order of visiting takes in, though each by itself can be reached. */
function cutOff({ metres, size, stopsAt }: Walks): string | null {
  for (let i = 1; i < size - 1; i++)
    for (let j = i + 1; j < size - 1; j++)
      if (metres[i * size + j] === Infinity && metres[j * size + i] === Infinity) return stopsAt[j]![0]!.id;
  return stopsAt.at(-2)?.[0]?.id ?? null;
}

/** All in one walkable stretch of one aisle: to the nearer end first, then to the other. */
function alongOneAisle({ start, finish, stops }: RouteProblem, map: FloorMap): Route | null {
  const { columns, columnOf } = map.network;
  if (finish.aisle !== start.aisle || stops.some((s) => s.aisle !== start.aisle)) return null;
  const column = columns[columnOf.get(start.aisle)!]!;
  const ys = [start, finish, ...stops].map((p) => p.y);
  const [low, high] = [Math.min(...ys), Math.max(...ys)];
  if (column.way !== 0 || !column.free.some(([from, to]) => from <= low && high <= to)) return null;
  const lowFirst = start.y - low + (high - finish.y) <= high - start.y + (finish.y - low);
  const turns = lowFirst ? [low, high] : [high, low];
  const path = cornersOf([start.y, ...turns, finish.y].map((y): Point => [column.x, y]));
  const sequence = alongPath(path, stops);
  const distance = alongCorners(path);
  return { distance, sequence, path, lowerBound: distance, proven: true, found: 'line' };
}

/** Stops of one aisle in the order in which a walk along it first comes by. */
function alongPath(path: Point[], stops: Stop[]): string[] {
  const left = new Set(stops);
  return path.flatMap(([, to], i) => {
    const from = path[i - 1]?.[1] ?? to;
    const met = [...left].filter((s) => s.y >= Math.min(from, to) && s.y <= Math.max(from, to));
    for (const s of met) left.delete(s);
    return met.sort((a, b) => (to >= from ? a.y - b.y : b.y - a.y)).map((s) => s.id);
  });
}

/** What must be visited, by aisle. */
function neededBy({ start, finish, stops }: Omit<RouteProblem, 'floor'>, map: FloorMap): (Needed | null)[] {
  const { columns, columnOf } = map.network;
  const needed: (Needed | null)[] = columns.map(() => null);
  const at = ({ aisle, y }: Place) => {
    const column = columnOf.get(aisle)!;
    const places = (needed[column] ??= { ys: [], odd: [] });
    if (!places.ys.includes(y)) places.ys.push(y);
    return places;
  };
  for (const stop of stops) at(stop);
  const ends = [at(start), at(finish)];
  if (start.aisle !== finish.aisle || start.y !== finish.y) [start, finish].forEach(({ y }, i) => ends[i]!.odd.push(y));
  for (const places of needed) places?.ys.sort((a, b) => a - b);
  return needed;
}

function bySweep(problem: RouteProblem, map: FloorMap): Route | null {
  const { network } = map;
  const { metres, edges } = sweep(network, neededBy(problem, map), true);
  if (metres === Infinity) return null;
  return along(trace(edges, spotOf(network, problem.start)), problem.stops, map);
}

/** A proven walk through spots of the grid, with its stops in the order in which it first comes by. */
export function along(walk: readonly Spot[], stops: readonly Stop[], { network }: FloorMap): Route {
  const stopsAt = new Map<string, string[]>();
  for (const stop of stops) {
    const key = `${network.columnOf.get(stop.aisle)!} ${stop.y}`;
    stopsAt.set(key, [...(stopsAt.get(key) ?? []), stop.id]);
  }
  const sequence: string[] = [];
  for (const { column, y } of walk) {
    const key = `${column} ${y}`;
    sequence.push(...(stopsAt.get(key) ?? []));
    stopsAt.delete(key);
  }
  const path = cornersOf(walk.map(({ column, y }): Point => [network.columns[column]!.x, y]));
  const distance = alongCorners(path);
  return { distance, sequence, path, lowerBound: distance, proven: true, found: 'sweep' };
}

function bySearch(problem: RouteProblem, walks: Walks, map: FloorMap, effort: Effort): Route {
  const { network } = map;
  const node = new Map(walks.stopsAt.flatMap((stops, n) => stops.map((s) => [s.id, n] as const)));
  const orders = [insertion(walks)];
  for (const rule of ruleNames)
    try {
      orders.push([...new Set(byRule(rule, problem, map).sequence.map((id) => node.get(id)!))]);
    } catch (error) {
      if (!(error instanceof NoRule)) throw error;
    }
  const oneWay = network.directed ? oneWayWalk(walks, map) : null;
  if (oneWay) orders.push(insertion(walks, oneWay.order));
  const swept = network.rows.length <= SWEEP_ROWS ? sweep(network, neededBy(problem, map)).metres : 0;
  const from = orders.reduce((a, b) => (lengthOf(walks, b) < lengthOf(walks, a) ? b : a));
  if (lengthOf(walks, from) === Infinity) throw new UnreachableStop(cutOff(walks));
  const bound = Math.max(swept === Infinity ? 0 : swept, oneWay?.bound ?? 0, treeBound(walks, lengthOf(walks, from)));
  return drawn(walks, map, closed(walks, search(walks, orders, bound, effort)), bound, 'search');
}

/** A visiting order from the start to the finish. */
const closed = ({ size }: Walks, order: readonly number[]): number[] => [0, ...order, size - 1];

/** The walk from node to node, drawn on the floor, with the stops at each. */
export function drawn(walks: Walks, map: FloorMap, nodes: readonly number[], bound: number, found: Found): Route {
  const path = cornersOf(
    nodes.flatMap((n, i) =>
      i === 0
        ? [[map.x(walks.places[n]!.aisle), walks.places[n]!.y] as Point]
        : map.walk(walks.places[nodes[i - 1]!]!, walks.places[n]!),
    ),
  );
  const distance = alongCorners(path);
  const proven = distance <= bound + 1e-6;
  return {
    distance,
    sequence: nodes.flatMap((n) => walks.stopsAt[n]!.map((s) => s.id)),
    path,
    lowerBound: proven ? distance : bound,
    proven,
    found,
  };
}
