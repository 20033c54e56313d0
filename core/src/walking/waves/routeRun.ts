import { mapFloor, type FloorMap, type Place, type Point } from '../floor/index.ts';
import { estimate } from '../labour/index.ts';
import {
  alongCorners,
  cornersOf,
  openRoute,
  route,
  routeInPhases,
  UnreachableStop,
  type Route,
  type Stop,
} from '../routing/index.ts';
import { usualWalking, type Carry } from '../choices/index.ts';
import { HIGH_LEVEL, type WaveBin, type WaveProblem } from './problem.ts';

/** A pick of a run, as its order in the run needs to know it. */
export interface RunStop extends Stop {
  bin: WaveBin;
  order: string;
  units: number;
  /** Position of the cart, from 1. */
  position: number;
  handling?: string | undefined;
  chilled?: boolean | undefined;
}

export interface RoutedRun<S extends RunStop> {
  distance: number;
  /** Metres that no walk past these bins can beat, and whether this one does not exceed them. */
  lowerBound: number;
  proven: boolean;
  path: Point[];
  /** Bins visited. */
  stops: number;
  /** What it should take, by the crew's standards; 0 without a crew. */
  seconds: number;
  /** In the order of picking. */
  order: S[];
}

/** The walk of a run that keeps to how the site walks and to what it minds on the way, and the order of its picks. */
export function routeRun<S extends RunStop>(
  problem: Pick<WaveProblem, 'floor' | 'start' | 'finish' | 'carry' | 'crew' | 'walking'>,
  stops: readonly S[],
  map: FloorMap = mapFloor(problem.floor),
): RoutedRun<S> {
  const byId = new Map(stops.map((s) => [s.id, s]));
  const walks = phasesOf(problem.carry).map((phase) => ({
    phase,
    walk: walkOf(problem, stops, phase && ((id: string) => phase(byId.get(id)!)), map),
  }));
  const { walk, phase } = walks.reduce((a, b) => (b.walk.distance < a.walk.distance ? b : a));
  const order = inBinOrder(
    walk.sequence.map((id) => byId.get(id)!),
    phase ?? (() => 0),
    problem.walking?.by === 'sequence',
  );
  const { crew } = problem;
  return {
    distance: walk.distance,
    lowerBound: walk.lowerBound,
    proven: walk.proven,
    path: walk.path,
    stops: new Set(order.map((s) => s.bin.bin)).size,
    seconds: crew ? crew.standards.perRun + walk.distance / crew.standards.speed + handlingOf(crew, order) : 0,
    order,
  };
}

type Walk = Pick<Route, 'distance' | 'sequence' | 'path' | 'lowerBound' | 'proven'>;

function walkOf(
  { floor, start, finish, walking = usualWalking }: Pick<WaveProblem, 'floor' | 'start' | 'finish' | 'walking'>,
  stops: readonly RunStop[],
  phaseOf: ((id: string) => number) | null,
  map: FloorMap,
): Walk {
  const ask = { floor, start, finish, stops: [...stops] };
  const chained = walking.between === 'chain';
  if (walking.by === 'sequence') {
    const phase = phaseOf ?? (() => 0);
    const sequence = [...stops].sort((a, b) => phase(a.id) - phase(b.id) || inNumbers(a, b, map));
    const best = chained ? openRoute(stops, map) : route(ask, { seed: 1 }, map);
    return asOrdered(sequence, chained ? [] : [start, finish], best.lowerBound, map);
  }
  if (!chained) return phaseOf ? routeInPhases(ask, (s) => phaseOf(s.id), map) : route(ask, { seed: 1 }, map);
  const open = openRoute(stops, map);
  const byId = new Map(stops.map((s) => [s.id, s]));
  if (phaseOf) {
    // Which goods come first decides the order; what is walked before the first stop and after the last is another run's.
    const { sequence } = routeInPhases(ask, (s) => phaseOf(s.id), map);
    return asOrdered(
      sequence.map((id) => byId.get(id)!),
      [],
      open.lowerBound,
      map,
    );
  }
  const [first, last] = [byId.get(open.sequence[0]!)!, byId.get(open.sequence.at(-1)!)!];
  // Forward is towards the higher numbers of the site.
  return map.network.directed || inNumbers(first, last, map) <= 0 ? open : { ...open, ...turned(open) };
}

