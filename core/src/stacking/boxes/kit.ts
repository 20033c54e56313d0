import { blocksFor, type Block } from './blocks.ts';
import type { BoxKind, Sides } from './box.ts';
import { Stack } from './stack.ts';

/** What rooms are filled with, prepared once for all rooms of one question. */
export interface Kit {
  kinds: readonly BoxKind[];
  blocks: readonly Block[];
  /** For each axis of a room, by whole millimetres, the longest sum of sides that a length can hold. */
  usable: (inner: Sides) => (Uint32Array | undefined)[];
}

/**
 * @param inner the greatest length, width and height of the rooms
 * @param counts units of each kind at most
 * @param most blocks that are made at most; more of them are slower and better
 * @param support share of a base that must rest on something; blocks that do not stand by themselves are left out
 * @param extra blocks that are made elsewhere: layers of a known pattern
 */
export function kitFor(
  kinds: readonly BoxKind[],
  inner: Sides,
  counts: readonly number[],
  most: number,
  support: number,
  extra: readonly Block[] = [],
): Kit {
  const known = new Map<string, (Uint32Array | undefined)[]>();
  return {
    kinds,
    blocks: [...extra, ...blocksFor(kinds, inner, counts, most)].filter((block) =>
      new Stack({ inner, maxWeightG: Infinity, support }, kinds).add(block.units),
    ),
    usable: (room) => {
      const key = room.join();
      const lengths = known.get(key) ?? usableLengths(room, kinds);
      known.set(key, lengths);
      return lengths;
    },
  };
}

/**
 * The longest sum of sides that a length can hold, for every whole millimetre: what is beyond it can never be filled.
 * Undefined for an axis whose lengths are not whole, or very long.
 */
function usableLengths(inner: Sides, kinds: readonly BoxKind[]): (Uint32Array | undefined)[] {
  return ([0, 1, 2] as const).map((axis) => {
    const length = inner[axis];
    if (!Number.isInteger(length) || length > 40_000) return undefined;
    const reached = new Uint8Array(length + 1);
    reached[0] = 1;
    for (const { size, keepUpright } of kinds) {
      const sides = new Set(keepUpright ? (axis === 2 ? [size[2]] : [size[0], size[1]]) : size);
      for (const side of sides) {
        if (!Number.isInteger(side) || side < 1) return undefined;
        for (let l = side; l <= length; l++) if (reached[l - side]) reached[l] = 1;
      }
    }
    const usable = new Uint32Array(length + 1);
    for (let l = 1; l <= length; l++) usable[l] = reached[l] ? l : usable[l - 1]!;
    return usable;
  });
}
