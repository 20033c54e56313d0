import { seeded } from '../../random/index.ts';
import type { Effort, Program, Solver } from '../../solver/index.ts';
import { levelsOf, needsOf, type ItemLevels } from './contest.ts';
import { decomposed } from './decompose.ts';
import { improve, leastUse } from './improve.ts';
import { priced } from './lagrange.ts';
import { fitsIn, type Packing } from './packing.ts';
import { polish } from './polish.ts';
import { firstServed, goodUntil, type Demand, type Grants, type Supply } from './problem.ts';
import { Shelf, sum } from './shelf.ts';

interface Candidate {
  order: Demand;
  needs: Map<string, number[]>;
}

/** One limit that candidates share: units of an item that keep at least so long. */
interface Limit {
  item: string;
  /** The greater, the longer the units keep. */
  level: number;
  units: number;
  needs: Map<Candidate, number>;
}

/** Candidates that share limits, directly or by others. */
interface Group {
  candidates: Candidate[];
  limits: Limit[];
}

const fits = (needs: Map<string, number[]>, levels: Map<string, ItemLevels>) =>
  [...needs].every(([item, need]) => need.every((n, i) => n <= levels.get(item)!.supply[i]!));

/** Limits that all candidates together would break; only these force a choice. */
function tightLimits(candidates: Candidate[], levels: Map<string, ItemLevels>): Limit[] {
  const limits = new Map<string, Limit>();
  for (const candidate of candidates)
    for (const [item, need] of candidate.needs)
      need.forEach((units, i) => {
        if (units === 0) return;
        const limit = limits.get(`${i} ${item}`) ?? {
          item,
          level: i,
          units: levels.get(item)!.supply[i]!,
          needs: new Map(),
        };
        limit.needs.set(candidate, units);
        limits.set(`${i} ${item}`, limit);
      });
  return [...limits.values()].filter((l) => [...l.needs.values()].reduce((n, units) => n + units, 0) > l.units);
}

function groupsOf(limits: Limit[]): Group[] {
  const leader = new Map<Candidate, Candidate>();
  const find = (c: Candidate): Candidate => {
    let at = c;
    while (leader.get(at) !== at) at = leader.get(at)!;
    leader.set(c, at);
    return at;
  };
  for (const limit of limits) {
    const [first, ...others] = limit.needs.keys();
    for (const c of limit.needs.keys()) if (!leader.has(c)) leader.set(c, c);
    for (const c of others) leader.set(find(c), find(first!));
  }
  const groups = new Map<Candidate, Group>();
  for (const c of leader.keys()) {
    const group = groups.get(find(c)) ?? { candidates: [], limits: [] };
    group.candidates.push(c);
    groups.set(find(c), group);
  }
  for (const limit of limits) groups.get(find(limit.needs.keys().next().value!))!.limits.push(limit);
  return [...groups.values()];
}

const within = (chosen: Set<Candidate>, limits: Limit[]) =>
  limits.every((l) => [...l.needs].reduce((n, [c, units]) => (chosen.has(c) ? n + units : n), 0) <= l.units);

function rowsOf(candidates: Candidate[], limits: Limit[]): Program['rows'] {
  const at = new Map(candidates.map((c, i) => [c, i]));
  return limits.map((l) => ({
    limit: l.units,
    terms: [...l.needs].map(([c, factor]) => ({ variable: at.get(c)!, factor })),
  }));
}

/** Candidates of a group up to which all of it is one program: their choice is mostly proven within the time. */
const FEW = 300;
/** Candidates of all groups beyond which the units are left as they come. */
const MANY = 2500;
/** Share of the time that is for the number of orders; the rest is for their units, or for handing out alone. */
const FOR_CHOICE = { units: 0.8, alone: 0.95 };
/** Steps of local search for each candidate, and for each second that may be spent. */
const STEPS = { each: 40, second: 40_000 };
/** Where in a group's time each part of the search ends; the last is the solver's. */
const ENDS = { first: 0.08, second: 0.5, bound: 0.85 };

/** One group as a packing: its candidates are the things. */
function packingOf({ candidates, limits }: Group): Packing {
  const at = new Map(candidates.map((c, i) => [c, i]));
  const chains = new Map<string, number[]>();
  const strict = limits.map((_, l) => l).sort((a, b) => limits[b]!.level - limits[a]!.level);
  for (const l of strict) chains.set(limits[l]!.item, [...(chains.get(limits[l]!.item) ?? []), l]);
  return {
    count: candidates.length,
    limits: limits.map((l) => ({
      units: l.units,
      needs: [...l.needs].map(([c, units]) => ({ thing: at.get(c)!, units })),
    })),
    chains: [...chains.values()],
  };
}

