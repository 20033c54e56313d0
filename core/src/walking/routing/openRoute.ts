import type { FloorMap, Place } from '../floor/index.ts';
import { treeBound } from './bound.ts';
import { EXACT_PLACES, heldKarp } from './heldKarp.ts';
import { openSweep } from './openSweep.ts';
import { lengthOf, measure, UnreachableStop, type Stop, type Walks } from './problem.ts';
import { along, drawn, type Route } from './route.ts';
import { insertion, search } from './search.ts';
import { SWEEP_ROWS } from './sweep.ts';
import { trace, type Spot } from './trace.ts';

/**
 * The shortest walk through a set of stops that begins at one of them and ends at another, whichever suit it best: for
 * runs that each start where the last ended. Exact by a sweep over the aisles where `route` is, by subsets (Held and
 * Karp 1962) up to thirteen places elsewhere, else by search with a bound.
 *
 * @param stops at least one
 * @throws UnreachableStop when one-way or blocked aisles keep stops apart
 */
export function openRoute(stops: readonly Stop[], map: FloorMap): Route {
  const { network } = map;
  const ys = network.columns.map(() => new Set<number>());
  for (const stop of stops) {
    map.distance(stop, stop);
    ys[network.columnOf.get(stop.aisle)!]!.add(stop.y);
  }
  const places = ys.map((set) => [...set].sort((a, b) => a - b));
  const line = inOneStretch(places, map);
  if (line) return along(line, stops, map);
  if (!network.directed && network.rows.length <= SWEEP_ROWS) {
    const edges = openSweep(network, places);
    if (!edges) throw new UnreachableStop(apart(stops, map));
    return along(trace(edges, oddSpot(edges)), stops, map);
  }
  const walks = openEnds(measure({ start: stops[0]!, finish: stops[0]!, stops: [...stops] }, map));
  const exact = walks.size - 2 <= EXACT_PLACES;
  const order = exact ? heldKarp(walks) : searched(walks);
  if (!order || lengthOf(walks, order) === Infinity) throw new UnreachableStop(apart(stops, map));
  const length = lengthOf(walks, order);
  return drawn(walks, map, order, exact ? length : treeBound(walks, length), exact ? 'subsets' : 'search');
}

/** The walk along one aisle, where all places lie in one stretch of it that can be walked either way. */
function inOneStretch(places: readonly number[][], { network }: FloorMap): Spot[] | null {
  const used = places.flatMap((list, column) => (list.length > 0 ? [column] : []));
  if (used.length !== 1) return null;
  const [column] = used;
  const [low, high] = [places[column!]![0]!, places[column!]!.at(-1)!];
  const { way, free } = network.columns[column!]!;
  if (way !== 0 && low !== high) return null;
  // Who stands at the only place there is has no way to go.
  if (low !== high && !free.some(([from, to]) => from <= low && high <= to)) return null;
  return places[column!]!.map((y) => ({ column: column!, y }));
}

/** A spot at which an odd number of edges meets: one end of the walk. */
function oddSpot(edges: readonly { from: Spot; to: Spot; times: number }[]): Spot {
  const meets = new Map<string, { spot: Spot; times: number }>();
  for (const { from, to, times } of edges)
    for (const spot of [from, to]) {
      const known = meets.get(`${spot.column} ${spot.y}`);
      meets.set(`${spot.column} ${spot.y}`, { spot, times: (known?.times ?? 0) + times });
    }
  return [...meets.values()].find((m) => m.times % 2 === 1)!.spot;
}

/** The same walks with nothing to walk to the first place and from the last. */
function openEnds(walks: Walks): Walks {
  const metres = walks.metres.slice();
  const { size } = walks;
  for (let n = 0; n < size; n++) for (const end of [0, size - 1]) metres[end * size + n] = metres[n * size + end] = 0;
  return { ...walks, metres };
}

function searched(walks: Walks): number[] {
  const first = insertion(walks);
  return search(walks, [first], treeBound(walks, lengthOf(walks, first)), { seed: 1 });
}

/** A stop that cannot be walked to from another, or not back. */
function apart(stops: readonly Stop[], map: FloorMap): string | null {
  const from: Place = stops[0]!;
  return stops.find((s) => map.distance(from, s) === Infinity && map.distance(s, from) === Infinity)?.id ?? null;
}
