import { lengthOf, type Prepared } from './construct.ts';
import { fits, nothingWeighed, weigh } from './problem.ts';

/**
 * Orders up to which every way of sharing them out is weighed: at nine, 511 runs are measured. Where each walk is a
 * search of its own, as with one-way aisles, five: 31 runs.
 */
export const FEW = { swept: 9, searched: 5 };

/**
 * The shortest of all ways to share few orders among runs, by dynamic programming over sets of orders: the run of the
 * first order of a set is each of its subsets in turn, and the rest is known. A large order runs by itself.
 *
 * @param stop asked before each run is measured; once it says so, nothing is found
 * @returns null where it was stopped
 */
export function shortest(problem: Prepared, stop: () => boolean): number[][] | null {
  const { orders, weights, cart } = problem;
  const all = (1 << orders.length) - 1;
  const members = (set: number) => orders.flatMap((_, i) => (set & (1 << i) ? [i] : []));
  const walk = new Map<number, number>();
  for (let set = 1; set <= all; set++) {
    if (stop()) return null;
    const run = members(set);
    const weight = run.reduce((w, o) => weigh(w, weights[o]!), nothingWeighed);
    if (run.length === 1 || fits(weight, cart)) walk.set(set, lengthOf(problem, run));
  }
  const least = [0];
  const first = [0];
  for (let set = 1; set <= all; set++) {
    least[set] = Infinity;
    const lowest = set & -set;
    for (let run = set; run > 0; run = (run - 1) & set) {
      const metres = run & lowest ? walk.get(run) : undefined;
      if (metres === undefined) continue;
      const total = metres + least[set ^ run]!;
      // Where a bin cannot be reached no walk has a length; the orders are shared out all the same.
      if (first[set] !== undefined && !(total < least[set]!)) continue;
      least[set] = total;
      first[set] = run;
    }
  }
  const runs: number[][] = [];
  for (let left = all; left > 0; left ^= first[left]!) runs.push(members(first[left]!));
  return runs;
}
