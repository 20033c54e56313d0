import { seeded } from '../../random/index.ts';
import { lengthOf, type Prepared } from './construct.ts';
import type { Goal, GoalRun } from './goal.ts';

/** A cycle of the search: steps for each order, and how strongly it is drawn to full runs. */
export interface Cycle {
  steps: number;
  drawn: number;
}

export interface SearchOptions {
  seed: number;
  /** Asked every few steps: true ends the search with the best so far. Without it steps alone end it. */
  over?: (() => boolean) | undefined;
  /** Orders that share most of an order's way. */
  near: readonly (readonly number[])[];
  goal: Goal;
  cycles?: readonly Cycle[] | undefined;
  /** Called with the progress, from 0 to 1. */
  onProgress?: ((far: number) => void) | undefined;
  /** Offered the best after each cycle, and gives what the next begins with; the same where it is absent. */
  afterCycle?: ((runs: number[][]) => number[][]) | undefined;
}

/** A run under way: its orders, what they take of the cart, and the sum of their marks, by which its length is known again. */
interface Run extends GoalRun {
  orders: number[];
  units: number;
  weightG: number;
  volumeCm3: number;
  mark: number;
}

const empty: Readonly<Run> = { orders: [], units: 0, weightG: 0, volumeCm3: 0, mark: 0, metres: 0 };

/**
 * The cycles of a search. How much each is drawn to full runs differs: now and then strongly, as that is the way to fewer
 * of them.
 */
const CYCLES: readonly Cycle[] = [
  { steps: 3000, drawn: 0 },
  { steps: 3000, drawn: 12 },
  { steps: 3000, drawn: 3 },
  { steps: 3000, drawn: 12 },
  { steps: 6000, drawn: 0 },
  { steps: 6000, drawn: 12 },
];
/** The same for many orders, of which nobody knows how many a time allows: each cycle three times as long as the one before. */
export const GROWING: readonly Cycle[] = [100, 300, 900, 2700, 8100].map((steps, i) => ({
  steps,
  drawn: i % 2 === 0 ? 3 : 12,
}));
/** Orders below which fewer steps for each are enough. */
const FEW = 50;
/** Lengths remembered. */
const REMEMBERED = 300_000;
/** A usual run's share that a worse step may cost at first, and how far that falls by the end of a cycle. */
const WARM = 0.05;
const COLD = 0.01;

/**
 * Improves runs by simulated annealing (Kirkpatrick, Gelatt and Vecchi 1983), each cycle from the best so far: an order
 * moves to another run or to one of its own, or two orders of different runs change places. Half of the moves are
 * towards runs that hold an order with much of the same way. Cooling follows the steps, never the clock: one seed gives
 * one answer, and more time goes on where less ended.
 *
 * @returns runs that are no worse than those given
 */
