import type { Random } from '../../random/index.ts';
import type { Packing } from './packing.ts';

/** Needs as rows of numbers side by side: `starts[i]` to `starts[i + 1]` belong to i. */
interface Table {
  starts: Int32Array;
  others: Int32Array;
  units: Int32Array;
}

function tableOf(lists: { other: number; units: number }[][]): Table {
  const starts = new Int32Array(lists.length + 1);
  lists.forEach((list, i) => (starts[i + 1] = starts[i]! + list.length));
  const flat = lists.flat();
  return { starts, others: Int32Array.from(flat, (n) => n.other), units: Int32Array.from(flat, (n) => n.units) };
}

/** Things that are drawn for each that is forced in. */
const DRAWN = 8;
/** Steps between two looks at the time. */
const LOOK = 64;

/**
 * Takes more things by iterated local search (after Andrade, Resende and Werneck, 2012, for independent sets): one that
 * is out is forced in, those in its way go, and whatever fits then comes in. A step that loses is taken back.
 *
 * @param start things taken at first, within all limits
 * @param steps how often something is forced in
 * @param over ends the search before that
 * @returns as many things or more, within all limits
 */
export function improve(
  { count, limits }: Packing,
  start: Iterable<number>,
  steps: number,
  random: Random,
  over: () => boolean = () => false,
): number[] {
  const needs = tableOf(limits.map((l) => l.needs.map(({ thing, units }) => ({ other: thing, units }))));
  const uses = tableOf(usesOf(count, limits));
  const left = Int32Array.from(limits, (l) => l.units);
  const taken = new Uint8Array(count);
  // When each thing last came or went: those that stayed longest go first, so that the search does not run in circles.
  const moved = new Int32Array(count);
  // Those that are out, in a row, and where each stands in it.
  const out = Int32Array.from({ length: count }, (_, i) => i);
  const at = Int32Array.from(out);
  let outs = count;
  let changes: number[] = [];
  /** Limits at which things went in this step. */
  const roomier = new Set<number>();
  let size = 0;

  function turn(thing: number) {
    const sign = taken[thing] ? 1 : -1;
    for (let u = uses.starts[thing]!; u < uses.starts[thing + 1]!; u += 1)
      left[uses.others[u]!]! += sign * uses.units[u]!;
    taken[thing]! ^= 1;
    size -= sign;
    const place = taken[thing] ? (outs -= 1) : outs++;
    const other = out[place]!;
    out[at[thing]!] = other;
    at[other] = at[thing]!;
    out[place] = thing;
    at[thing] = place;
    changes.push(thing);
  }
  function fits(thing: number): boolean {
    for (let u = uses.starts[thing]!; u < uses.starts[thing + 1]!; u += 1)
      if (uses.units[u]! > left[uses.others[u]!]!) return false;
    return true;
  }
  /** At how many limits there is no room for a thing. */
  function barredAt(thing: number): number {
    let limits = 0;
    for (let u = uses.starts[thing]!; u < uses.starts[thing + 1]!; u += 1)
      if (uses.units[u]! > left[uses.others[u]!]!) limits += 1;
    return limits;
  }
  /** Who goes to make room at a limit: the one longest there whose going is enough, else the one longest there. */
  function inTheWay(limit: number, forced: number): number {
    let gone = -1;
    let alone = false;
    for (let n = needs.starts[limit]!; n < needs.starts[limit + 1]!; n += 1) {
      const thing = needs.others[n]!;
      if (!taken[thing] || thing === forced) continue;
      const enough = left[limit]! + needs.units[n]! >= 0;
      if (gone < 0 || (enough && !alone) || (enough === alone && moved[thing]! < moved[gone]!)) {
        gone = thing;
        alone = enough;
      }
    }
    return gone;
  }
  /** One that is out, of several drawn by lot that whose way in is barred at the fewest limits. */
  function drawn(): number {
    let best = -1;
    let fewest = Infinity;
    for (let n = 0; n < DRAWN; n += 1) {
      const thing = out[random.int(0, outs - 1)]!;
      const bars = barredAt(thing);
      if (bars < fewest) {
        best = thing;
        fewest = bars;
      }
    }
    return best;
  }
  function undo() {
    const back = changes;
    changes = [];
    for (let i = back.length - 1; i >= 0; i -= 1) turn(back[i]!);
  }
  function makeRoom(forced: number, step: number) {
    for (let u = uses.starts[forced]!; u < uses.starts[forced + 1]!; u += 1) {
      const limit = uses.others[u]!;
      while (left[limit]! < 0) {
        const gone = inTheWay(limit, forced);
        if (gone < 0) return false;
        turn(gone);
        moved[gone] = step;
        for (let g = uses.starts[gone]!; g < uses.starts[gone + 1]!; g += 1) roomier.add(uses.others[g]!);
      }
    }
    return true;
  }
  /** Whatever fits now comes in: only what needs something of a limit at which room was made can. */
  function fill(step: number) {
    for (const limit of roomier) {
      const [begin, end] = [needs.starts[limit]!, needs.starts[limit + 1]!];
      const from = begin + random.int(0, end - begin - 1);
      for (const [low, high] of [
        [from, end],
        [begin, from],
      ] as const)
        for (let n = low; n < high && left[limit]! > 0; n += 1) {
          const thing = needs.others[n]!;
          if (taken[thing] || moved[thing] === step || !fits(thing)) continue;
          turn(thing);
          moved[thing] = step;
        }
    }
  }

  for (const thing of start) turn(thing);
  for (let thing = 0; thing < count; thing += 1) if (!taken[thing] && fits(thing)) turn(thing);
  for (let step = 1; step <= steps && size < count; step += 1) {
    if (step % LOOK === 0 && over()) break;
    const before = size;
    changes = [];
    roomier.clear();
    const forced = drawn();
    turn(forced);
    const possible = makeRoom(forced, step);
    if (possible) {
      moved[forced] = step;
      fill(step);
    }
    if (!possible || size < before) undo();
  }
  return Array.from({ length: count }, (_, i) => i).filter((i) => taken[i]);
}

/**
 * Things in turn as long as they fit, those first that need the smallest shares of their limits.
 *
 * @param order in place of those shares: what each thing comes by, the least first
 */
export function leastUse({ count, limits }: Packing, order?: Float64Array): number[] {
  const weight = new Float64Array(count);
  if (order) weight.set(order);
  else for (const { units, needs } of limits) for (const n of needs) weight[n.thing]! += n.units / Math.max(1, units);
  const uses = usesOf(count, limits);
  const left = limits.map((l) => l.units);
  return Array.from({ length: count }, (_, i) => i)
    .sort((a, b) => weight[a]! - weight[b]!)
    .filter((thing) => {
      if (uses[thing]!.some(({ other, units }) => units > left[other]!)) return false;
      for (const { other, units } of uses[thing]!) left[other]! -= units;
      return true;
    });
}

function usesOf(count: number, limits: Packing['limits']) {
  const uses: { other: number; units: number }[][] = Array.from({ length: count }, () => []);
  limits.forEach((l, other) => l.needs.forEach(({ thing, units }) => uses[thing]!.push({ other, units })));
  return uses;
}