/** The same walk the other way round. */
const turned = ({ sequence, path }: Walk) => ({ sequence: [...sequence].reverse(), path: [...path].reverse() });

/** By the numbers of the bins; bins without one come last, by where they lie. */
const inNumbers = (a: RunStop, b: RunStop, map: FloorMap): number =>
  (a.bin.sequence ?? Infinity) - (b.bin.sequence ?? Infinity) || map.x(a.aisle) - map.x(b.aisle) || a.y - b.y;

/**
 * The walk past stops in an order that is given.
 *
 * @param ends where it begins and where it ends, beside the stops; empty where at these
 * @throws UnreachableStop when one-way or blocked aisles are in the way
 */
function asOrdered(stops: readonly RunStop[], ends: Place[], lowerBound: number, map: FloorMap): Walk {
  const places = ends.length === 0 ? stops : [ends[0]!, ...stops, ends[1]!];
  places.forEach((to, i) => {
    if (i > 0 && map.distance(places[i - 1]!, to) === Infinity)
      throw new UnreachableStop(stops[i - (ends.length === 0 ? 0 : 1)]?.id ?? null);
  });
  const path = cornersOf(
    places.flatMap((to, i): Point[] => (i === 0 ? [[map.x(to.aisle), to.y]] : map.walk(places[i - 1]!, to))),
  );
  const distance = alongCorners(path);
  const proven = distance <= lowerBound + 1e-6;
  return { distance, sequence: stops.map((s) => s.id), path, lowerBound: proven ? distance : lowerBound, proven };
}

/** Seconds of work at stops, walking left out. */
export function handlingOf(crew: WaveProblem['crew'], stops: readonly RunStop[]): number {
  if (!crew) return 0;
  const units: Record<string, number> = {};
  for (const s of stops) units[s.handling ?? 'easy'] = (units[s.handling ?? 'easy'] ?? 0) + s.units;
  const count = stops.length;
  return estimate({ runs: 0, distance: 0, stops: count, scans: 2 * count, drops: count, units }, crew.standards)
    .seconds;
}

/** Whether a site minds anything on the way: then a run has a first and a last. */
export const minds = ({ heavyFirst, chilledLast, highTogether }: Carry): boolean =>
  heavyFirst || chilledLast || highTogether;

/** What comes first in a run; of several answers the shortest walk is taken. */
function phasesOf(carry: Carry | undefined): (((stop: RunStop) => number) | null)[] {
  if (!carry || !minds(carry)) return [null];
  const weight = ({ handling = '' }: RunStop) =>
    !carry.heavyFirst ? 1 : handling === 'heavy' || handling === 'two-person' ? 0 : handling === 'fragile' ? 2 : 1;
  const cold = ({ chilled }: RunStop) => (carry.chilledLast && chilled ? 1 : 0);
  const high = ({ bin }: RunStop) => (carry.highTogether && (bin.level ?? 1) >= HIGH_LEVEL ? 1 : 0);
  const last = (stop: RunStop) => cold(stop) * 100 + weight(stop) * 10 + high(stop);
  const first = (stop: RunStop) => cold(stop) * 100 + weight(stop) * 10 - high(stop);
  return carry.highTogether ? [last, first] : [last];
}

/**
 * Bins above one another are one place: what is taken from one of them in one phase stays together, by the site's own
 * numbers where these count, lower levels first.
 */
function inBinOrder<S extends RunStop>(stops: S[], phaseOf: (stop: S) => number, numbered: boolean): S[] {
  const key = (s: S) => `${s.aisle} ${s.y} ${phaseOf(s)}`;
  const code = (s: S) => s.bin.bin;
  const sorted: S[] = [];
  for (let at = 0; at < stops.length;) {
    let end = at + 1;
    while (end < stops.length && key(stops[end]!) === key(stops[at]!)) end++;
    sorted.push(
      ...stops
        .slice(at, end)
        .sort(
          (a, b) =>
            (numbered ? (a.bin.sequence ?? 0) - (b.bin.sequence ?? 0) : 0) ||
            (a.bin.level ?? 0) - (b.bin.level ?? 0) ||
            (code(a) < code(b) ? -1 : code(a) > code(b) ? 1 : 0) ||
            a.position - b.position,
        ),
    );
    at = end;
  }
  return sorted;
}
