import type { BatchOrder } from '@hand-relay/core/walking/batching';
import { mapFloor, type Floor, type Place } from '@hand-relay/core/walking/floor';
import { openMeter } from '@hand-relay/core/walking/routing';
import type { Program, Solver } from '@hand-relay/core/solver';

/** Runs that are tried at most: beyond, nothing is proven in reasonable time. */
const MOST_RUNS = 60_000;

/**
 * The shortest batches by another method: every run that the cart takes is measured, and a mixed-integer program covers
 * the orders with the shortest of them (set partitioning, as in Gademann and van de Velde 2005; an order covered twice
 * can be left out of one run without making it longer).
 *
 * @returns metres, and whether they are proven; null where there are too many runs to list
 */
export function exactBatch(
  orders: readonly BatchOrder[],
  maxUnits: number,
  { floor, start, finish }: { floor: Floor; start: Place; finish: Place },
  solver: Solver,
  seconds: number,
): { metres: number; bound: number; proven: boolean } | null {
  const meter = openMeter(mapFloor(floor), start, finish);
  const loads = orders.map((o) => meter.load(o.stops));
  const runs: number[][] = [];
  const extend = (run: number[], units: number, from: number): boolean => {
    for (let o = from; o < orders.length; o++) {
      if (units + orders[o]!.units > maxUnits) continue;
      if (runs.push([...run, o]) > MOST_RUNS || !extend([...run, o], units + orders[o]!.units, o + 1)) return false;
    }
    return true;
  };
  if (!extend([], 0, 0)) return null;
  const program: Program = {
    gain: runs.map((run) => -meter.length(run.map((o) => loads[o]!))),
    top: runs.map(() => 1),
    whole: runs.map(() => true),
    rows: orders.map((_, o) => ({
      limit: -1,
      terms: runs.flatMap((run, variable) => (run.includes(o) ? [{ variable, factor: -1 }] : [])),
    })),
  };
  const { x, bound, proven } = solver(program, { seconds, nodes: 1_000_000, seed: 1 });
  const metres = x ? runs.reduce((n, _, r) => n - (x[r]! > 0.5 ? program.gain[r]! : 0), 0) : NaN;
  return { metres, bound: -bound, proven };
}
