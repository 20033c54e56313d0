import type { Walks } from './problem.ts';

/** Largest number of places that `heldKarp` takes: its table grows with 2 to the power of it. */
export const EXACT_PLACES = 13;

/**
 * Shortest visiting order by dynamic programming over subsets (Held and Karp 1962).
 *
 * @param walks at most `EXACT_PLACES` inner nodes
 * @returns inner nodes in visiting order; null where no order can be walked
 */
export function heldKarp(walks: Walks): number[] | null {
  const { metres, size } = walks;
  const n = size - 2;
  if (n === 0) return metres[size - 1] === Infinity ? null : [];
  const full = (1 << n) - 1;
  const cost = new Float64Array((1 << n) * n).fill(Infinity);
  const before = new Int8Array((1 << n) * n).fill(-1);
  for (let j = 0; j < n; j++) cost[(1 << j) * n + j] = metres[j + 1]!;
  for (let set = 1; set <= full; set++)
    for (let j = 0; j < n; j++) {
      const here = cost[set * n + j]!;
      if (here === Infinity) continue;
      for (let k = 0; k < n; k++) {
        if (set & (1 << k)) continue;
        const next = (set | (1 << k)) * n + k;
        const d = here + metres[(j + 1) * size + k + 1]!;
        if (d < cost[next]!) {
          cost[next] = d;
          before[next] = j;
        }
      }
    }
  let last = 0;
  let least = Infinity;
  for (let j = 0; j < n; j++) {
    const d = cost[full * n + j]! + metres[(j + 1) * size + size - 1]!;
    if (d < least) [last, least] = [j, d];
  }
  if (least === Infinity) return null;
  const order: number[] = [];
  for (let set = full, j = last; j >= 0;) {
    order.push(j + 1);
    const prior = before[set * n + j]!;
    set &= ~(1 << j);
    j = prior;
  }
  return order.reverse();
}
