import type { Point } from './planView.ts';

/** How far a stop may be from the line of the walk, in metres, and still be on it. */
const NEAR = 0.3;

/**
 * A walk cut where the walker is: at the last stop that is done.
 *
 * @param path the corners of the walk, in metres
 * @param done the places of the stops up to the last that is done, in the order of the walk
 * @returns the part behind and the part ahead; they share the point between
 */
export function cutWalk(path: readonly Point[], done: readonly Point[]): { behind: Point[]; ahead: Point[] } {
  let [leg, share] = [0, 0];
  for (const stop of done) {
    const found = firstOn(path, stop, leg, share);
    if (found) [leg, share] = found;
  }
  const from = path[leg];
  const to = path[leg + 1];
  if (!from || !to || (leg === 0 && share === 0)) return { behind: [], ahead: [...path] };
  const here: Point = [from[0] + (to[0] - from[0]) * share, from[1] + (to[1] - from[1]) * share];
  return { behind: [...path.slice(0, leg + 1), here], ahead: [here, ...path.slice(leg + 1)] };
}

/** The first place on a walk, not before a given one, that a stop lies at: its leg, and the share of it behind. */
function firstOn(path: readonly Point[], [x, y]: Point, leg: number, share: number): [number, number] | null {
  for (let i = leg; i + 1 < path.length; i++) {
    const [a, b] = [path[i]!, path[i + 1]!];
    const [dx, dy] = [b[0] - a[0], b[1] - a[1]];
    const long = dx * dx + dy * dy;
    const at = long === 0 ? 0 : Math.min(1, Math.max(0, ((x - a[0]) * dx + (y - a[1]) * dy) / long));
    if (i === leg && at < share - 1e-9) continue;
    if (Math.hypot(a[0] + dx * at - x, a[1] + dy * at - y) <= NEAR) return [i, at];
  }
  return null;
}
