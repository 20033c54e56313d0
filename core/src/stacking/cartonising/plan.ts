import { volumeOf } from '../boxes/index.ts';
import { cartonise, cartoniseFrom, type Begun, type CartoniseOptions } from './cartonise.ts';
import { isIn, type CartonProblem, type Cartonised } from './problem.ts';

/** What all goods take with a carton of some type as the next one. */
export interface CartonChoice {
  type: number;
  cartons: number;
  cost: number;
  /** Weight of all cartons with their contents, and by volume, grams. */
  weightG: number;
  volumetricG: number;
}

export interface CartonPlan extends Cartonised {
  /** The begun carton was packed otherwise than can be foreseen: the plan is for what is not in it. */
  otherwise: boolean;
  choices: CartonChoice[];
  /** Goods of which a unit fits no type, by their place in the list: they are in no carton of the plan. */
  unfit: number[];
}

/** Answers by what was asked. */
export type Memory = Map<string, Cartonised>;

/** Answers that are kept; the oldest goes. */
const REMEMBERED = 500;

/** The cartons of goods, from memory where the same was asked before: goods of the same sizes and rules are the same. */
export function recalled(problem: CartonProblem, options: CartoniseOptions, memory: Memory): Cartonised {
  const key = JSON.stringify([problem, options.seed, options.effort]);
  const known = memory.get(key);
  const answer = known ?? cartonise(problem, options);
  memory.delete(key);
  memory.set(key, answer);
  if (memory.size > REMEMBERED) memory.delete(memory.keys().next().value!);
  return answer;
}

/** mm³ for each gram of volumetric weight: 5,000 cm³ a kilogram (common practice of parcel carriers). */
const VOLUMETRIC = 5_000;

export const volumetricG = (inner: readonly [number, number, number]): number =>
  Math.ceil(volumeOf(inner) / VOLUMETRIC);

/**
 * The cartons that an order's goods are put into: the one that is open first, or with what each type as the next one
 * would come to.
 *
 * @param begun the open carton; null where none is
 * @param memory answers that are kept from question to question: while an order is packed its goods stay the same
 */
export function planCartons(
  problem: CartonProblem,
  begun: Begun | null,
  options: CartoniseOptions = {},
  memory: Memory = new Map(),
): CartonPlan {
  const unfit = problem.goods.flatMap((g, k) => (g.units > 0 && !problem.types.some((t) => isIn(g, t)) ? [k] : []));
  const goods = problem.goods.map((g, k) => (unfit.includes(k) ? { ...g, units: 0 } : g));
  const asked = { ...problem, goods };
  const best = recalled(asked, options, memory);
  if (begun) {
    const inside = begun.inside.map((n, k) => (unfit.includes(k) ? 0 : n));
    const from = cartoniseFrom(asked, { ...begun, inside }, options, best);
    if (from) return { ...from, otherwise: false, choices: [], unfit };
    const rest = goods.map((g, k) => ({ ...g, units: g.units - inside[k]! }));
    return { ...cartonise({ ...problem, goods: rest }, options), otherwise: true, choices: [], unfit };
  }
  const nothing = goods.map(() => 0);
  const choices = problem.types.flatMap((_, type) => {
    if (!goods.some((g) => g.units > 0 && isIn(g, problem.types[type]!))) return [];
    const with_ = cartoniseFrom(asked, { type, inside: nothing }, { ...options, effort: 'quick' }, best);
    return with_ ? [choiceOf(problem, type, with_)] : [];
  });
  return { ...best, otherwise: false, choices, unfit };
}

function choiceOf({ types, goods }: CartonProblem, type: number, { cartons, cost }: Cartonised): CartonChoice {
  const sum = (of: (c: (typeof cartons)[number]) => number) => cartons.reduce((total, c) => total + of(c), 0);
  return {
    type,
    cartons: cartons.length,
    cost,
    weightG: sum((c) => types[c.type]!.tareG + c.units.reduce((n, u) => n + goods[u.kind]!.weightG, 0)),
    volumetricG: sum((c) => volumetricG(types[c.type]!.inner)),
  };
}
