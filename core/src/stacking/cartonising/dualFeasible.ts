import { turnsOf, type Sides } from '../boxes/index.ts';
import type { CartonType, Goods } from './problem.ts';

/**
 * Dual feasible functions of a side's share of a length (Fekete and Schepers 2004): whatever lies beside each other in a
 * length keeps a sum of at most 1. Sides and lengths come separately, so that whole millimetres are compared exactly.
 */
type Feasible = (side: number, length: number) => number;

const share: Feasible = (side, length) => side / length;
/** More than the rest beyond `part` counts as all, less than `part` as nothing; `part` at most 1/2. */
const allOrNothing =
  (part: number): Feasible =>
  (side, length) =>
    side > (1 - part) * length ? 1 : side < part * length ? 0 : side / length;
/** Rounded to k-ths: of sides longer than 1/(k + 1) there are at most k. */
const rounded =
  (k: number): Feasible =>
  (side, length) =>
    ((k + 1) * side) % length === 0 ? side / length : Math.floor(((k + 1) * side) / length) / k;

const functions: readonly Feasible[] = [
  share,
  rounded(1),
  rounded(2),
  rounded(3),
  allOrNothing(0.5),
  allOrNothing(1 / 3),
];

/** Every choice of one function for each axis. */
export const SCALES = functions.length ** 3;

/** What a unit takes of each side of a carton by every function: for each turn in which it fits, 3 × functions values. */
export type Shares = readonly Float64Array[];

export const sharesOf = (turns: readonly Sides[], inner: Sides): Shares =>
  turns
    .filter((turn) => turn.every((side, axis) => side <= inner[axis]!))
    .map((turn) => Float64Array.from(turn.flatMap((side, axis) => functions.map((f) => f(side, inner[axis]!)))));

/** How much of a carton a unit takes by the chosen functions, in the turn in which it takes least. */
export function shareBy(scale: number, shares: Shares): number {
  const n = functions.length;
  const [f, g, h] = [scale % n, n + (Math.floor(scale / n) % n), 2 * n + Math.floor(scale / n / n)];
  let least = Infinity;
  for (const of of shares) {
    const share = of[f]! * of[g]! * of[h]!;
    if (share < least) least = share;
  }
  return least;
}

/** Whether dual feasible volumes prove that goods do not fit one carton of a type. */
export function tooMuchByScales(goods: readonly Goods[], counts: readonly number[], type: CartonType): boolean {
  const there = counts.flatMap((n, k) => (n > 0 ? [{ n, shares: sharesOf(turnsOf(goods[k]!), type.inner) }] : []));
  for (let scale = 0; scale < SCALES; scale++) {
    let sum = 0;
    for (const { n, shares } of there) sum += n * shareBy(scale, shares);
    if (sum > 1 + 1e-9) return true;
  }
  return false;
}
