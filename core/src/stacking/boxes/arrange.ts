import { turnsOf, volumeOf, type BoxKind, type Placed, type Sides } from './box.ts';

/** Boxes of which every arrangement can be looked at. */
export const FEW = 7;

export type Arranged =
  /** There is room, geometrically: nothing is said of support or load. */
  | { room: true; units: Placed[] }
  | { room: false }
  /** Not known after so many steps. */
  | { room: null };

/**
 * Whether up to seven boxes find room beside and on each other. Exact unless it ends early: two boxes that do not overlap
 * lie apart along some axis, so that every arrangement is a choice of a turn for each and of an axis and a direction for
 * each pair; each choice pushes what comes after it along (as in Fekete and Schepers's packing classes, 2007).
 */
export function arrange(inner: Sides, kinds: readonly BoxKind[], boxes: readonly number[], steps: number): Arranged {
  const order = [...boxes].sort((a, b) => volumeOf(kinds[b]!.size) - volumeOf(kinds[a]!.size));
  const turns = order.map((k) => turnsOf(kinds[k]!).filter((t) => t.every((side, axis) => side <= inner[axis]!)));
  if (turns.some((t) => t.length === 0)) return { room: false };
  let left = steps;
  const chosen: Sides[] = [];
  /** By axis: which box comes directly or indirectly before which, and where each begins at least. */
  type Axis = { after: number[][]; from: number[] };

  /** Has box b begin behind box a; null where it would leave the room. */
  const behind = ({ after, from }: Axis, axis: number, a: number, b: number): Axis | null => {
    const next: Axis = { after: after.map((list) => [...list]), from: [...from] };
    next.after[a]!.push(b);
    const queue = [a];
    for (const at of queue)
      for (const to of next.after[at]!) {
        const least = next.from[at]! + chosen[at]![axis]!;
        if (next.from[to]! >= least) continue;
        if (least + chosen[to]![axis]! > inner[axis]! + 1e-9) return null;
        next.from[to] = least;
        // A circle pushes itself on without end, and leaves the room.
        queue.push(to);
      }
    return next;
  };

  const pair = (i: number, j: number, axes: readonly Axis[]): readonly Axis[] | null => {
    if (j === i) return box(i + 1, axes);
    for (const axis of [2, 0, 1]) {
      const length = chosen[i]![axis]! + chosen[j]![axis]!;
      if (length > inner[axis]! + 1e-9) continue;
      for (const [a, b] of [
        [j, i],
        [i, j],
      ] as const) {
        // By symmetry the second box lies behind the first.
        if (i === 1 && a === 1) continue;
        if (--left < 0) return null;
        const own = behind(axes[axis]!, axis, a, b);
        const found =
          own &&
          pair(
            i,
            j + 1,
            axes.map((other, k) => (k === axis ? own : other)),
          );
        if (found) return found;
        if (left < 0) return null;
      }
    }
    return null;
  };

  const box = (i: number, axes: readonly Axis[]): readonly Axis[] | null => {
    if (i === order.length) return axes;
    for (const turn of turns[i]!) {
      chosen[i] = turn;
      const found = pair(
        i,
        0,
        axes.map(({ after, from }) => ({ after: [...after, []], from: [...from, 0] })),
      );
      if (found) return found;
      if (left < 0) return null;
    }
    return null;
  };

  const axes = box(
    0,
    [0, 1, 2].map(() => ({ after: [], from: [] })),
  );
  if (!axes) return left < 0 ? { room: null } : { room: false };
  const units = order.map((kind, i): Placed => ({
    kind,
    at: [axes[0]!.from[i]!, axes[1]!.from[i]!, axes[2]!.from[i]!],
    size: chosen[i]!,
  }));
  return { room: true, units: units.sort((a, b) => a.at[2] - b.at[2]) };
}
