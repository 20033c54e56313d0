import { mapFloor, type Floor, type FloorMap, type Place } from '../floor/index.ts';
import { openMeter, SWEEP_ROWS } from '../routing/index.ts';
import { fewEnough, firstCome, lengthOf, neighbours, prepare, savings, type Prepared } from './construct.ts';
import { FEW, shortest } from './exact.ts';
import { forCrew, leastWalk } from './goal.ts';
import type { BatchOrder, CartLimits, Crew } from './problem.ts';
import { search } from './search.ts';

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
  /** Told now and then how far the search is, from 0 to 1. */
  onProgress?: ((far: number) => void) | undefined;
}

export interface Batched {
  /** Order ids by run, in the order given. */
  runs: string[][];
  /** Metres of the shortest walk of each. */
  lengths: number[];
}

/**
 * Groups whole orders onto carts, one position each, for the least walk (and with a crew for departures and even
 * lengths): every way of sharing out where few are shared out for the walk alone, otherwise savings improved by
 * simulated annealing; every run measured by its shortest walk.
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
  const problem = prepare(orders, cart, openMeter(map, start, finish));
  let runs: number[][];
  if (method === 'first-come') runs = firstCome(problem);
  else if (method === 'savings') runs = savings(problem);
  else {
    const { plain, rows } = map.network;
    const few = orders.length <= (plain && rows.length <= SWEEP_ROWS ? FEW.swept : FEW.searched);
    const spentMost = (share: number) => () => (spent?.() ?? 0) >= share;
    const near = neighbours(problem, map.network.rows);
    // Savings first, whatever follows: cut short, the rest begins where it stands.
    const first = savings(problem, fewEnough(orders.length) ? undefined : near, spentMost(0.5));
    const goal = crew ? forCrew(orders, crew) : leastWalk;
    runs =
      (!crew && few ? shortest(problem, spentMost(0.75)) : null) ??
      search(problem, first, { seed, spent, near, goal, onProgress });
  }
  return told(problem, runs);
}

function told(problem: Prepared, runs: number[][]): Batched {
  for (const run of runs) run.sort((a, b) => a - b);
  return {
    runs: runs.map((r) => r.map((o) => problem.orders[o]!.id)),
    lengths: runs.map((r) => lengthOf(problem, r)),
  };
}
