import { seeded, type Random } from '../../random/index.ts';
import {
  arrange,
  FEW,
  Stack,
  Effort,
  fill,
  kitFor,
  volumeOf,
  type Kit,
  type Placed,
  type Room,
  type Sides,
} from '../boxes/index.ts';
import { sharedBound, tooFew } from './bounds.ts';
import { tooMuchByScales } from './dualFeasible.ts';
import { mixesByPrice } from './mixes.ts';
import {
  FitsNoCarton,
  groupsIn,
  isIn,
  volumeIn,
  weightIn,
  type CartonProblem,
  type Cartonised,
  type PackedCarton,
} from './problem.ts';

/** Arrangements tried for one carton: while an answer is built, and where a cheaper one hangs on it. */
const QUICK = 4;
const THOROUGH = 160;
/** Steps of the exact search for few units. */
const EXACT = 12_000;
/** Blocks of units that are set down as one. */
const blocksBy = { quick: 200, usual: 300, thorough: 900 } as const;
/** Mixes of cartons that are looked at, cheapest first. */
const MIXES = 3_000;

/** How much is tried: times the least, of which a wave of a thousand orders has a few seconds. */
const efforts = { quick: 1, usual: 5, thorough: 50 } as const;

export interface CartoniseOptions {
  seed?: number;
  effort?: keyof typeof efforts;
  /** Whether the time is up. */
  over?: () => boolean;
}

/**
 * Which cartons take an order's goods, and where each unit lies: as cheaply as can be found, with what nothing can beat.
 *
 * Mixes of cartons are gone through from the cheapest on. One that volume, weight, groups, dual feasible volumes or an
 * exact search exclude is proven too small; in the others the goods are arranged. Beside that an answer is built carton by
 * carton, and improved by packing some of its cartons anew.
 *
 * @throws FitsNoCarton for the first goods of which a unit fits no type
 */
export function cartonise(
  problem: CartonProblem,
  { seed = 1, effort = 'usual', over = () => false }: CartoniseOptions = {},
): Cartonised {
  problem.goods.forEach((kind, k) => {
    if (kind.units > 0 && !problem.types.some((t) => isIn(kind, t))) throw new FitsNoCarton(k);
  });
  return new Search(problem, seed, effort, over).answer();
}

/** A carton that is begun: its type, and units of each kind of goods that are in it. */
export interface Begun {
  type: number;
  inside: readonly number[];
}

/**
 * The cartons of an order of which one is begun, that one first. Where the best answer for all goods has a carton like it,
 * it stays as it was foreseen; else it is filled on with what goes beside what is in it.
 *
 * @param whole the best answer for all goods, where it is known
 * @returns null where what is in it does not fit it as far as is known: somebody packed it better than we can
 * @throws FitsNoCarton as `cartonise` does
 */
export function cartoniseFrom(
  problem: CartonProblem,
  begun: Begun,
  options: CartoniseOptions = {},
  whole: Cartonised = cartonise(problem, options),
): Cartonised | null {
  const { seed = 1, effort = 'usual', over = () => false } = options;
  const counts = problem.goods.map((g) => g.units);
  const holds = (carton: PackedCarton) =>
    carton.type === begun.type && countsOf(carton, counts.length).every((n, k) => n >= begun.inside[k]!);
  const foreseen = whole.cartons.findIndex(holds);
  if (foreseen >= 0) {
    const others = whole.cartons.filter((_, i) => i !== foreseen);
    return { ...whole, cartons: [whole.cartons[foreseen]!, ...others] };
  }
  const first = new Search(problem, seed, effort, over).begin(begun);
  if (!holds(first)) return null;
  const left = minus(counts, first);
  const rest = cartonise({ ...problem, goods: problem.goods.map((g, k) => ({ ...g, units: left[k]! })) }, options);
  return {
    cartons: [first, ...rest.cartons],
    cost: problem.types[begun.type]!.cost + rest.cost,
    lowerBound: whole.lowerBound,
  };
}

class Search {
  readonly #random: Random;
  readonly #effort: Effort;
  readonly #counts: number[];
  readonly #prices: number[];
  readonly #kit: Kit;
  /** What was tried for one carton of a type and goods; null where they did not fit. */
  readonly #tried = new Map<string, { packed: PackedCarton | null; proven: boolean; steps: number }>();