interface Chosen {
  chosen: Set<Candidate>;
  bound: number;
}

/** As many candidates of one group as can be, and a number that no choice beats. */
function chooseMost(group: Group, solver: Solver, effort: Effort): Chosen {
  const packing = packingOf(group);
  const { candidates } = group;
  const steps = Math.ceil(Math.min(STEPS.each * candidates.length, STEPS.second * effort.seconds));
  const best =
    candidates.length > FEW
      ? searched(packing, steps, solver, effort)
      : solved(packing, steps, solver, { ...effort, seconds: effort.seconds / 2 });
  return { chosen: new Set(best.things.map((i) => candidates[i]!)), bound: Math.max(best.things.length, best.bound) };
}

interface Best {
  things: readonly number[];
  bound: number;
}

/** A small group by one program. */
function solved(packing: Packing, steps: number, solver: Solver, effort: Effort): Best {
  const { count, limits } = packing;
  const begin = improve(packing, leastUse(packing), steps, seeded(effort.seed));
  const ones = Array.from({ length: count }, () => 1);
  const taken = new Set(begin);
  const { x, bound } = solver(
    {
      gain: ones,
      top: ones,
      whole: ones.map(() => true),
      rows: limits.map(({ units, needs }) => ({
        limit: units,
        terms: needs.map((n) => ({ variable: n.thing, factor: n.units })),
      })),
      start: ones.map((_, i) => (taken.has(i) ? 1 : 0)),
    },
    effort,
  );
  const found = ones.flatMap((_, i) => (x && x[i]! > 0.5 ? [i] : []));
  // The solver works in floating point: what it says is held against the whole numbers.
  const things = found.length >= begin.length && fitsIn(packing, found) ? found : begin;
  return { things, bound: Math.min(count, Math.floor(bound + 1e-6)) };
}

/** A large group by local search from two sides, bounded by prices and by choosing for each item alone. */
function searched(packing: Packing, steps: number, solver: Solver, effort: Effort): Best {
  const { spent } = effort;
  const until = (share: number) => (spent ? () => spent() >= share : undefined);
  const first = improve(packing, leastUse(packing), steps / 4, seeded(effort.seed), until(ENDS.first));
  const { bound, prices, worth } = priced(packing, first.length, until(ENDS.second));
  const dear = leastUse(
    packing,
    worth.map((w) => -w),
  );
  const second = improve(packing, dear, (3 * steps) / 4, seeded(effort.seed), until(ENDS.second));
  const better = second.length > first.length ? second : first;
  const lowest = (n: number) => Math.floor(n + 1e-6);
  if (lowest(bound) <= better.length) return { things: better, bound: lowest(bound) };
  const lower = lowest(Math.min(bound, decomposed(packing, prices, better.length, until(ENDS.bound))));
  const seconds = effort.seconds * Math.min(1 - ENDS.bound, 1 - (spent?.() ?? ENDS.bound));
  if (lower <= better.length || seconds <= 0) return { things: better, bound: lower };
  return { things: polish(packing, better, worth, solver, { ...effort, seconds }), bound: lower };
}

/**
 * Among choices of as many orders, one that delivers the most units. Orders that ship in part take what is over in any
 * case, so only those that ship complete make a difference.
 */
