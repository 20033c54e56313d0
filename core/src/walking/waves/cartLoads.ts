import { fits, nothingWeighed, weigh, type CartLimits, type Weighed } from '../batching/index.ts';

/** What is picked at one bin for an order, as a cart's limits need to know it. Grams and cm³ are those of one unit. */
export interface Loadable {
  units: number;
  need: { weightG: number; volumeCm3: number };
}

/** Stops of one order that one cart takes. */
export interface CartLoad<S> {
  stops: S[];
  /** A single unit is beyond the cart's limits by itself: it needs a trip, and means, of its own. */
  over: boolean;
}

interface Filling<S> extends CartLoad<S> {
  used: Weighed;
}

/**
 * Splits the stops of one order into loads that a cart takes, by first fit in the order given (Johnson 1973): give the
 * stops in walking order, so that a load stays in one part of the floor. A stop is cut by units only where no empty cart
 * takes it whole. No two loads fit a cart together, so that whoever batches them never puts them into one run.
 *
 * @param cart limits of units, weight and volume; `positions` does not matter, as an order takes one
 * @param cut a part of a stop with fewer units
 * @returns one load where the cart takes the whole order; every unit is in exactly one load
 */
export function cartLoads<S extends Loadable>(
  stops: readonly S[],
  cart: CartLimits,
  cut: (stop: S, units: number, part: number) => S,
): CartLoad<S>[] {
  const limits = { ...cart, positions: 1 };
  const weightOf = ({ need }: S, units: number): Weighed => ({
    count: 0,
    units,
    weightG: units * need.weightG,
    volumeCm3: units * need.volumeCm3,
  });
  const loads: Filling<S>[] = [];
  const room = (load: Filling<S>, stop: S, units: number) =>
    !load.over && fits(weigh(load.used, weightOf(stop, units)), limits);
  const put = (load: Filling<S> | undefined, stop: S) => {
    const into: Filling<S> = load ?? { stops: [], used: nothingWeighed, over: false };
    if (!load) loads.push(into);
    into.stops.push(stop);
    into.used = weigh(into.used, weightOf(stop, stop.units));
    into.over = !fits(into.used, limits);
  };
  for (const stop of stops) {
    const empty: Filling<S> = { stops: [], used: nothingWeighed, over: false };
    if (stop.units === 1 || room(empty, stop, stop.units)) {
      put(
        loads.find((load) => room(load, stop, stop.units)),
        stop,
      );
      continue;
    }
    for (let left = stop.units, part = 0; left > 0; part++) {
      const load = loads.find((l) => room(l, stop, 1));
      const units = load || room(empty, stop, 1) ? mostOf(left, (n) => room(load ?? empty, stop, n)) : 1;
      put(load, cut(stop, units, part));
      left -= units;
    }
  }
  return loads.map(({ stops: own, over }) => ({ stops: own, over }));
}

/** The most units up to a limit that still fit; one is known to. */
function mostOf(limit: number, fit: (units: number) => boolean): number {
  let [low, high] = [1, limit];
  while (low < high) {
    const middle = Math.ceil((low + high) / 2);
    if (fit(middle)) low = middle;
    else high = middle - 1;
  }
  return low;
}
