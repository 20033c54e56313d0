import { chainsOf, type Packing } from './packing.ts';

/** Cells that all rounds fill together at most, and rounds. */
const CELLS = 6e9;
const ROUNDS = 1_500;
/** Length of the first steps, in that of a step that would reach the bound at once (after Polyak, 1969). */
const FIRST = 0.15;
/** Rounds without a lower bound after which steps get shorter, by how much, and a length that moves nothing any more. */
const IDLE = 8;
const SHORTER = 0.7;
const STILL = 1e-3;
/** Share of the last direction that the next keeps. */
const KEPT = 0.6;
/** Cells of a kind above which its limits are priced as they were: among so many things one more or less is little. */
const LARGE = 3e5;

/**
 * Bounds every choice from above by choosing for each kind of goods alone (Lagrangian decomposition; Guignard and Kim,
 * 1987): a thing counts as one in all, shared out among the kinds that it needs, and the shares move by subgradient
 * steps until the choices agree as far as they will. Each kind's choice is exact (dynamic programming over its units)
 * unless the kind is large, so that the bound comes near that of the linear program with every inequality that one kind's
 * limits imply, where prices alone give that of the linear program.
 *
 * @param prices of the limits, to begin from, as `priced` finds them
 * @param found how many things some choice within the limits takes: steps are measured by it
 * @param over ends the descent before it is done
 * @returns a number that no choice beats; `count` where not even one round was done
 */
export function decomposed(
  packing: Packing,
  prices: Float64Array,
  found: number,
  over: () => boolean = () => false,
): number {
  const { count } = packing;
  const kinds = kindsOf(packing, prices);
  const { starts, things, share } = kinds;
  const cells = kinds.cells.reduce((n, c) => n + (c > LARGE ? 0 : c), things.length);
  const rounds = Math.min(ROUNDS, Math.ceil(CELLS / cells));
  const choose = chooser(kinds);
  const uses = new Int32Array(count);
  for (const thing of things) uses[thing]! += 1;
  const free = uses.reduce((n, u) => n + (u === 0 ? 1 : 0), 0);
  const takers = new Float64Array(count);
  const way = new Float64Array(things.length);
  let best = count;
  let pace = FIRST;
  let idle = 0;
  for (let round = 0; round < rounds && pace > STILL && !over(); round++) {
    let bound = free;
    for (let k = 0; k + 1 < starts.length; k++) bound += choose(k);
    idle = bound < best - 0.01 ? 0 : idle + 1;
    best = Math.min(best, bound);
    if (Math.floor(best + 1e-6) <= found) break;
    if (idle >= IDLE) {
      pace *= SHORTER;
      idle = 0;
    }
    takers.fill(0);
    for (let n = 0; n < things.length; n++) takers[things[n]!]! += kinds.taken[n]!;
    let square = 0;
    for (let n = 0; n < things.length; n++) {
      // Kinds that take a thing which others do not pay for it; those others get it cheaper.
      way[n] = kinds.taken[n]! - takers[things[n]!]! / uses[things[n]!]! + KEPT * way[n]!;
      square += way[n]! ** 2;
    }
    if (square < 1e-12) break;
    const step = (pace * (bound - found)) / square;
    for (let n = 0; n < things.length; n++) share[n]! -= step * way[n]!;
  }
  return best;
}

/** What each kind of goods is asked, in rows side by side: `starts[k]` to `starts[k + 1]` belong to kind k. */
interface Kinds {
  starts: Int32Array;
  things: Int32Array;
  units: Int32Array;
  /** Units that those up to a row may take together. */
  caps: Int32Array;
  /** Price of what a thing needs, and of all that a kind's limits hold. */
  prices: Float64Array;
  priceOfAll: Float64Array;
  /** Cells that a kind's choice fills: its things by its units. */
  cells: Float64Array;
  /** What of one whole thing counts in this kind. */
  share: Float64Array;
  /** Whether the kind's choice takes the thing. */
  taken: Uint8Array;
}

