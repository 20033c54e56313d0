import type { Stop } from '../routing/index.ts';

export interface BatchOrder {
  id: string;
  /** 1 first. */
  priority: number;
  stops: Stop[];
  /** Totals of the order, for the cart's limits. */
  units: number;
  weightG: number;
  volumeCm3: number;
  /**
   * Seconds from now by which a run with it must end, so that what follows is in time; 0 where that can hardly be made and
   * every second counts; null where nothing leaves.
   */
  due?: number | null | undefined;
  /** Seconds of work at its stops, walking left out. */
  handling?: number | undefined;
}

/** What a cart takes; a limit that is absent does not bind. */
export interface CartLimits {
  positions: number;
  maxUnits?: number | undefined;
  maxWeightG?: number | undefined;
  maxVolumeCm3?: number | undefined;
}

/** Those who share the runs, and how fast they are. */
export interface Crew {
  people: number;
  /** Metres a second. */
  speed: number;
  /** Seconds that a run takes whatever is in it. */
  perRun: number;
}

/** What orders take of a cart. */
export interface Weighed {
  count: number;
  units: number;
  weightG: number;
  volumeCm3: number;
}

export const nothingWeighed: Readonly<Weighed> = { count: 0, units: 0, weightG: 0, volumeCm3: 0 };

export const weigh = (a: Weighed, b: Weighed, sign: 1 | -1 = 1): Weighed => ({
  count: a.count + sign * b.count,
  units: a.units + sign * b.units,
  weightG: a.weightG + sign * b.weightG,
  volumeCm3: a.volumeCm3 + sign * b.volumeCm3,
});

export const weightOf = ({ units, weightG, volumeCm3 }: BatchOrder): Weighed => ({
  count: 1,
  units,
  weightG,
  volumeCm3,
});

export const fits = (w: Weighed, cart: CartLimits): boolean =>
  w.count <= cart.positions &&
  w.units <= (cart.maxUnits ?? Infinity) &&
  w.weightG <= (cart.maxWeightG ?? Infinity) &&
  w.volumeCm3 <= (cart.maxVolumeCm3 ?? Infinity);

/**
 * What is wrong with a way of batching: orders that are missing or twice, runs beyond a limit. Written apart from the
 * search, for tests and measurements. A run of one order that is too large by itself is no fault.
 */
export function faultsOf(
  orders: readonly BatchOrder[],
  cart: CartLimits,
  runs: readonly (readonly string[])[],
): string[] {
  const byId = new Map(orders.map((o) => [o.id, o]));
  const seen = new Map<string, number>();
  for (const id of runs.flat()) seen.set(id, (seen.get(id) ?? 0) + 1);
  const faults = orders
    .filter((o) => seen.get(o.id) !== 1)
    .map((o) => `order ${o.id} is in ${seen.get(o.id) ?? 0} runs`);
  for (const run of runs) {
    const own = run.map((id) => byId.get(id));
    if (own.some((o) => !o)) faults.push(`a run holds an order that nobody asked for: ${run.join(', ')}`);
    const sum = (of: (o: BatchOrder) => number) => own.reduce((n, o) => n + (o ? of(o) : 0), 0);
    const over = (is: number, most: number | undefined) => most !== undefined && is > most;
    if (run.length === 0) faults.push('a run is empty');
    if (run.length > cart.positions) faults.push(`${run.length} orders on ${cart.positions} positions`);
    if (run.length < 2) continue;
    if (
      over(
        sum((o) => o.units),
        cart.maxUnits,
      )
    )
      faults.push(`too many units: ${run.join(', ')}`);
    if (
      over(
        sum((o) => o.weightG),
        cart.maxWeightG,
      )
    )
      faults.push(`too heavy: ${run.join(', ')}`);
    if (
      over(
        sum((o) => o.volumeCm3),
        cart.maxVolumeCm3,
      )
    )
      faults.push(`too large: ${run.join(', ')}`);
  }
  return faults;
}
