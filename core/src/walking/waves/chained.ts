import type { FloorMap, Place } from '../floor/index.ts';
import { chain, type Link } from '../routing/index.ts';
import { usualWalking } from '../choices/index.ts';
import { type PlannedRun, type WaveProblem } from './problem.ts';
import { minds } from './routeRun.ts';

/** Whether a site's runs may be walked either way round. */
export function eitherWay(
  { carry, walking = usualWalking }: Pick<WaveProblem, 'carry' | 'walking'>,
  map: FloorMap,
): boolean {
  return walking.direction === 'alternate' && !map.network.directed && !(carry && minds(carry));
}

/**
 * Puts runs that each start where the last ended into the order, and each into the direction, of the least walk over
 * all. Runs of a lower rank come first whatever the walk.
 *
 * @param ranked runs in working order, each with its rank
 * @param placeOf where a bin stands
 */
export function chained(
  problem: Pick<WaveProblem, 'start' | 'carry' | 'walking' | 'crew'>,
  ranked: readonly { run: PlannedRun; rank: number }[],
  placeOf: (bin: string) => Place,
  map: FloorMap,
): PlannedRun[] {
  const links = ranked.map(({ run, rank }, i): Link<Place> => ({
    id: String(i),
    from: placeOf(run.picks[0]!.bin),
    to: placeOf(run.picks.at(-1)!.bin),
    metres: run.distance,
    priority: rank,
  }));
  const direction = eitherWay(problem, map) ? 'alternate' : 'one';
  const { runs } = chain(links, { start: problem.start, distance: map.distance, direction });
  let at = problem.start;
  return runs.map(({ id, backward }) => {
    const { run } = ranked[Number(id)]!;
    const { from, to } = links[Number(id)]!;
    const approach = map.distance(at, backward ? to : from);
    at = backward ? from : to;
    const seconds = problem.crew ? run.seconds + approach / problem.crew.standards.speed : 0;
    if (!backward) return { ...run, approach, seconds };
    const picks = [...run.picks].reverse().map((p, i) => ({ ...p, sequence: i + 1 }));
    return { ...run, approach, seconds, picks, path: [...run.path].reverse() };
  });
}
