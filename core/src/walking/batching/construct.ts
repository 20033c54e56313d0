import type { Load, Meter } from '../routing/index.ts';
import { fits, nothingWeighed, weigh, weightOf, type BatchOrder, type CartLimits, type Weighed } from './problem.ts';

/** Orders as numbers, in the order given, with what is asked of them again and again. */
export interface Prepared {
  orders: readonly BatchOrder[];
  loads: readonly Load[];
  weights: readonly Weighed[];
  cart: CartLimits;
  /** Length of the walk over loads, by which runs are compared: the shortest, or a stand-in where that costs too much. */
  gauge: Meter['length'];
}

export function prepare(
  orders: readonly BatchOrder[],
  cart: CartLimits,
  { load, gauge }: { load: Meter['load']; gauge: Meter['length'] },
): Prepared {
  return { orders, loads: orders.map((o) => load(o.stops)), weights: orders.map(weightOf), cart, gauge };
}

/** The same with some of the orders alone, renumbered. */
export function only(problem: Prepared, chosen: readonly number[]): Prepared {
  return {
    ...problem,
    orders: chosen.map((o) => problem.orders[o]!),
    loads: chosen.map((o) => problem.loads[o]!),
    weights: chosen.map((o) => problem.weights[o]!),
  };
}

export const lengthOf = ({ gauge, loads }: Prepared, run: readonly number[]): number =>
  gauge(run.map((o) => loads[o]!));

/** First come, first served: a run is closed when the next order does not fit (next-fit). */
export function firstCome({ weights, cart }: Prepared): number[][] {
  const runs: number[][] = [];
  let weight: Weighed = nothingWeighed;
  weights.forEach((w, order) => {
    const more = weigh(weight, w);
    if (runs.length > 0 && fits(more, cart)) {
      runs.at(-1)!.push(order);
      weight = more;
    } else {
      runs.push([order]);
      weight = w;
    }
  });
  return runs;
}

/**
 * Savings, recomputed after each joining (Clarke and Wright 1964; as C&W(ii) in De Koster, Van der Poort and Wolters
 * 1999): of all pairs of runs that fit one cart the one is joined that saves most, until none saves or fits.
 */
export function savings(problem: Prepared): number[][] {
  const { cart, weights } = problem;
  const size = weights.length;
  const runs: (number[] | null)[] = weights.map((_, o) => [o]);
  const lengths = weights.map((_, o) => lengthOf(problem, [o]));
  const weight = [...weights];
  // The best partner of each run, found again only when it or its partner was joined.
  const best: ({ with: number; saved: number } | null)[] = weights.map(() => null);
  const known = new Float64Array(size * size).fill(NaN);
  const savedBy = (a: number, b: number): number => {
    const key = Math.min(a, b) * size + Math.max(a, b);
    if (!Number.isNaN(known[key]!)) return known[key]!;
    const saved = lengths[a]! + lengths[b]! - lengthOf(problem, [...runs[a]!, ...runs[b]!]);
    known[key] = saved;
    return saved;
  };
  const look = (a: number) => {
    let top: { with: number; saved: number } | null = null;
    for (let b = 0; b < size; b++) {
      if (b === a || !runs[b] || !fits(weigh(weight[a]!, weight[b]!), cart)) continue;
      const saved = savedBy(a, b);
      if (saved > (top?.saved ?? 0) || (top && saved === top.saved && b < top.with)) top = { with: b, saved };
    }
    best[a] = top;
  };
  for (let a = 0; a < size; a++) look(a);
  for (;;) {
    let top = -1;
    for (let a = 0; a < size; a++) if (runs[a] && best[a] && (top < 0 || best[a]!.saved > best[top]!.saved)) top = a;
    if (top < 0) break;
    const gone = best[top]!.with;
    runs[top] = [...runs[top]!, ...runs[gone]!];
    lengths[top] = lengths[top]! + lengths[gone]! - best[top]!.saved;
    weight[top] = weigh(weight[top]!, weight[gone]!);
    runs[gone] = null;
    for (let b = 0; b < size; b++) known[Math.min(top, b) * size + Math.max(top, b)] = NaN;
    for (let a = 0; a < size; a++) {
      if (!runs[a]) continue;
      const with_ = best[a]?.with;
      if (a === top || with_ === top || with_ === gone) look(a);
      else if (fits(weigh(weight[a]!, weight[top]!), cart)) {
        const saved = savedBy(a, top);
        if (saved > 0 && (!best[a] || saved > best[a]!.saved)) best[a] = { with: top, saved };
      }
    }
  }
  return runs.filter((r): r is number[] => r !== null);
}
