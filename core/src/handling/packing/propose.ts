import { arrange, FEW, fitsAlone, type BoxKind, type Sides } from '../../stacking/boxes/index.ts';

/** A carton type: inner sizes in millimetres, weights in grams. */
export interface CartonType {
  code: string;
  inner: Sides;
  tareG: number;
  maxWeightG: number;
}

export interface LooseGoods {
  size: Sides;
  weightG: number;
  units: number;
}

/** Steps of looking at every arrangement, after which the volume decides. */
const STEPS = 2_000;

/** The share of a carton that loose goods can be expected to fill before they are arranged. */
const USABLE = 0.8;

/**
 * The smallest carton type that takes all goods: exactly where they are few pieces, by volume, weight and their largest
 * pieces where they are more; the largest that takes the biggest single piece where one carton cannot hold all; undefined
 * when a piece fits none. For what is asked in passing: `planCartons` finds where each unit lies.
 */
export function proposeCarton(types: CartonType[], goods: LooseGoods[]): CartonType | undefined {
  if (goods.length === 0) return undefined;
  const volume = (s: readonly number[]) => s[0]! * s[1]! * s[2]!;
  const takesPiece = (type: CartonType) =>
    goods.every((g) => g.weightG <= type.maxWeightG && fitsAlone({ size: g.size, keepUpright: false }, type.inner));
  const usable = types.filter(takesPiece).sort((a, b) => volume(a.inner) - volume(b.inner));
  const allVolume = goods.reduce((n, g) => n + volume(g.size) * g.units, 0);
  const allWeight = goods.reduce((n, g) => n + g.weightG * g.units, 0);
  const count = goods.reduce((n, g) => n + g.units, 0);
  const largest = [...goods]
    .sort((a, b) => volume(b.size) - volume(a.size))
    .flatMap((g) => Array.from({ length: Math.min(g.units, FEW) }, () => pieceOf(g)))
    .slice(0, FEW);
  const takes = (t: CartonType) => {
    if (allWeight > t.maxWeightG) return false;
    const { room } = arrange(t.inner, largest, [...largest.keys()], STEPS);
    return room !== false && ((room && count <= FEW) || allVolume <= volume(t.inner) * USABLE);
  };
  return usable.find(takes) ?? usable.at(-1);
}

const pieceOf = ({ size, weightG }: LooseGoods): BoxKind => ({
  size,
  weightG,
  keepUpright: false,
  maxLoadOnTopG: null,
  stop: Infinity,
});

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
