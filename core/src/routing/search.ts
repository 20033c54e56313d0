import { seeded, type Random } from '../random/index.ts';
import { lengthOf, type Walks } from './problem.ts';

const EPSILON = 1e-9;

/** How long a search goes on. Without `over` its length depends on the problem alone, so the same seed gives the same answer. */
export interface Effort {
  seed: number;
  /** Told before each step; true ends the search. */
  over?: (() => boolean) | undefined;
}

/** Cheapest insertion: nodes join the walk where they lengthen it least, the far ones first. */
export function insertion({ metres, size }: Walks): number[] {
  const d = (a: number, b: number) => metres[a * size + b]!;
  const far = (n: number) => d(0, n) + d(n, size - 1);
  const tour = [0, size - 1];
  for (const node of Array.from({ length: size - 2 }, (_, i) => i + 1).sort((a, b) => far(b) - far(a) || a - b)) {
    let [at, least] = [1, Infinity];
    for (let i = 1; i < tour.length; i++) {
      const [p, q] = [tour[i - 1]!, tour[i]!];
      // Without a way in or out the place is no place for it, unless there is none at all.
      const more = d(p, node) + d(node, q) - (d(p, q) === Infinity ? 0 : d(p, q));
      if (more < least) [at, least] = [i, more];
    }
    tour.splice(at, 0, node);
  }
  return tour.slice(1, -1);
}

/**
 * Local search with two moves until neither helps: turning a stretch round (2-opt; Croes 1958) and moving a stretch of
 * up to three nodes elsewhere, either way round (Or 1976). Walks may differ with their direction.
 *
 * @returns a visiting order no longer than the one given
 */
function improve(walks: Walks, given: readonly number[]): number[] {
  const tour = Int32Array.from([0, ...given, walks.size - 1]);
  const sums = { there: new Float64Array(tour.length), back: new Float64Array(tour.length) };
  do sum(walks, tour, sums);
  while (turnStretch(walks, tour, sums) || moveStretch(walks, tour, sums));
  return [...tour.subarray(1, -1)];
}

interface Sums {
  there: Float64Array;
  back: Float64Array;
}

/** Walks along the tour up to each place, and the same backwards. */
function sum({ metres, size }: Walks, tour: Int32Array, { there, back }: Sums): void {
  for (let i = 1; i < tour.length; i++) {
    there[i] = there[i - 1]! + metres[tour[i - 1]! * size + tour[i]!]!;
    back[i] = back[i - 1]! + metres[tour[i]! * size + tour[i - 1]!]!;
  }
}

function turnStretch({ metres, size }: Walks, tour: Int32Array, { there, back }: Sums): boolean {
  const d = (i: number, j: number) => metres[tour[i]! * size + tour[j]!]!;
  for (let i = 0; i < tour.length - 3; i++)
    for (let j = i + 2; j < tour.length - 1; j++) {
      const turned = back[j]! - back[i + 1]! - (there[j]! - there[i + 1]!);
      if (!(d(i, j) + d(i + 1, j + 1) + turned + EPSILON < d(i, i + 1) + d(j, j + 1))) continue;
      tour.subarray(i + 1, j + 1).reverse();
      return true;
    }
  return false;
}

function moveStretch({ metres, size }: Walks, tour: Int32Array, { there, back }: Sums): boolean {
  const d = (a: number, b: number) => metres[a * size + b]!;
  const end = tour.length - 1;
  for (let length = 1; length <= 3; length++)
    for (let i = 1; i + length <= end; i++) {
      const j = i + length - 1;
      const [before, first, last, after] = [tour[i - 1]!, tour[i]!, tour[j]!, tour[j + 1]!];
      const gain = d(before, first) + d(last, after) - d(before, after);
      if (!(gain > EPSILON)) continue;
      const turned = back[j]! - back[i]! - (there[j]! - there[i]!);
      for (let k = 0; k < end; k++) {
        if (k >= i - 1 && k <= j) continue;
        const [p, q] = [tour[k]!, tour[k + 1]!];
        const forward = d(p, first) + d(last, q);
        const backward = d(p, last) + d(first, q) + turned;
        const cost = Math.min(forward, backward) - d(p, q);
        if (!(cost + EPSILON < gain)) continue;
        const stretch = tour.slice(i, j + 1);
        if (backward < forward) stretch.reverse();
        if (k < i) {
          tour.copyWithin(k + 1 + length, k + 1, i);
          tour.set(stretch, k + 1);
        } else {
          tour.copyWithin(i, j + 1, k + 1);
          tour.set(stretch, k - length + 1);
        }
        return true;
      }
    }
  return false;
}

/** Two neighbouring stretches change places (the double bridge of Martin, Otto and Felten 1991): a way out of a dead end. */
function shaken(order: readonly number[], random: Random): number[] {
  const [a, b, c] = [0, 0, 0].map(() => random.int(0, order.length)).sort((x, y) => x - y) as [number, number, number];
  return [...order.slice(0, a), ...order.slice(b, c), ...order.slice(a, b), ...order.slice(c)];
}

/**
 * Iterated local search from the best of the orders given (Lourenço, Martin and Stützle 2003).
 *
 * @param enough a length that cannot be beaten: reaching it ends the search
 */
export function search(walks: Walks, orders: number[][], enough: number, { seed, over }: Effort): number[] {
  const random = seeded(seed);
  let best = orders.map((o) => improve(walks, o)).reduce((a, b) => (lengthOf(walks, b) < lengthOf(walks, a) ? b : a));
  let least = lengthOf(walks, best);
  const steps = best.length < 4 ? 0 : Math.min(600, Math.ceil(60_000 / best.length));
  let kept = best;
  let length = least;
  for (let step = 0; step < steps && least > enough + EPSILON && !over?.(); step++) {
    const other = improve(walks, shaken(kept, random));
    const metres = lengthOf(walks, other);
    // A little longer is taken now and then, so that the search leaves where it stands.
    if (metres <= length + EPSILON || random.next() < 0.02) [kept, length] = [other, metres];
    if (metres < least - EPSILON) [best, least] = [other, metres];
  }
  return best;
}
