import type { Load, Meter } from '../routing/index.ts';
import { fits, nothingWeighed, weigh, weightOf, type BatchOrder, type CartLimits, type Weighed } from './problem.ts';

/** Orders as numbers, in the order given, with what is asked of them again and again. */
export interface Prepared {
  orders: readonly BatchOrder[];
  loads: Load[];
  weights: Weighed[];
  cart: CartLimits;
  meter: Meter;
}

export function prepare(orders: readonly BatchOrder[], cart: CartLimits, meter: Meter): Prepared {
  return { orders, loads: orders.map((o) => meter.load(o.stops)), weights: orders.map(weightOf), cart, meter };
}

export const lengthOf = ({ meter, loads }: Prepared, run: readonly number[]): number =>
  meter.length(run.map((o) => loads[o]!));
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

/** Runs whose pairs are all weighed; among more orders only those that share most of their way. */
const ALL_PAIRS = 250;
const NEIGHBOURS = 24;

/**
 * For each order those others that share most of its way: aisles in common, by the blocks in which both have stops.
 */
export function neighbours({ loads }: Prepared, rows: readonly number[], most = NEIGHBOURS): number[][] {
  const cells = loads.map((load) => {
    const set = new Set<number>();
    load.forEach((ys, c) => {
      for (const y of ys ?? []) set.add(c * rows.length + rows.findLastIndex((r) => r <= y));
    });
    return set;
  });
  const holders = new Map<number, number[]>();
  cells.forEach((set, o) => {
    for (const cell of set) holders.set(cell, [...(holders.get(cell) ?? []), o]);
  });
  return cells.map((set, o) => {
    const shared = new Map<number, number>();
    for (const cell of set)
      for (const other of holders.get(cell)!) if (other !== o) shared.set(other, (shared.get(other) ?? 0) + 1);
    return [...shared]
      .map(([other, n]) => ({ other, alike: n / (set.size + cells[other]!.size - n) }))
      .sort((a, b) => b.alike - a.alike || a.other - b.other)
      .slice(0, most)
      .map(({ other }) => other);
  });
}

/** Partners that a joined run takes over from both its parts, the likest first. */
const TAKEN_OVER = 64;

/**
 * Savings, recomputed after each joining (Clarke and Wright 1964; as C&W(ii) in De Koster, Van der Poort and Wolters
 * 1999): of all pairs of runs that fit one cart the one is joined that saves most, until none saves or fits. Among many
 * orders those that share their way are joined first, then all pairs of what is left.
 *
 * @param near pairs to weigh, by order; all pairs where absent
 * @param over told between joinings; true ends the weighing: what is left is joined as it fits
 */
export function savings(problem: Prepared, near?: readonly number[][], over?: () => boolean): number[][] {
  const single = problem.weights.map((_, o) => [o]);
  if (!near) return joined(problem, single, null, over);
  const partners = near.map((list) => new Set(list));
  near.forEach((list, o) => list.forEach((other) => partners[other]!.add(o)));
  const runs = joined(problem, joined(problem, single, partners, over), null, over);
  return over?.() ? asTheyFit(problem, runs) : runs;
}

/** Joins runs by savings, those of each with its partners; with all others where no partners are named. */
function joined(
  problem: Prepared,
  given: readonly number[][],
  named: Set<number>[] | null,
  over: (() => boolean) | undefined,
): number[][] {
  const { cart, weights } = problem;
  const size = given.length;
  const runs: (number[] | null)[] = [...given];
  const lengths = given.map((r) => lengthOf(problem, r));
  const weight = given.map((r) => r.reduce((w, o) => weigh(w, weights[o]!), nothingWeighed));
  const partners = named ?? given.map(() => new Set(given.keys()));
  // The best partner of each run, found again only when it or its partner was joined.
  const best: ({ with: number; saved: number } | null)[] = given.map(() => null);
  const known = new Map<number, number>();
  const savedBy = (a: number, b: number): number => {
    const key = Math.min(a, b) * size + Math.max(a, b);
    const before = known.get(key);
    if (before !== undefined) return before;
    const saved = lengths[a]! + lengths[b]! - lengthOf(problem, [...runs[a]!, ...runs[b]!]);
    known.set(key, saved);
    return saved;
  };
  const look = (a: number) => {
    let top: { with: number; saved: number } | null = null;
    for (const b of partners[a]!) {
      if (b === a || !runs[b] || !fits(weigh(weight[a]!, weight[b]!), cart)) continue;
      const saved = savedBy(a, b);
      if (saved > (top?.saved ?? 0) || (top && saved === top.saved && b < top.with)) top = { with: b, saved };
    }
    best[a] = top;
  };
  for (let a = 0; a < size && !over?.(); a++) look(a);
  while (!over?.()) {
    let top = -1;
    for (let a = 0; a < size; a++) if (runs[a] && best[a] && (top < 0 || best[a]!.saved > best[top]!.saved)) top = a;
    if (top < 0) break;
    const gone = best[top]!.with;
    runs[top] = [...runs[top]!, ...runs[gone]!];
    lengths[top] = lengths[top]! + lengths[gone]! - best[top]!.saved;
    weight[top] = weigh(weight[top]!, weight[gone]!);
    runs[gone] = null;
    if (named)
      for (const b of partners[gone]!) {
        if (!runs[b] || b === top || partners[top]!.size >= TAKEN_OVER) continue;
        partners[top]!.add(b);
        partners[b]!.add(top);
      }
    for (let b = 0; b < size; b++) known.delete(Math.min(top, b) * size + Math.max(top, b));
    for (let a = 0; a < size; a++) {
      if (!runs[a]) continue;
      const with_ = best[a]?.with;
      if (a === top || with_ === top || with_ === gone) look(a);
      else if (partners[a]!.has(top) && fits(weigh(weight[a]!, weight[top]!), cart)) {
        const saved = savedBy(a, top);
        if (saved > 0 && (!best[a] || saved > best[a]!.saved)) best[a] = { with: top, saved };
      }
    }
  }
  return runs.filter((r): r is number[] => r !== null);
}

/** Joins runs wherever they fit, the fullest first: as few as can be had without measuring. */
function asTheyFit({ cart, weights }: Prepared, runs: readonly number[][]): number[][] {
  const loaded = runs
    .map((orders) => ({ orders, weight: orders.reduce((w, o) => weigh(w, weights[o]!), nothingWeighed) }))
    .sort((a, b) => b.weight.count - a.weight.count || b.weight.units - a.weight.units);
  const kept: typeof loaded = [];
  for (const run of loaded) {
    const into = kept.find((k) => fits(weigh(k.weight, run.weight), cart));
    if (!into) kept.push({ ...run });
    else {
      into.orders = [...into.orders, ...run.orders];
      into.weight = weigh(into.weight, run.weight);
    }
  }
  return kept.map((k) => k.orders);
}

/** Where savings over all pairs would take long, neighbours alone are weighed. */
export const fewEnough = (orders: number): boolean => orders <= ALL_PAIRS;
