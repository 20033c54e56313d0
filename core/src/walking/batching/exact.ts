import { fits, nothingWeighed, weigh, type CartLimits, type Weighed } from './problem.ts';

/**
 * Orders up to which every way of sharing them out is weighed: at nine, 511 runs are measured. Where each walk costs
 * milliseconds six: 63 runs; where it is a search of its own, as with one-way aisles, five: 31.
 */
export const FEW = { swept: 9, slow: 6, searched: 5 };

/**
 * The shortest of all ways to share few orders among runs, by dynamic programming over sets of orders: the run of the
 * first order of a set is each of its subsets in turn, and the rest is known. A large order runs by itself.
 *
 * @param length metres of a run's shortest walk
 * @param stop asked before each run is measured; once it says so, nothing is found
 * @returns null where it was stopped
 */
export function shortest(
  count: number,
  cart: CartLimits,
  weights: readonly Weighed[],
  length: (run: readonly number[]) => number,
  stop: () => boolean,
): number[][] | null {
  const all = (1 << count) - 1;
  const members = (set: number) => weights.flatMap((_, i) => (set & (1 << i) ? [i] : []));
  const walk = new Map<number, number>();
  for (let set = 1; set <= all; set++) {
    if (stop()) return null;
    const run = members(set);
    const weight = run.reduce((w, o) => weigh(w, weights[o]!), nothingWeighed);
    if (run.length === 1 || fits(weight, cart)) walk.set(set, length(run));
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
