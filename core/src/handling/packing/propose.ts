import { FEW_PIECES, fitFew } from './fitFew.ts';

/** A carton type: inner sizes in millimetres, weights in grams. */
export interface CartonType {
  code: string;
  inner: [number, number, number];
  tareG: number;
  maxWeightG: number;
}

export interface LooseGoods {
  size: [number, number, number];
  weightG: number;
  units: number;
}

/** The share of a carton that loose goods can be expected to fill before they are arranged. */
const USABLE = 0.8;

/**
 * The smallest carton type that takes all goods: exactly where they are up to three pieces, by volume, weight and their
 * three largest pieces where they are more; the largest that takes the biggest single piece where one carton cannot hold
 * all; undefined when a piece fits none.
 */
export function proposeCarton(types: CartonType[], goods: LooseGoods[]): CartonType | undefined {
  if (goods.length === 0) return undefined;
  const volume = (s: readonly number[]) => s[0]! * s[1]! * s[2]!;
  const takesPiece = (type: CartonType) =>
    goods.every((g) => g.weightG <= type.maxWeightG && fitFew(type.inner, [g.size]));
  const usable = types.filter(takesPiece).sort((a, b) => volume(a.inner) - volume(b.inner));
  const allVolume = goods.reduce((n, g) => n + volume(g.size) * g.units, 0);
  const allWeight = goods.reduce((n, g) => n + g.weightG * g.units, 0);
  const count = goods.reduce((n, g) => n + g.units, 0);
  const largest = [...goods]
    .sort((a, b) => volume(b.size) - volume(a.size))
    .flatMap((g) => Array.from({ length: Math.min(g.units, FEW_PIECES) }, () => g.size))
    .slice(0, FEW_PIECES);
  return (
    usable.find(
      (t) =>
        allWeight <= t.maxWeightG &&
        (count <= FEW_PIECES || allVolume <= volume(t.inner) * USABLE) &&
        fitFew(t.inner, largest),
    ) ?? usable.at(-1)
  );
}

/**
 * Cartons that orders will need, roughly: each order by itself, in the largest carton, by volume and weight.
 *
 * @param orders volume in cm³ and weight in grams of each
 */
export function cartonsRoughly(
  types: { volumeCm3: number; maxWeightG: number }[],
  orders: { volumeCm3: number; weightG: number }[],
): number {
  if (types.length === 0) return 0;
  const volume = Math.max(...types.map((t) => t.volumeCm3)) * USABLE;
  const weight = Math.max(...types.map((t) => t.maxWeightG));
  return orders.reduce((n, o) => n + Math.max(1, Math.ceil(o.volumeCm3 / volume), Math.ceil(o.weightG / weight)), 0);
}
