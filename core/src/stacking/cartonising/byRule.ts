import { filledBy } from '../../handling/packaging/index.ts';
import { volumeOf } from '../boxes/index.ts';
import type { Begun, CartoniseOptions } from './cartonise.ts';
import { planCartons, recalled, type CartonPlan, type Memory } from './plan.ts';
import { isIn, type CartonProblem, type PackedCarton } from './problem.ts';

/** A site's own rule for goods: so many units in one carton, and nothing else in it. */
export interface CartonRule {
  perCarton: number;
  /** The type of carton, by its place in the list; null for the cheapest that takes so many. */
  type: number | null;
}

export interface PlannedCarton extends PackedCarton {
  /** Units of one kind of goods by a rule; null where the carton was filled by its sizes. */
  rule: { kind: number; units: number; perCarton: number } | null;
}

/** A plan of which some cartons are filled by rule. Where so many units have no place by their sizes, `units` is empty. */
export interface RuledPlan extends Omit<CartonPlan, 'cartons'> {
  cartons: PlannedCarton[];
}

/**
 * The cartons of an order's goods where a site has rules of its own for some of them: these come first, each kind by itself,
 * the last carton of a kind with what is left; all other goods as their sizes and weights allow.
 *
 * @param rules one for each kind of goods, null where there is none
 * @param begun the open carton; where it holds goods with a rule and nothing else it is filled by the rule
 */
export function planByRules(
  problem: CartonProblem,
  rules: readonly (CartonRule | null)[],
  begun: Begun | null,
  options: CartoniseOptions = {},
  memory: Memory = new Map(),
): RuledPlan {
  const { types, goods } = problem;
  const inside = begun?.inside ?? goods.map(() => 0);
  const own = begun && ownKind(problem, rules, begun);
  // What lies in the open carton beside other goods was packed otherwise, and stays.
  const free = goods.map((g, k) => ({ ...g, units: rules[k] ? (own === null ? inside[k]! : 0) : g.units }));
  const freeBegun = own === null ? begun : null;
  const plan =
    freeBegun || free.some((g) => g.units > 0) || rules.every((rule) => rule === null)
      ? planCartons({ ...problem, goods: free }, freeBegun, options, memory)
      : null;
  const first: PlannedCarton[] = [];
  const ruled: PlannedCarton[] = [];
  goods.forEach((g, kind) => {
    const rule = rules[kind];
    if (!rule) return;
    let left = g.units - (own === kind ? 0 : inside[kind]!);
    if (own === kind) {
      const units = Math.max(inside[kind]!, Math.min(rule.perCarton, left));
      first.push(carton(kind, { ...rule, type: begun!.type }, units));
      left -= units;
    }
    for (const units of filledBy(rule.perCarton, Math.max(0, left))) ruled.push(carton(kind, rule, units));
  });
  const bySize = (plan?.cartons ?? []).map((c): PlannedCarton => ({ ...c, rule: null }));
  const cost = [...first, ...ruled].reduce((sum, c) => sum + types[c.type]!.cost, 0);
  const count = first.length + ruled.length;
  return {
    cartons: freeBegun ? [...bySize, ...ruled] : [...first, ...ruled, ...bySize],
    cost: cost + (plan?.cost ?? 0),
    lowerBound: (plan?.lowerBound ?? 0) + (problem.objective === 'cost' ? cost : count),
    otherwise: plan?.otherwise ?? false,
    // A rule leaves no choice; after its cartons there is one again.
    choices: count > 0 ? [] : (plan?.choices ?? []),
    unfit: plan?.unfit ?? [],
  };

  function carton(kind: number, { type, perCarton }: CartonRule, units: number): PlannedCarton {
    const rule = { kind, units, perCarton };
    const own_ = goods[kind]!;
    const places = types.map((_, t) => t).filter((t) => (type === null || t === type) && isIn(own_, types[t]!));
    if (places.length > 0) {
      const asked = { ...problem, types: places.map((t) => types[t]!), goods: [{ ...own_, units }] };
      const [found, ...more] = recalled(asked, options, memory).cartons;
      if (found && more.length === 0)
        return { type: places[found.type]!, units: found.units.map((u) => ({ ...u, kind })), rule };
    }
    // The rule knows better than the sizes that were entered.
    const largest = types.reduce((best, t, i) => (volumeOf(t.inner) > volumeOf(types[best]!.inner) ? i : best), 0);
    return { type: type ?? largest, units: [], rule };
  }
}

/** The kind of goods whose rule the open carton follows: the only one in it, or, while it is empty, the one whose carton it is. */
function ownKind({ goods }: CartonProblem, rules: readonly (CartonRule | null)[], begun: Begun): number | null {
  const in_ = goods.flatMap((_, k) => (begun.inside[k]! > 0 ? [k] : []));
  if (in_.length > 0) return in_.length === 1 && rules[in_[0]!] ? in_[0]! : null;
  const waiting = goods.flatMap((g, k) => (rules[k] && g.units > 0 ? [k] : []));
  const its = waiting.find((k) => rules[k]!.type === begun.type);
  const nothingElse = goods.every((g, k) => g.units === 0 || rules[k]);
  return its ?? (nothingElse ? (waiting[0] ?? null) : null);
}