function kindsOf(packing: Packing, prices: Float64Array): Kinds {
  const { count, limits } = packing;
  const rows: { thing: number; units: number; cap: number; price: number }[] = [];
  const starts = [0];
  const priceOfAll: number[] = [];
  const cells: number[] = [];
  for (const chain of chainsOf(packing)) {
    const known = new Map<number, (typeof rows)[number]>();
    for (const l of chain)
      for (const { thing, units } of limits[l]!.needs) {
        // What a thing needs more at a laxer limit is left out: the bound stays one, a little weaker.
        const row = known.get(thing) ?? { thing, units, cap: limits[l]!.units, price: 0 };
        row.price += prices[l]! * units;
        known.set(thing, row);
      }
    rows.push(...known.values());
    starts.push(rows.length);
    priceOfAll.push(chain.reduce((n, l) => n + prices[l]! * limits[l]!.units, 0));
    cells.push(known.size * (1 + chain.reduce((n, l) => Math.max(n, limits[l]!.units), 0)));
  }
  const uses = new Int32Array(count);
  const rest = new Float64Array(count).fill(1);
  for (const { thing, price } of rows) {
    uses[thing]! += 1;
    rest[thing]! -= price;
  }
  return {
    starts: Int32Array.from(starts),
    things: Int32Array.from(rows, (r) => r.thing),
    units: Int32Array.from(rows, (r) => r.units),
    caps: Int32Array.from(rows, (r) => r.cap),
    prices: Float64Array.from(rows, (r) => r.price),
    priceOfAll: Float64Array.from(priceOfAll),
    cells: Float64Array.from(cells),
    share: Float64Array.from(rows, ({ thing, price }) => price + rest[thing]! / uses[thing]!),
    taken: new Uint8Array(rows.length),
  };
}

/** A function that finds the best choice of a kind, notes it in `taken` and returns its value. */
function chooser({ starts, units, caps, prices, priceOfAll, cells, share, taken }: Kinds): (kind: number) => number {
  // Best value by units taken, and for each row whether the thing is taken when so many are.
  const takes = new Uint8Array(cells.reduce((n, c) => (c > LARGE ? n : Math.max(n, c)), 0));
  const value = new Float64Array(takes.length + 1);

  function byPrice(kind: number): number {
    let sum = priceOfAll[kind]!;
    for (let n = starts[kind]!; n < starts[kind + 1]!; n++) {
      const gain = share[n]! - prices[n]!;
      taken[n] = gain > 0 ? 1 : 0;
      if (gain > 0) sum += gain;
    }
    return sum;
  }
  function exactly(kind: number): number {
    const begin = starts[kind]!;
    const end = starts[kind + 1]!;
    if (begin === end) return 0;
    const width = caps[end - 1]! + 1;
    let room = caps[begin]!;
    value.fill(0, 0, room + 1);
    for (let n = begin; n < end; n++) {
      // The next limit holds more: what is best for less is best there too.
      if (caps[n]! > room) value.fill(value[room]!, room + 1, caps[n]! + 1);
      room = caps[n]!;
      taken[n] = 0;
      const gain = share[n]!;
      const need = units[n]!;
      if (gain <= 0 || need > room) continue;
      taken[n] = 1;
      const row = (n - begin) * width;
      for (let u = room; u >= need; u--) {
        const gained = value[u - need]! + gain;
        if (gained > value[u]!) {
          value[u] = gained;
          takes[row + u] = 1;
        } else takes[row + u] = 0;
      }
    }
    let left = room;
    for (let n = end - 1; n >= begin; n--) {
      left = Math.min(left, caps[n]!);
      if (taken[n] && (left < units[n]! || !takes[(n - begin) * width + left])) taken[n] = 0;
      if (taken[n]) left -= units[n]!;
    }
    return value[room]!;
  }
  return (kind) => (cells[kind]! > LARGE ? byPrice(kind) : exactly(kind));
}
