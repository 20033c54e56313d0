import { seeded } from '../random/index.ts';
import type { Effort, Program, Solver } from '../solver/index.ts';
import { levelsOf, needsOf, type ItemLevels } from './contest.ts';
import { improve, leastUse } from './improve.ts';
import { priced } from './lagrange.ts';
import { firstServed, goodUntil, type Demand, type Grants, type Supply } from './problem.ts';
import { Shelf, sum } from './shelf.ts';

interface Candidate {
  order: Demand;
  needs: Map<string, number[]>;
}

/** One limit that candidates share: units of an item that keep at least so long. */
interface Limit {
  units: number;
  needs: Map<Candidate, number>;
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
        const limit = limits.get(`${i} ${item}`) ?? { units: levels.get(item)!.supply[i]!, needs: new Map() };
        limit.needs.set(candidate, units);
        limits.set(`${i} ${item}`, limit);
      });
  return [...limits.values()].filter((l) => [...l.needs.values()].reduce((n, units) => n + units, 0) > l.units);
}

/** Groups of candidates that share limits, directly or by others. */
function groupsOf(limits: Limit[]): { candidates: Candidate[]; limits: Limit[] }[] {
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
  const groups = new Map<Candidate, { candidates: Candidate[]; limits: Limit[] }>();
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

/** Candidates of a group beyond which a linear program takes longer than it is worth: limits are priced instead. */
const MANY = 2500;
/** Steps of local search for each candidate, and for each second that may be spent. */
const STEPS = { each: 40, second: 12_000 };

/** As many candidates of one group as can be, and a number that no choice beats. */
function chooseMost(group: { candidates: Candidate[]; limits: Limit[] }, solver: Solver, effort: Effort) {
  const { candidates, limits } = group;
  const rows = rowsOf(candidates, limits);
  const packing = {
    count: candidates.length,
    limits: rows.map(({ limit, terms }) => ({
      units: limit,
      needs: terms.map(({ variable, factor }) => ({ thing: variable, units: factor })),
    })),
  };
  const steps = Math.ceil(Math.min(STEPS.each * candidates.length, STEPS.second * effort.seconds));
  if (candidates.length > MANY) {
    const first = improve(packing, leastUse(packing), steps / 4, seeded(effort.seed));
    const { bound, worth } = priced(packing, first.length);
    const dear = leastUse(
      packing,
      worth.map((w) => -w),
    );
    const second = improve(packing, dear.length > first.length ? dear : first, (3 * steps) / 4, seeded(effort.seed));
    const most = second.length > first.length ? second : first;
    return { chosen: new Set(most.map((i) => candidates[i]!)), bound: Math.max(most.length, Math.floor(bound + 1e-6)) };
  }
  const begin = new Set(improve(packing, leastUse(packing), steps, seeded(effort.seed)).map((i) => candidates[i]!));
  const ones = candidates.map(() => 1);
  const solved = solver(
    {
      gain: ones,
      top: ones,
      whole: ones.map(() => true),
      rows,
      start: candidates.map((c) => (begin.has(c) ? 1 : 0)),
    },
    { ...effort, seconds: effort.seconds / 2 },
  );
  const found = new Set(candidates.filter((_, i) => solved.x && solved.x[i]! > 0.5));
  // The solver works in floating point: what it says is held against the whole numbers.
  const chosen = found.size >= begin.size && within(found, limits) ? found : begin;
  const bound = Math.min(candidates.length, Math.floor(solved.bound + 1e-6));
  return { chosen, bound: Math.max(chosen.size, bound) };
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
 * short), taken apart into groups that share nothing and solved by branch and cut. Where the search ends early, the
 * bound says how much better it could be at best.
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
  for (const group of groups) {
    const seconds = (effort.seconds * 0.8 * group.candidates.length) / contested.length;
    const best = chooseMost(group, solver, { ...effort, seconds });
    best.chosen.forEach((c) => chosen.add(c));
    bound += best.bound;
  }
  const isPossible = new Set(possible.map((c) => c.order));
  const others = [
    ...sure.map((c) => c.order),
    ...demand.filter((order) => !isPossible.has(order) && !order.shipComplete),
  ];
  const rest = { ...effort, seconds: effort.seconds * 0.2 };
  const served = (these: Set<Candidate>) => serve(supply, demand, new Set([...sure, ...these].map((c) => c.order)));
  const first = served(chosen);
  if (contested.length > MANY) return { grants: first, bound };
  const other = chooseUnits(contested, limits, chosen, others, levels, solver, rest);
  const second = other === chosen ? first : served(other);
  return { grants: unitsOf(second) > unitsOf(first) ? second : first, bound };
}