  constructor(
    private readonly problem: CartonProblem,
    private readonly seed: number,
    effort: keyof typeof efforts,
    over: () => boolean,
  ) {
    const units = problem.goods.reduce((n, g) => n + g.units, 0);
    this.#random = seeded(seed);
    this.#effort = new Effort(efforts[effort] * (60 + 2 * Math.min(units, 100)), over);
    this.#counts = problem.goods.map((g) => g.units);
    const widest = [0, 1, 2].map((axis) => Math.max(...problem.types.map((t) => t.inner[axis]!)));
    this.#kit = kitFor(problem.goods, widest as unknown as Sides, this.#counts, blocksBy[effort], problem.support);
    // Fewest cartons first, then cost: a carton more costs more than all together.
    const perCarton =
      problem.objective === 'cartons' ? 1 + units * Math.max(0, ...problem.types.map((t) => t.cost)) : 0;
    this.#prices = problem.types.map((t) => t.cost + perCarton);
  }

  answer(): Cartonised {
    const { types, objective } = this.problem;
    if (this.#counts.every((n) => n === 0)) return { cartons: [], cost: 0, lowerBound: 0 };
    let best = this.#build();
    let bound = sharedBound(this.problem, this.#counts, this.#prices);
    // While every cheaper mix is proven too small, the bound follows the row.
    let proven = true;
    for (const mix of mixesByPrice(this.#prices, this.#price(best), MIXES, (m) => this.#excluded(m))) {
      if (proven) bound = Math.max(bound, mix.price);
      if (mix.price >= this.#price(best) - 1e-9 || this.#effort.ended) break;
      const found = this.#into(mix.cartons);
      if (found) best = found;
      if (found) break;
      proven = false;
    }
    best = this.#improve(best, bound);
    const cost = (cartons: readonly PackedCarton[]) => cartons.reduce((sum, c) => sum + types[c.type]!.cost, 0);
    const measured =
      objective === 'cost'
        ? Math.min(bound, this.#price(best))
        : Math.min(
            best.length,
            Math.ceil(bound / (this.#prices[0]! - types[0]!.cost + Math.max(...types.map((t) => t.cost))) - 1e-9),
          );
    return { cartons: best, cost: cost(best), lowerBound: measured };
  }

  #volume(type: number): number {
    return volumeOf(this.problem.types[type]!.inner);
  }

  /** A carton that is begun, filled on: what is in it goes before all else. */
  begin({ type, inside }: Begun): PackedCarton {
    const { goods } = this.problem;
    const [group = null] = groupsIn(goods, inside);
    const own = this.#counts.map((n, k) =>
      group === null || goods[k]!.group === null || goods[k]!.group === group ? n : inside[k]!,
    );
    const first = inside.flatMap((n, k) => (n > 0 ? [k] : []));
    if (first.length === 0) return this.#fullest(type, this.#counts, THOROUGH);
    const done = fill(
      this.#room(type),
      this.#kit,
      own.map((n, k) => (isIn(goods[k]!, this.problem.types[type]!) ? n : 0)),
      {
        effort: this.#effort.part(THOROUGH),
        seed: this.seed,
        first,
      },
    );
    return { type, units: done.units };
  }

  #price(cartons: readonly PackedCarton[]): number {
    return cartons.reduce((sum, c) => sum + this.#prices[c.type]!, 0);
  }

  #room(type: number): Room {
    const { inner, maxWeightG } = this.problem.types[type]!;
    return { inner, maxWeightG, support: this.problem.support };
  }

  /** Whether a mix is proven too small; what was tried before for a single carton counts too. */
  #excluded(cartons: readonly number[]): boolean {
    if (tooFew(this.problem, this.#counts, cartons)) return true;
    if (cartons.reduce((n, c) => n + c, 0) > 1) return false;
    const type = cartons.findIndex((n) => n > 0);
    const before = this.#tried.get(keyOf(type, this.#counts));
    if (before) return before.packed === null && before.proven;
    return this.#one(type, this.#counts, QUICK) === null && this.#tried.get(keyOf(type, this.#counts))!.proven;
  }

  /** All of some goods in one carton of a type; null where they do not fit, as far as was found. */
  #one(type: number, counts: readonly number[], steps: number): PackedCarton | null {
    const key = keyOf(type, counts);
    const before = this.#tried.get(key);
    if (before && (before.packed || before.proven || before.steps >= steps)) return before.packed;
    const result = this.#tryOne(type, counts, steps, before !== undefined);
    this.#tried.set(key, { ...result, steps });
    return result.packed;
  }

  #tryOne(type: number, counts: readonly number[], steps: number, again: boolean) {
    const { goods, types } = this.problem;
    const no = { packed: null, proven: true };
    const single = types.map((_, t) => (t === type ? 1 : 0));
    if (!again && (tooFew(this.problem, counts, single) || tooMuchByScales(goods, counts, types[type]!))) return no;
    const units = counts.flatMap((n, k) => Array.from({ length: n }, () => k));
    if (!again && units.length <= FEW) {
      const few = arrange(types[type]!.inner, goods, units, EXACT);
      if (few.room === false) return no;
      // There is room; whether it also stands is seen by setting it down.
      if (few.room && new Stack(this.#room(type), goods).add(few.units))
        return { packed: { type, units: few.units }, proven: true };
    }
    const done = fill(this.#room(type), this.#kit, counts, {
      effort: this.#effort.part(steps),
      seed: this.seed,
    });
    return { packed: done.left.every((n) => n === 0) ? { type, units: done.units } : null, proven: false };
  }

  /** The cheapest single carton for some goods. */
  #cheapest(counts: readonly number[], steps: number, below = Infinity): PackedCarton | null {
    if (groupsIn(this.problem.goods, counts).length > 1) return null;
    const byPrice = this.#prices.map((_, t) => t).sort((a, b) => this.#prices[a]! - this.#prices[b]!);
    for (const type of byPrice) {
      if (this.#prices[type]! >= below) return null;
      const packed = this.#one(type, counts, steps);
      if (packed) return packed;
    }
    return null;
  }

  /** As much as one carton of a type takes, of one group and of goods that go with all. */
  #fullest(type: number, counts: readonly number[], steps: number): PackedCarton {
    const { goods } = this.problem;
    const groups = groupsIn(goods, counts);
    let best: { units: Placed[]; volume: number } = { units: [], volume: 0 };
    for (const group of groups.length > 0 ? groups : [null]) {
      const own = counts.map((n, k) => (goods[k]!.group === null || goods[k]!.group === group ? n : 0));
      const wanted = own.map((n, k) => (isIn(goods[k]!, this.problem.types[type]!) ? n : 0));
      const done = fill(this.#room(type), this.#kit, wanted, {
        effort: this.#effort.part(steps),
        seed: this.seed,
      });
      if (done.volume > best.volume) best = done;
    }
    return { type, units: best.units };
  }

  /** Builds an answer with each type as the one that is filled, and by what a filled carton costs for what it holds. */
  #build(): PackedCarton[] {
    // The one that promises most first: where the time is short it alone is tried.
    const { goods, types } = this.problem;
    const [volume, weight] = [volumeIn(goods, this.#counts), weightIn(goods, this.#counts)];
    const promises = types.map(
      (t, i) => this.#prices[i]! * Math.max(1, volume / this.#volume(i), weight / t.maxWeightG),
    );
    const choices = [...types.map((_, t) => t).sort((a, b) => promises[a]! - promises[b]!), null];
    let best: PackedCarton[] | null = null;
    for (const main of choices) {
      if (best && this.#effort.ended) break;
      const built = this.#carton(this.#counts, main, best ? this.#price(best) : Infinity);
      if (built && (!best || this.#price(built) < this.#price(best))) best = built;
    }
    const groups = groupsIn(goods, this.#counts);
    for (const group of groups.length > 1 ? groups : []) {
      if (this.#effort.ended) break;
      const built = this.#apart(this.#counts, () => group, choices[0]!, this.#price(best!));
      if (built) best = built;
    }
    return best!;
  }

  /**
   * Each group packed by itself, with a share of the goods that go with all: those go to the group that is chosen for
   * each unit. Null where it costs as much as `below`.
   */
  #apart(counts: readonly number[], groupFor: () => string, main: number | null, below: number): PackedCarton[] | null {
    const { goods } = this.problem;
    const parts = new Map(groupsIn(goods, counts).map((group) => [group, goods.map(() => 0)]));
    counts.forEach((n, k) => {
      for (let i = 0; i < n; i++) parts.get(goods[k]!.group ?? groupFor())![k]! += 1;
    });
    const cartons: PackedCarton[] = [];
    for (const part of parts.values()) {
      const made = this.#carton(part, main, below - this.#price(cartons));
      if (!made) return null;
      cartons.push(...made);
    }
    return cartons;
  }

  /** Carton after carton; null where it costs more than `below`. */
  #carton(counts: readonly number[], main: number | null, below: number): PackedCarton[] | null {
    const { goods, types } = this.problem;
    const cartons: PackedCarton[] = [];
    let left = [...counts];
    while (left.some((n) => n > 0)) {
      const spent = this.#price(cartons);
      if (spent >= below) return null;
      const last = this.#effort.ended ? null : this.#cheapest(left, QUICK);
      const fits = (type: number) => left.some((n, k) => n > 0 && isIn(goods[k]!, types[type]!));
      const usable = types.map((_, t) => t).filter(fits);
      // What fits the type that is filled comes first; what does not is filled into what takes it.
      const chosen = main !== null && fits(main) ? [main] : usable;
      const filled = chosen.map((type) => this.#fullest(type, left, QUICK)).filter((c) => c.units.length > 0);
      const worth = (c: PackedCarton) => volumeIn(goods, countsOf(c, goods.length)) / this.#prices[c.type]! || 0;
      const next = filled.reduce((a, b) => (worth(b) > worth(a) ? b : a));
      if (
        last &&
        (main === null ||
          this.#prices[last.type]! <= this.#prices[next.type]! ||
          countsOf(next, goods.length).every((n, k) => n === left[k]))
      ) {
        cartons.push(last);
        break;
      }
      if (last && main !== null) {
        // One carton takes the rest, though another type was to be filled: whatever costs less.
        const rest = this.#carton(minus(left, next), main, this.#prices[last.type]! - this.#prices[next.type]!);
        cartons.push(...(rest ? [next, ...rest] : [last]));
        break;
      }
      cartons.push(next);
      left = minus(left, next);
    }
    if (this.#price(cartons) >= below) return null;
    return cartons.map((c) => (this.#effort.ended ? c : this.#downsized(c)));
  }

  #downsized(carton: PackedCarton): PackedCarton {
    const counts = countsOf(carton, this.problem.goods.length);
    return this.#cheapest(counts, QUICK, this.#prices[carton.type]) ?? carton;
  }

  /** All goods in so many cartons of each type, the smallest or the largest filled first; null where not found. */
  #into(mix: readonly number[]): PackedCarton[] | null {
    const list = mix.flatMap((n, t) => Array.from({ length: n }, () => t));
    if (list.length === 1) {
      if (groupsIn(this.problem.goods, this.#counts).length > 1) return null;
      const one = this.#one(list[0]!, this.#counts, THOROUGH);
      return one && [one];
    }
    for (const direction of new Set(list).size > 1 ? [-1, 1] : [1]) {
      let left = [...this.#counts];
      const cartons: PackedCarton[] = [];
      for (const [i, type] of [...list].sort((a, b) => direction * (this.#volume(a) - this.#volume(b))).entries()) {
        const whole =
          i === list.length - 1 && groupsIn(this.problem.goods, left).length < 2
            ? this.#one(type, left, THOROUGH)
            : null;
        const carton = whole ?? this.#fullest(type, left, THOROUGH / 4);
        cartons.push(carton);
        left = minus(left, carton);
      }
      if (left.every((n) => n === 0)) return cartons.filter((c) => c.units.length > 0);
    }
    return null;
  }

  /** Packs two or three cartons anew, again and again, the emptiest among them; what costs less, or leaves one emptier, stays. */
  #improve(start: PackedCarton[], bound: number): PackedCarton[] {
    let best = start;
    const { goods, types } = this.problem;
    const fillOf = (c: PackedCarton) =>
      Math.max(
        volumeIn(goods, countsOf(c, goods.length)) /
          (types[c.type]!.inner[0] * types[c.type]!.inner[1] * types[c.type]!.inner[2]),
        weightIn(goods, countsOf(c, goods.length)) / types[c.type]!.maxWeightG,
      );
    const uneven = (list: readonly PackedCarton[]) => list.reduce((sum, c) => sum + fillOf(c) ** 2, 0);
    for (
      let tries = 0;
      tries < 600 && best.length > 1 && !this.#effort.ended && this.#price(best) > bound + 1e-9;
      tries++
    ) {
      const byFill = best.map((_, i) => i).sort((a, b) => fillOf(best[a]!) - fillOf(best[b]!));
      const some = new Set([byFill[tries % Math.min(3, byFill.length)]!]);
      const most = Math.min(best.length, 2 + (tries % 2));
      while (some.size < most) some.add(this.#random.int(0, best.length - 1));
      const counts = goods.map(() => 0);
      for (const i of some) countsOf(best[i]!, goods.length).forEach((n, k) => (counts[k]! += n));
      const old = [...some].map((i) => best[i]!);
      const main = this.#random.next() < 0.3 ? null : this.#random.int(0, types.length - 1);
      const below = this.#price(old) + 1e-9;
      const groups = groupsIn(goods, counts);
      const made =
        groups.length > 1 && this.#random.next() < 0.7
          ? this.#apart(counts, () => this.#random.pick(groups), main, below)
          : this.#carton(counts, main, below);
      if (!made) continue;
      const better = this.#price(made) < this.#price(old) - 1e-9 || uneven(made) > uneven(old) + 1e-9;
      if (better) best = [...best.filter((_, i) => !some.has(i)), ...made];
    }
    return best;
  }
}

const keyOf = (type: number, counts: readonly number[]) => `${type}:${counts.join()}`;

function countsOf({ units }: PackedCarton, kinds: number): number[] {
  const counts = Array.from({ length: kinds }, () => 0);
  for (const { kind } of units) counts[kind]! += 1;
  return counts;
}

const minus = (counts: readonly number[], carton: PackedCarton): number[] => {
  const inside = countsOf(carton, counts.length);
  return counts.map((n, k) => n - inside[k]!);
};
