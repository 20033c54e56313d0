import { mapFloor, type FloorMap, type Point } from '../floor/index.ts';
import { estimate } from '../labour/index.ts';
import { route, routeInPhases, type Stop } from '../routing/index.ts';
import { HIGH_LEVEL, type Carry, type WaveBin, type WaveProblem } from './problem.ts';

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

/** The shortest walk of a run that keeps to what the site minds on the way, and the order of its picks. */
export function routeRun<S extends RunStop>(
  problem: Pick<WaveProblem, 'floor' | 'start' | 'finish' | 'carry' | 'crew'>,
  stops: readonly S[],
  map: FloorMap = mapFloor(problem.floor),
): RoutedRun<S> {
  const byId = new Map(stops.map((s) => [s.id, s]));
  const { floor, start, finish, crew } = problem;
  const ask = { floor, start, finish, stops: [...stops] };
  const walks = phasesOf(problem.carry).map((phase) => ({
    phase,
    walk: phase ? routeInPhases(ask, (s) => phase(byId.get(s.id)!), map) : route(ask, { seed: 1 }, map),
  }));
  const { walk, phase } = walks.reduce((a, b) => (b.walk.distance < a.walk.distance ? b : a));
  const order = inBinOrder(
    walk.sequence.map((id) => byId.get(id)!),
    phase ?? (() => 0),
  );
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

/** Seconds of work at stops, walking left out. */
export function handlingOf(crew: WaveProblem['crew'], stops: readonly RunStop[]): number {
  if (!crew) return 0;
  const units: Record<string, number> = {};
  for (const s of stops) units[s.handling ?? 'easy'] = (units[s.handling ?? 'easy'] ?? 0) + s.units;
  const count = stops.length;
  return estimate({ runs: 0, distance: 0, stops: count, scans: 2 * count, drops: count, units }, crew.standards)
    .seconds;
}

/** What comes first in a run; of several answers the shortest walk is taken. */
function phasesOf(carry: Carry | undefined): (((stop: RunStop) => number) | null)[] {
  if (!carry || !(carry.heavyFirst || carry.chilledLast || carry.highTogether)) return [null];
  const weight = ({ handling = '' }: RunStop) =>
    !carry.heavyFirst ? 1 : handling === 'heavy' || handling === 'two-person' ? 0 : handling === 'fragile' ? 2 : 1;
  const cold = ({ chilled }: RunStop) => (carry.chilledLast && chilled ? 1 : 0);
  const high = ({ bin }: RunStop) => (carry.highTogether && (bin.level ?? 1) >= HIGH_LEVEL ? 1 : 0);
  const last = (stop: RunStop) => cold(stop) * 100 + weight(stop) * 10 + high(stop);
  const first = (stop: RunStop) => cold(stop) * 100 + weight(stop) * 10 - high(stop);
  return carry.highTogether ? [last, first] : [last];
}

/** Bins above one another are one place: what is taken from one of them in one phase stays together, lower levels first. */
function inBinOrder<S extends RunStop>(stops: S[], phaseOf: (stop: S) => number): S[] {
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
            (a.bin.level ?? 0) - (b.bin.level ?? 0) ||
            (code(a) < code(b) ? -1 : code(a) > code(b) ? 1 : 0) ||
            a.position - b.position,
        ),
    );
    at = end;
  }
  return sorted;
}
