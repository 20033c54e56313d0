/** One run of a chain as it is walked forward; backward it is walked from `to` to `from`. */
export interface Link<P> {
  id: string;
  from: P;
  to: P;
  /** Walked within the run. */
  metres: number;
  /** Runs of a lower number go first, whatever the walk. */
  priority: number;
}

export interface Chain {
  /** In the order of working. */
  runs: { id: string; backward: boolean }[];
  /** Walked in all, between runs too. */
  metres: number;
}

export interface ChainOptions<P> {
  /** Where the first run begins from; null where it may begin anywhere. */
  start: P | null;
  distance: (from: P, to: P) => number;
  /** `alternate`: a run may be walked either way; `one`: always forward. */
  direction: 'alternate' | 'one';
}

/** Runs of one priority up to which every order is weighed. */
const EXACT_RUNS = 10;

/**
 * Chains runs that each start where the last ended, without a walk back: which run comes next, and in which direction,
 * for the least walk over all. Exact by dynamic programming over subsets up to ten runs of a priority, else nearest
 * next with improvement. Priorities are chained one after the other.
 */
export function chain<P>(runs: readonly Link<P>[], options: ChainOptions<P>): Chain {
  const found: Chain = { runs: [], metres: 0 };
  let at = options.start;
  for (const priority of [...new Set(runs.map((r) => r.priority))].sort((a, b) => a - b)) {
    const own = runs.filter((r) => r.priority === priority);
    const part = own.length <= EXACT_RUNS ? exactly(own, at, options) : nearest(own, at, options);
    found.runs.push(...part.runs.map((s) => ({ id: s.link.id, backward: s.backward })));
    found.metres += part.metres;
    at = endOf(part.runs.at(-1)!);
  }
  return found;
}

/** Runs that are weighed after the one that is taken up. */
const AHEAD = 10;

/**
 * Which way round a run is walked that is taken up now: the way after which all that waits is the least walk.
 *
 * @param after those that come next, the nearest in rank first
 * @returns the metres to where it begins, too
 */
export function takeUp<P>(
  taken: Link<P>,
  after: readonly Link<P>[],
  options: ChainOptions<P>,
): { backward: boolean; approach: number } {
  const ways = (options.direction === 'one' ? [false] : [false, true]).map((backward) => {
    const step = { link: taken, backward };
    const rest = chain(after.slice(0, AHEAD), { ...options, start: endOf(step) });
    const approach = options.start === null ? 0 : options.distance(options.start, beginOf(step));
    return { backward, approach, all: approach + rest.metres };
  });
  const { backward, approach } = ways.reduce((a, b) => (b.all < a.all ? b : a));
  return { backward, approach };
}

interface Step<P> {
  link: Link<P>;
  backward: boolean;
}
const beginOf = <P>({ link, backward }: Step<P>) => (backward ? link.to : link.from);
const endOf = <P>({ link, backward }: Step<P>) => (backward ? link.from : link.to);

function stepCost<P>(at: P | null, step: Step<P>, { distance }: ChainOptions<P>): number {
  return (at === null ? 0 : distance(at, beginOf(step))) + step.link.metres;
}

function exactly<P>(runs: Link<P>[], start: P | null, options: ChainOptions<P>): { runs: Step<P>[]; metres: number } {
  const steps: Step<P>[] = runs.flatMap((link) =>
    options.direction === 'one' ? [{ link, backward: false }] : [false, true].map((backward) => ({ link, backward })),
  );
  const per = steps.length / runs.length;
  const size = steps.length;
  // Each walk between two runs is asked for once, not once for every set of runs.
  const between = Float64Array.from({ length: size * size }, (_, at) =>
    stepCost(endOf(steps[Math.floor(at / size)]!), steps[at % size]!, options),
  );
  const cost = new Float64Array((1 << runs.length) * size).fill(Infinity);
  const before = new Int16Array(cost.length).fill(-1);
  steps.forEach((step, s) => (cost[(1 << Math.floor(s / per)) * size + s] = stepCost(start, step, options)));
  for (let set = 1; set < 1 << runs.length; set++)
    for (let s = 0; s < size; s++) {
      const here = cost[set * size + s]!;
      if (here === Infinity) continue;
      for (let n = 0; n < size; n++) {
        const bit = 1 << Math.floor(n / per);
        if (set & bit) continue;
        const metres = here + between[s * size + n]!;
        const to = (set | bit) * size + n;
        if (metres >= cost[to]!) continue;
        cost[to] = metres;
        before[to] = s;
      }
    }
  const full = (1 << runs.length) - 1;
  let last = 0;
  for (let s = 1; s < size; s++) if (cost[full * size + s]! < cost[full * size + last]!) last = s;
  const metres = cost[full * size + last]!;
  const order: Step<P>[] = [];
  for (let set = full, s = last; s >= 0;) {
    order.unshift(steps[s]!);
    const prior = before[set * size + s]!;
    set &= ~(1 << Math.floor(s / per));
    s = prior;
  }
  return { runs: order, metres };
}

function nearest<P>(runs: Link<P>[], start: P | null, options: ChainOptions<P>): { runs: Step<P>[]; metres: number } {
  const left = [...runs];
  const order: Step<P>[] = [];
  let at = start;
  while (left.length > 0) {
    const steps = left.flatMap((link) =>
      (options.direction === 'one' ? [false] : [false, true]).map((backward) => ({ link, backward })),
    );
    const way = (s: Step<P>) => (at === null ? 0 : options.distance(at, beginOf(s)));
    const next = steps.reduce((a, b) => (way(b) < way(a) ? b : a));
    order.push(next);
    left.splice(left.indexOf(next.link), 1);
    at = endOf(next);
  }
  const length = (list: Step<P>[]) =>
    list.reduce((n, s, i) => n + stepCost(i === 0 ? start : endOf(list[i - 1]!), s, options), 0);
  let metres = length(order);
  for (let better = true; better;) {
    better = false;
    for (let i = 0; i < order.length; i++)
      for (let j = i; j < order.length; j++) {
        if (options.direction === 'one' && i === j) continue;
        // A stretch of runs the other way round; in one direction only two runs change places.
        const other = [...order];
        if (options.direction === 'one') [other[i], other[j]] = [order[j]!, order[i]!];
        else
          other.splice(
            i,
            j - i + 1,
            ...order
              .slice(i, j + 1)
              .reverse()
              .map((s) => ({ ...s, backward: !s.backward })),
          );
        const sum = length(other);
        if (sum + 1e-9 >= metres) continue;
        order.splice(0, order.length, ...other);
        metres = sum;
        better = true;
      }
  }
  return { runs: order, metres };
}
