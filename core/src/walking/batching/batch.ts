import { mapFloor, type Floor, type FloorMap, type Place } from '../floor/index.ts';
import { openMeter, openStandIn, SWEEP_ROWS } from '../routing/index.ts';
import { firstCome, only, prepare, savings, type Prepared } from './construct.ts';
import { FEW, shortest } from './exact.ts';
import { forCrew, leastWalk, type Goal } from './goal.ts';
import { neighbours } from './near.ts';
import { clusters } from './clusters.ts';
import type { BatchOrder, CartLimits, Crew } from './problem.ts';
import { GROWING, search } from './search.ts';

export const batchMethods = ['best', 'savings', 'first-come'] as const;
export type BatchMethod = (typeof batchMethods)[number];

export interface BatchOptions {
  /** `best`: the shortest there is, or the search beginning with savings; the others for comparison. */
  method?: BatchMethod;
  seed?: number;
  /** Share of the time that is spent: at 1 the search ends with the best so far. */
  spent?: (() => number) | undefined;
  /** Who shares the runs: departures and even lengths count too. Without it the walk alone does. */
  crew?: Crew | undefined;
  /** Called with the progress now and then, from 0 to 1. */
  onProgress?: ((far: number) => void) | undefined;
}

export interface Batched {
  /** Order ids by run, in the order given. */
  runs: string[][];
  /** Metres of the shortest walk of each. */
  lengths: number[];
}

/** Cross aisles from which the shortest walk of a run costs too much to be asked for at every step of a search. */
const STAND_IN_ROWS = 4;
/** Orders up to which savings weigh all pairs; more are parted into clusters first. */
const TOGETHER = 250;
/** Runs that are measured whatever the time says: what is compared must be known, and so few take a moment. */
const ALWAYS_MEASURED = 60;
/** Share of the time that savings may take among many orders. */
const FOR_SAVINGS = 0.5;

/**
 * Groups whole orders onto carts, one position each, for the least walk (and with a crew for departures and even
 * lengths): every way of sharing out where few are shared out for the walk alone, otherwise savings improved by
 * simulated annealing. Where the shortest walk of a run costs much (three blocks and more,
 * one-way aisles) runs are compared by a stand-in on the way, and by their shortest walks wherever one is taken.
 *
 * Whatever the time allows, the answer is never worse than first come, nor than savings where they were done in time;
 * more time never makes it worse.
 *
 * An order that exceeds the cart's limits by itself gets a run of its own, so that nobody's order is lost.
 *
 * @throws RangeError when the cart has no position
 */
export function batch(
  orders: readonly BatchOrder[],
  cart: CartLimits,
  { floor, start, finish, map = mapFloor(floor) }: { floor: Floor; start: Place; finish: Place; map?: FloorMap },
  { method = 'best', seed = 1, spent, crew, onProgress }: BatchOptions = {},
): Batched {
  if (!Number.isInteger(cart.positions) || cart.positions < 1)
    throw new RangeError(`A cart has at least one position, received ${cart.positions}.`);
  const meter = openMeter(map, start, finish);
  const { rows, directed } = map.network;
  const same = !directed && rows.length < STAND_IN_ROWS;
  const gauge = same ? meter.length : openStandIn(map, start, finish, orders.length > TOGETHER);
  const problem = prepare(orders, cart, { load: meter.load, gauge });
  const known = new Map<string, number>();
  const exact = (run: readonly number[]): number => {
    const sorted = [...run].sort((a, b) => a - b);
    const key = sorted.join();
    const before = known.get(key);
    if (before !== undefined) return before;
    const metres = meter.length(sorted.map((o) => problem.loads[o]!));
    known.set(key, metres);
    return metres;
  };
  const withLengths = (runs: readonly number[][]): Batched => {
    const sorted = runs.map((run) => [...run].sort((a, b) => a - b));
    return { runs: sorted.map((r) => r.map((o) => orders[o]!.id)), lengths: sorted.map(exact) };
  };
  const simple = firstCome(problem);
  if (method === 'first-come' || orders.length < 2) return withLengths(simple);

  const goal: Goal = crew ? forCrew(orders, crew) : leastWalk;
  const cost = (runs: readonly number[][]) => goal(runs.map((run) => ({ orders: run, metres: exact(run) })));
  const spentMost = (share: number) => () => (spent?.() ?? 0) >= share;
  const mayMeasure = (runs: readonly number[][]) => same || runs.length <= ALWAYS_MEASURED || !spentMost(1)();
  /** The better of what is known and something new, by their shortest walks. */
  let best = simple;
  const offer = (runs: number[][]): number[][] => {
    if (mayMeasure(simple) && mayMeasure(runs) && cost(runs) < cost(best) - 1e-9) best = runs;
    return best;
  };

  const near = neighbours(problem.loads, rows);
  const measuring = spent?.() ?? 0;
  offer(orders.length <= TOGETHER ? savings(problem) : savingsByCluster(problem, near, spentMost(FOR_SAVINGS)));
  if (method === 'savings') return withLengths(best);
  // What is left to do at the end takes its time too: as long as it took just now.
  const reserve = same ? 0 : Math.min(0.5, (spent?.() ?? 0) - measuring);
  const over = spentMost(1 - reserve);
  const few = directed || rows.length > SWEEP_ROWS ? FEW.searched : rows.length < STAND_IN_ROWS ? FEW.swept : FEW.slow;
  if (!crew && orders.length <= few) {
    const all = shortest(orders.length, cart, problem.weights, exact, spentMost(0.75));
    if (all) return withLengths(offer(all));
  }
  const cut = { now: false };
  const found = search(problem, best, {
    seed,
    over: () => (cut.now = over()),
    near,
    goal,
    onProgress,
    ...(same && orders.length <= TOGETHER ? {} : { cycles: GROWING }),
    ...(same ? {} : { afterCycle: offer }),
  });
  // By a stand-in a cycle that was cut short is worth nothing: with more time it would have come out otherwise.
  if (same || !cut.now) offer(found);
  return withLengths(best);
}

/** Savings within clusters; once the time is over what is left is joined as it comes. */
function savingsByCluster(problem: Prepared, near: readonly (readonly number[])[], over: () => boolean): number[][] {
  return clusters(problem, near).flatMap((cluster) => {
    const part = only(problem, cluster);
    return (over() ? firstCome(part) : savings(part)).map((run) => run.map((o) => cluster[o]!));
  });
}
