import { mapFloor, type FloorMap, type Place } from '../floor/index.ts';
import type { RouteProblem, Stop } from './problem.ts';
import { lengthBetween, route, type Route } from './route.ts';
import { alongCorners, cornersOf } from './trace.ts';

/** Walks measured for one choice of where phases pass into one another; beyond, only the likeliest places are tried. */
const PAIRS = 3000;

/**
 * The shortest walk that serves stops phase by phase: heavy before fragile, chilled last, high levels together. Where
 * one phase passes into the next is chosen over all its places (dynamic programming over the last place of each phase).
 *
 * @param phaseOf phase of each stop, the lowest first
 * @throws UnreachableStop as `route` does
 */
export function routeInPhases(
  problem: RouteProblem,
  phaseOf: (stop: Stop) => number,
  map: FloorMap = mapFloor(problem.floor),
): Route {
  const groups = new Map<number, Stop[]>();
  for (const stop of problem.stops) {
    const phase = phaseOf(stop);
    groups.set(phase, [...(groups.get(phase) ?? []), stop]);
  }
  if (groups.size < 2) return route(problem, { seed: 1 }, map);
  const phases = [...groups].sort(([a], [b]) => a - b).map(([, stops]) => stops);
  const free = route(problem, { seed: 1 }, map);
  const exact = free.found !== 'search' && !map.network.directed;
  const ends = phases.slice(0, -1).map((stops) => [...new Map(stops.map((s) => [`${s.aisle} ${s.y}`, s])).values()]);
  const pairs = ends.reduce((n, e, i) => n + e.length * (i === 0 ? 1 : ends[i - 1]!.length), ends.at(-1)!.length);
  const all = exact && pairs <= PAIRS;
  const tried = all ? ends : ends.map((e) => e.slice(0, 12));

  let reached: { place: Place; metres: number; through: Place[] }[] = [
    { place: problem.start, metres: 0, through: [] },
  ];
  tried.forEach((places, i) => {
    reached = places.map((place) => {
      const ways = reached.map((r) => ({
        place,
        metres:
          r.metres + lengthBetween({ floor: problem.floor, start: r.place, finish: place, stops: phases[i]! }, map),
        through: [...r.through, place],
      }));
      return ways.reduce((a, b) => (b.metres < a.metres ? b : a));
    });
  });
  const last = phases.at(-1)!;
  const best = reached
    .map((r) => ({
      ...r,
      metres:
        r.metres + lengthBetween({ floor: problem.floor, start: r.place, finish: problem.finish, stops: last }, map),
    }))
    .reduce((a, b) => (b.metres < a.metres ? b : a));
  const turns = [problem.start, ...best.through, problem.finish];
  const parts = phases.map((stops, i) =>
    route({ floor: problem.floor, start: turns[i]!, finish: turns[i + 1]!, stops }, { seed: 1 }, map),
  );
  const path = cornersOf(parts.flatMap((p) => p.path));
  const distance = alongCorners(path);
  const proven = all || distance <= free.lowerBound + 1e-6;
  return {
    distance,
    sequence: parts.flatMap((p) => p.sequence),
    path,
    lowerBound: proven ? distance : free.lowerBound,
    proven,
    found: proven ? 'sweep' : 'search',
  };
}
