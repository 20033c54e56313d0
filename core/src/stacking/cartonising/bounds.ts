import { turnsOf, volumeOf } from '../boxes/index.ts';
import { SCALES, shareBy, sharesOf } from './dualFeasible.ts';
import { groupsIn, isIn, volumeIn, weightIn, type CartonProblem } from './problem.ts';

const SLACK = 1e-9;

/**
 * What packing costs at least, whatever support and loads demand: each unit pays its share of the carton that takes it
 * cheapest, a share by volume, by weight or by dual feasible volumes; goods of different groups pay apart, and goods of
 * which no two share a carton pay one each.
 *
 * @param prices of the types, in the measure of the bound
 */
export function sharedBound(problem: CartonProblem, counts: readonly number[], prices: readonly number[]): number {
  const groups = groupsIn(problem.goods, counts);
  const all = boundOf(problem, counts, prices);
  if (groups.length === 0) return all;
  const apart = groups.map((group) => counts.map((n, k) => (problem.goods[k]!.group === group ? n : 0)));
  return Math.max(
    all,
    apart.reduce((sum, own) => sum + boundOf(problem, own, prices), 0),
  );
}

function boundOf({ types, goods }: CartonProblem, counts: readonly number[], prices: readonly number[]): number {
  const there = counts.flatMap((n, k) => {
    if (n === 0) return [];
    const kind = goods[k]!;
    const takes = types.flatMap((type, t) => (isIn(kind, type) ? [t] : []));
    const turns = turnsOf(kind);
    const shares = types.map((t) => sharesOf(turns, t.inner));
    return [{ n, kind, takes, shares, volume: volumeOf(kind.size) }];
  });
  const cheapest = there.map(({ takes }) => Math.min(...takes.map((t) => prices[t]!)));
  let bound = Math.max(0, ...cheapest);
  const paid = (shareOf: (unit: (typeof there)[number], type: number) => number) => {
    let sum = 0;
    for (const unit of there) {
      let least = Infinity;
      for (const t of unit.takes) least = Math.min(least, prices[t]! * shareOf(unit, t));
      sum += unit.n * least;
    }
    if (sum > bound) bound = sum;
  };
  paid((unit, t) => unit.volume / volumeOf(types[t]!.inner));
  paid((unit, t) => unit.kind.weightG / types[t]!.maxWeightG || 0);
  for (let scale = 1; scale < SCALES; scale++) paid((unit, t) => shareBy(scale, unit.shares[t]!));
  return Math.max(bound, loners({ types, goods }, counts, cheapest));
}

/** The price of goods of which no two share any carton: each side by side with another is too much for every type. */
function loners(
  { types, goods }: Pick<CartonProblem, 'types' | 'goods'>,
  counts: readonly number[],
  cheapest: number[],
): number {
  const there = counts.flatMap((n, k) => (n > 0 ? [k] : []));
  const turns = goods.map(turnsOf);
  const share = (a: number, b: number) => {
    const [one, other] = [goods[a]!, goods[b]!];
    if (one.group !== null && other.group !== null && one.group !== other.group) return false;
    return types.some(
      (t) =>
        one.weightG + other.weightG <= t.maxWeightG &&
        isIn(one, t) &&
        isIn(other, t) &&
        turns[a]!.some((p) =>
          turns[b]!.some(
            (q) =>
              [0, 1, 2].every((axis) => p[axis]! <= t.inner[axis]! && q[axis]! <= t.inner[axis]!) &&
              [0, 1, 2].some((axis) => p[axis]! + q[axis]! <= t.inner[axis]! + SLACK),
          ),
        ),
    );
  };
  const price = new Map(there.map((k, i) => [k, cheapest[i]!]));
  const chosen: number[] = [];
  let sum = 0;
  for (const k of [...there].sort((a, b) => volumeOf(goods[b]!.size) - volumeOf(goods[a]!.size))) {
    if (chosen.some((other) => share(other, k))) continue;
    chosen.push(k);
    // Units of one kind that do not share a carton with each other count each.
    sum += price.get(k)! * (share(k, k) ? 1 : counts[k]!);
  }
  return sum;
}

/** Whether so many cartons of each type are too few or too small, seen without arranging anything. */
export function tooFew(
  { types, goods }: CartonProblem,
  counts: readonly number[],
  cartons: readonly number[],
): boolean {
  const sum = (of: (type: number) => number) => cartons.reduce((total, n, t) => (n > 0 ? total + n * of(t) : total), 0);
  return (
    sum((t) => volumeOf(types[t]!.inner)) < volumeIn(goods, counts) * (1 - SLACK) ||
    sum((t) => types[t]!.maxWeightG) < weightIn(goods, counts) - SLACK ||
    sum(() => 1) < groupsIn(goods, counts).length ||
    counts.some((n, k) => n > 0 && !cartons.some((have, t) => have > 0 && isIn(goods[k]!, types[t]!)))
  );
}
