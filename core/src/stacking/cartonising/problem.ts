import { fitsAlone, volumeOf, type BoxKind, type Placed, type Sides } from '../boxes/index.ts';

/** A type of carton: inner sides in millimetres, weights in grams, cost of one in any unit of money. */
export interface CartonType {
  inner: Sides;
  tareG: number;
  /** Weight of the contents. */
  maxWeightG: number;
  cost: number;
}

/** Goods of one kind: as boxes, with the group that they must not leave. */
export interface Goods extends BoxKind {
  units: number;
  /** Goods of different groups never share a carton; null goes with all. */
  group: string | null;
}

export type Objective = 'cost' | 'cartons';

export interface CartonProblem {
  types: readonly CartonType[];
  goods: readonly Goods[];
  /** Least share of a unit's base that rests on something. */
  support: number;
  objective: Objective;
}

/** A carton with what lies in it; `kind` of a unit is its place in the list of goods. */
export interface PackedCarton {
  type: number;
  units: Placed[];
}

export interface Cartonised {
  cartons: PackedCarton[];
  /** Sum of what the cartons cost. */
  cost: number;
  /** What no packing can beat, in the measure of the objective. */
  lowerBound: number;
}

/** Goods of which a unit is too large or too heavy for every carton. */
export class FitsNoCarton extends Error {
  constructor(
    /** Its place in the list of goods. */
    readonly goods: number,
  ) {
    super(`Goods ${goods} fit no carton.`);
  }
}

export const isIn = (kind: Pick<Goods, 'size' | 'keepUpright' | 'weightG'>, type: CartonType): boolean =>
  kind.weightG <= type.maxWeightG && fitsAlone(kind, type.inner);

/** Sums over counted goods. */
export const volumeIn = (goods: readonly Goods[], counts: readonly number[]): number =>
  counts.reduce((sum, n, k) => (n > 0 ? sum + n * volumeOf(goods[k]!.size) : sum), 0);
export const weightIn = (goods: readonly Goods[], counts: readonly number[]): number =>
  counts.reduce((sum, n, k) => (n > 0 ? sum + n * goods[k]!.weightG : sum), 0);

/** The groups of which goods are counted, null left out. */
export const groupsIn = (goods: readonly Goods[], counts: readonly number[]): string[] => [
  ...new Set(counts.flatMap((n, k) => (n > 0 && goods[k]!.group !== null ? [goods[k]!.group] : []))),
];