export function search(
  problem: Prepared,
  given: number[][],
  { seed, over, near, goal, cycles = CYCLES, onProgress, afterCycle }: SearchOptions,
): number[][] {
  const random = seeded(seed);
  const { orders, cart } = problem;
  const count = orders.length;
  if (count < 2) return given;
  const [maxUnits, maxWeight, maxVolume] = [
    cart.maxUnits ?? Infinity,
    cart.maxWeightG ?? Infinity,
    cart.maxVolumeCm3 ?? Infinity,
  ];
  // Random marks of 46 bits: sums of different sets are as good as never equal, or a run would be taken for another. One
  // draw has 32 bits alone, among which a search of millions of steps finds equal ones.
  const half = () => Math.floor(random.next() * 2 ** 23);
  const marks = orders.map(() => half() * 2 ** 23 + half());
  const lengths = new Map<number, number>();
  const measured = (mark: number, list: number[]): number => {
    const known = lengths.get(mark);
    if (known !== undefined) return known;
    const metres = lengthOf(problem, list);
    if (lengths.size >= REMEMBERED) lengths.clear();
    lengths.set(mark, metres);
    return metres;
  };
  const changed = (run: Run, less: number, more: number): Run => {
    const list: number[] = [];
    for (const o of run.orders) if (o !== less) list.push(o);
    let { units, weightG, volumeCm3, mark } = run;
    if (less >= 0) {
      const l = orders[less]!;
      units -= l.units;
      weightG -= l.weightG;
      volumeCm3 -= l.volumeCm3;
      mark -= marks[less]!;
    }
    if (more >= 0) {
      const m = orders[more]!;
      list.push(more);
      units += m.units;
      weightG += m.weightG;
      volumeCm3 += m.volumeCm3;
      mark += marks[more]!;
    }
    return { orders: list, units, weightG, volumeCm3, mark, metres: list.length === 0 ? 0 : measured(mark, list) };
  };
  // How full a run is by the limit that binds it, squared.
  const full = (run: Run) =>
    Math.max(
      run.orders.length / cart.positions,
      run.units / maxUnits,
      run.weightG / maxWeight,
      run.volumeCm3 / maxVolume,
    ) ** 2;
  const takes = (run: Run, less: number, more: number): boolean => {
    const m = orders[more]!;
    const l = less >= 0 ? orders[less]! : null;
    return (
      run.orders.length + (l ? 0 : 1) <= cart.positions &&
      run.units + m.units - (l?.units ?? 0) <= maxUnits &&
      run.weightG + m.weightG - (l?.weightG ?? 0) <= maxWeight &&
      run.volumeCm3 + m.volumeCm3 - (l?.volumeCm3 ?? 0) <= maxVolume
    );
  };
  const begun = (list: readonly number[][]) => list.map((run) => run.reduce((r, o) => changed(r, -1, o), empty as Run));
  let best: Run[] = begun(given);
  let least = goal(best);
  const runOf = new Int32Array(count);
  const scale = count * Math.min(1, count / FEW);
  const all = cycles.reduce((n, c) => n + c.steps, 0) * scale;
  let done = 0;
  for (const { steps, drawn } of cycles) {
    const runs = [...best];
    runs.forEach((r, i) => r.orders.forEach((o) => (runOf[o] = i)));
    let cost = least;
    const warm = (WARM * runs.reduce((n, r) => n + r.metres, 0)) / runs.length;
    let heat = warm;
    const length = Math.ceil(steps * scale);
    for (let step = 0; step < length; step++, done++) {
      if (step % 256 === 0) {
        onProgress?.(done / all);
        if (over?.()) return best.map((r) => r.orders);
        heat = warm * COLD ** (step / length);
      }
      const o = random.int(0, count - 1);
      const list = near[o]!;
      const aim =
        list.length > 0 && random.next() < 0.5 ? list[random.int(0, list.length - 1)]! : random.int(0, count - 1);
      const from = runOf[o]!;
      const to = aim === o ? runs.length : runOf[aim]!;
      if (to === from) continue;
      const [a, b] = [runs[from]!, runs[to] ?? (empty as Run)];
      let back = -1;
      if (b.orders.length === 0) {
        if (a.orders.length === 1) continue;
      } else if (random.next() < 0.4 || !takes(b, -1, o)) {
        back = b.orders[random.int(0, b.orders.length - 1)]!;
        if (!takes(b, back, o) || !takes(a, o, back)) continue;
      }
      const after = { from, to, a: changed(a, o, back), b: changed(b, back, o), cost };
      const other = goal(runs, after);
      // Full runs beside empty ones are a way towards fewer runs.
      const fuller = heat * drawn * (full(after.a) + full(after.b) - full(a) - full(b));
      if (other - fuller > cost && random.next() >= Math.exp((cost - other + fuller) / heat)) continue;
      cost = other;
      runs[from] = after.a;
      runs[to] = after.b;
      runOf[o] = to;
      if (back >= 0) runOf[back] = from;
      if (after.a.orders.length === 0) {
        const last = runs.pop()!;
        if (from < runs.length) {
          runs[from] = last;
          for (const x of last.orders) runOf[x] = from;
        }
      }
      if (cost < least - 1e-9) [least, best] = [cost, [...runs]];
    }
    const offered = afterCycle?.(best.map((r) => r.orders));
    if (offered) {
      best = begun(offered);
      least = goal(best);
    }
  }
  return best.map((r) => r.orders);
}