function chooseUnits(
  candidates: Candidate[],
  limits: Limit[],
  chosen: Set<Candidate>,
  others: Demand[],
  levels: Map<string, ItemLevels>,
  solver: Solver,
  effort: Effort,
): Set<Candidate> {
  const whole = candidates.filter((c) => c.order.shipComplete);
  if (whole.length === 0) return chosen;
  const items = [...new Set(whole.flatMap((c) => [...c.needs.keys()]))];
  const rows = rowsOf(candidates, limits);
  const gain = candidates.map((c) => (c.order.shipComplete ? c.order.lines.reduce((n, l) => n + l.units, 0) : 0));
  const top = candidates.map(() => 1);
  const place = new Map(candidates.map((c, i) => [c, i]));
  const partial = [...candidates.map((c) => c.order), ...others].filter((o) => !o.shipComplete);
  const sure = others.filter((o) => o.shipComplete).map((o) => needsOf(o, levels));
  const asked = new Map(items.map((item) => [item, levels.get(item)!.levels.map(() => 0)]));
  for (const order of partial)
    for (const line of order.lines) {
      const list = asked.get(line.item);
      if (list) list[levels.get(line.item)!.levels.indexOf(goodUntil(order, line))]! += line.units;
    }
  for (const item of items) {
    const at = levels.get(item)!;
    // What partial orders take of each level, as one amount.
    const takes = asked.get(item)!.map((units) => {
      gain.push(1);
      top.push(units);
      return gain.length - 1;
    });
    at.levels.forEach((_, i) => {
      const terms = takes.slice(i).map((variable) => ({ variable, factor: 1 }));
      for (const c of whole) {
        const units = c.needs.get(item)?.[i] ?? 0;
        if (units > 0) terms.push({ variable: place.get(c)!, factor: units });
      }
      const spoken = sure.reduce((n, needs) => n + (needs.get(item)?.[i] ?? 0), 0);
      rows.push({ limit: at.supply[i]! - spoken, terms });
    });
  }
  rows.push({ limit: -chosen.size, terms: candidates.map((_, variable) => ({ variable, factor: -1 })) });
  const start = gain.map((_, i) => (chosen.has(candidates[i]!) ? 1 : 0));
  const solved = solver({ gain, top, whole: gain.map((_, i) => i < candidates.length), rows, start }, effort);
  const found = new Set(candidates.filter((_, i) => solved.x && solved.x[i]! > 0.5));
  return found.size === chosen.size && within(found, limits) ? found : chosen;
}

const unitsOf = (grants: Grants) => [...grants.values()].reduce((n, units) => n + units, 0);

/** Serves the chosen in full, then the orders that ship in part with what is over. */
function serve(supply: Supply[], demand: Demand[], chosen: Set<Demand>): Grants {
  const shelf = new Shelf(supply);
  const grants: Grants = new Map();
  const take = (order: Demand) =>
    order.lines.forEach((l) => grants.set(l, sum(shelf.take(l.item, goodUntil(order, l), l.units))));
  const inOrder = [...demand].sort(firstServed);
  for (const order of inOrder) if (chosen.has(order)) take(order);
  for (const order of inOrder)
    if (!chosen.has(order)) {
      if (order.shipComplete) for (const line of order.lines) grants.set(line, 0);
      else take(order);
    }
  return grants;
}

/**
 * As many complete orders as possible, then as many units: a packing problem (each order needs so much of what is
 * short), taken apart into groups that share nothing. Small groups are solved by branch and cut, large ones searched and
 * bounded. Where the search ends early, the bound says how much better it could be at best.
 *
 * @param effort seconds and nodes for the whole; groups share the seconds by their size
 * @returns units of every line, and a number of complete orders that no allocation beats
 */
export function mostOrders(
  supply: Supply[],
  demand: Demand[],
  solver: Solver,
  effort: Effort,
): { grants: Grants; bound: number } {
  const levels = levelsOf(supply, demand);
  const all = demand.map((order) => ({ order, needs: needsOf(order, levels) }));
  const possible = all.filter((c) => fits(c.needs, levels));
  const limits = tightLimits(possible, levels);
  const groups = groupsOf(limits);
  const contested = groups.flatMap((g) => g.candidates);
  const contesting = new Set(contested);
  const sure = possible.filter((c) => !contesting.has(c));
  const chosen = new Set<Candidate>();
  let bound = sure.length;
  const { spent } = effort;
  const forChoice = contested.length > MANY ? FOR_CHOICE.alone : FOR_CHOICE.units;
  for (const group of groups) {
    const share = (forChoice * group.candidates.length) / contested.length;
    const begun = spent?.() ?? 0;
    const best = chooseMost(group, solver, {
      ...effort,
      seconds: effort.seconds * share,
      ...(spent && { spent: () => (spent() - begun) / share }),
    });
    best.chosen.forEach((c) => chosen.add(c));
    bound += best.bound;
  }
  const isPossible = new Set(possible.map((c) => c.order));
  const others = [
    ...sure.map((c) => c.order),
    ...demand.filter((order) => !isPossible.has(order) && !order.shipComplete),
  ];
  const left = Math.min(1 - forChoice, Math.max(0, 1 - (spent?.() ?? 0)));
  const rest = { ...effort, seconds: effort.seconds * left };
  const served = (these: Set<Candidate>) => serve(supply, demand, new Set([...sure, ...these].map((c) => c.order)));
  const first = served(chosen);
  if (contested.length > MANY) return { grants: first, bound };
  const other = chooseUnits(contested, limits, chosen, others, levels, solver, rest);
  const second = other === chosen ? first : served(other);
  return { grants: unitsOf(second) > unitsOf(first) ? second : first, bound };
}
