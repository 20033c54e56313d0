import type { Sides } from './box.ts';

/** A free space: its corner nearest to the origin, and the one farthest from it. */
export interface Space {
  readonly from: Sides;
  readonly to: Sides;
}

/**
 * The maximal free spaces of a room after a block was set down in it (Lai and Chan 1997): each that the block cuts into
 * gives up to six, and those that lie within another go.
 */
export function cutSpaces(spaces: readonly Space[], at: Sides, size: Sides): Space[] {
  const kept: Space[] = [];
  const made: Space[] = [];
  const end: Sides = [at[0] + size[0], at[1] + size[1], at[2] + size[2]];
  for (const space of spaces) {
    const { from, to } = space;
    if (
      end[0] <= from[0] ||
      at[0] >= to[0] ||
      end[1] <= from[1] ||
      at[1] >= to[1] ||
      end[2] <= from[2] ||
      at[2] >= to[2]
    ) {
      kept.push(space);
      continue;
    }
    if (at[0] > from[0]) made.push({ from, to: [at[0], to[1], to[2]] });
    if (end[0] < to[0]) made.push({ from: [end[0], from[1], from[2]], to });
    if (at[1] > from[1]) made.push({ from, to: [to[0], at[1], to[2]] });
    if (end[1] < to[1]) made.push({ from: [from[0], end[1], from[2]], to });
    if (at[2] > from[2]) made.push({ from, to: [to[0], to[1], at[2]] });
    if (end[2] < to[2]) made.push({ from: [from[0], from[1], end[2]], to });
  }
  // What was maximal before lies within nothing new: only new spaces can lie within others.
  const biggest = made.filter(
    (one, i) =>
      !kept.some((other) => within(one, other)) &&
      !made.some((other, j) => j !== i && within(one, other) && (j < i || !within(other, one))),
  );
  return [...kept, ...biggest];
}

const within = (a: Space, b: Space): boolean =>
  a.from[0] >= b.from[0] &&
  a.to[0] <= b.to[0] &&
  a.from[1] >= b.from[1] &&
  a.to[1] <= b.to[1] &&
  a.from[2] >= b.from[2] &&
  a.to[2] <= b.to[2];
