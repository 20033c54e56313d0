/** Length, width and height of a box, or a place in a room, in millimetres; the third is vertical. */
export type Sides = readonly [number, number, number];

/** Units of one kind: all alike in everything that matters for packing. */
export interface BoxKind {
  size: Sides;
  /** Weight of one unit, grams. */
  weightG: number;
  /** The third side stays vertical. */
  keepUpright: boolean;
  /** Weight that may rest on a unit, grams; null where any may. */
  maxLoadOnTopG: number | null;
  /** Delivery stop: lower ones are unloaded earlier. Goods of one stop, or of none, have the same. */
  stop: number;
}

/** A carton, or the space over a pallet. */
export interface Room {
  inner: Sides;
  /** Weight of all contents, grams; Infinity where any is allowed. */
  maxWeightG: number;
  /** Least share of a unit's base that must rest on the floor or on tops at exactly that height; 0 lets it float. */
  support: number;
}

/** A unit that has been set down: its kind, its corner nearest to the origin, and its sides along the axes. */
export interface Placed {
  kind: number;
  at: Sides;
  size: Sides;
}

export const volumeOf = ([l, w, h]: Sides): number => l * w * h;

const TURNS = [
  [0, 1, 2],
  [1, 0, 2],
  [0, 2, 1],
  [2, 0, 1],
  [1, 2, 0],
  [2, 1, 0],
] as const;

/** Every way in which a box can be turned, upright ones first; one for each different outcome. */
export function turnsOf({ size, keepUpright }: Pick<BoxKind, 'size' | 'keepUpright'>): Sides[] {
  const turns = new Map<string, Sides>();
  for (const [a, b, c] of keepUpright ? TURNS.slice(0, 2) : TURNS) {
    const sides = [size[a], size[b], size[c]] as const;
    turns.set(sides.join(), sides);
  }
  return [...turns.values()];
}

/** Whether a box finds room in some turn. */
export function fitsAlone({ size, keepUpright }: Pick<BoxKind, 'size' | 'keepUpright'>, inner: Sides): boolean {
  const [length, width] = size[0] < size[1] ? [size[1], size[0]] : [size[0], size[1]];
  const [long, wide] = inner[0] < inner[1] ? [inner[1], inner[0]] : [inner[0], inner[1]];
  if (size[2] <= inner[2] && length <= long && width <= wide) return true;
  if (keepUpright) return false;
  const [a, b, c] = [...size].sort((p, q) => p - q) as [number, number, number];
  const [x, y, z] = [...inner].sort((p, q) => p - q) as [number, number, number];
  return a <= x && b <= y && c <= z;
}
