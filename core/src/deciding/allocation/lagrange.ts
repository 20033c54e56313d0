import type { Packing } from './packing.ts';

/** Looks at a need in all rounds of the descent together, and rounds at most. */
const LOOKS = 60_000_000;
const ROUNDS = 6_000;
/** Rounds without a lower bound after which steps are halved. */
const IDLE = 25;
/** Share of the last direction that the next keeps: steps that run to and fro are evened out. */
const KEPT = 0.7;

/** A number that no choice beats, the prices of the limits that show it, and what each thing is worth beyond them. */
export interface Priced {
  bound: number;
  prices: Float64Array;
  worth: Float64Array;
}

/**
 * Prices every limit so that the choice of all things worth more than what they need bounds every choice within the
 * limits from above (Lagrangian relaxation; Fisher 1981), by subgradient steps after Polyak (1969). A round looks at each
 * need once: milliseconds for 100,000 of them, where a linear program takes minutes.
 *
 * @param found how many things some choice within the limits takes: steps are measured by it
 * @param over ends the descent before it is done
 */
export function priced({ count, limits }: Packing, found: number, over: () => boolean = () => false): Priced {
  const prices = new Float64Array(limits.length);
  const worth = new Float64Array(count);
  const slack = new Float64Array(limits.length);
  const way = new Float64Array(limits.length);
  const rounds = Math.min(
    ROUNDS,
    Math.ceil(
      LOOKS /
        Math.max(
          1,
          limits.reduce((n, l) => n + l.needs.length, 0),
        ),
    ),
  );
  let best: Priced = { bound: count, prices: prices.slice(), worth: worth.slice().fill(1) };
  let pace = 1;
  let idle = 0;
  for (let round = 0; round < rounds && !over(); round++) {
    worth.fill(1);
    let bound = 0;
    limits.forEach(({ units, needs }, l) => {
      const price = prices[l]!;
      bound += price * units;
      slack[l] = units;
      if (price > 0) for (const n of needs) worth[n.thing]! -= price * n.units;
    });
    for (let thing = 0; thing < count; thing++) if (worth[thing]! > 0) bound += worth[thing]!;
    let square = 0;
    limits.forEach(({ needs }, l) => {
      for (const n of needs) if (worth[n.thing]! > 0) slack[l]! -= n.units;
      way[l] = slack[l]! + KEPT * way[l]!;
      // A limit without price that is kept has nothing to learn.
      if (prices[l] === 0 && way[l] > 0) way[l] = 0;
      square += way[l] ** 2;
    });
    if (bound < best.bound - 1e-9) {
      best = { bound, prices: prices.slice(), worth: worth.slice() };
      idle = 0;
    } else if ((idle += 1) >= IDLE) {
      pace /= 2;
      idle = 0;
    }
    if (square === 0 || bound - found < 0.5) break;
    const step = (pace * (bound - found)) / square;
    for (let l = 0; l < prices.length; l++) prices[l] = Math.max(0, prices[l]! - step * way[l]!);
  }
  return best;
}
