import type { Network, Place, Point } from '../floor/index.ts';
import type { Edge } from './sweep.ts';

/** A place of the grid. */
export interface Spot {
  column: number;
  y: number;
}

interface Link {
  to: string;
  left: { times: number };
}

/**
 * A walk along every edge as often as it says, from start to finish (Hierholzer 1873). The edges hang together and as
 * many meet everywhere as a walk needs.
 *
 * @returns the places passed, both ends included
 */
export function trace(edges: readonly Edge[], start: Spot): Spot[] {
  const key = (p: Spot) => `${p.column} ${p.y}`;
  const placeOf = new Map([[key(start), start]]);
  const links = new Map<string, Link[]>();
  const join = (from: string, link: Link) => {
    const list = links.get(from);
    if (list) list.push(link);
    else links.set(from, [link]);
  };
  for (const { from, to, times } of edges) {
    const [a, b] = [key(from), key(to)];
    placeOf.set(a, from).set(b, to);
    const left = { times };
    join(a, { to: b, left });
    join(b, { to: a, left });
  }
  const stack = [key(start)];
  const passed: string[] = [];
  while (stack.length > 0) {
    const at = stack.at(-1)!;
    const open = links.get(at) ?? [];
    while (open.length > 0 && open.at(-1)!.left.times === 0) open.pop();
    const link = open.at(-1);
    if (link) {
      link.left.times -= 1;
      stack.push(link.to);
    } else passed.push(stack.pop()!);
  }
  return passed.reverse().map((k) => placeOf.get(k)!);
}

/** Corners of a walk along places that each lie straight beside the one before. */
export function cornersOf(points: readonly Point[]): Point[] {
  const corners: Point[] = [];
  for (const p of points) {
    const [b, a] = [corners.at(-1), corners.at(-2)];
    if (b && b[0] === p[0] && b[1] === p[1]) continue;
    const straight =
      a &&
      b &&
      ((a[0] === b[0] && b[0] === p[0] && (b[1] - a[1]) * (p[1] - b[1]) > 0) ||
        (a[1] === b[1] && b[1] === p[1] && (b[0] - a[0]) * (p[0] - b[0]) > 0));
    if (straight) corners.pop();
    corners.push(p);
  }
  return corners;
}

/** Length of a walk drawn by its corners. */
export const alongCorners = (corners: readonly Point[]): number =>
  corners.reduce(
    (n, p, i) => (i === 0 ? 0 : n + Math.abs(p[0] - corners[i - 1]![0]) + Math.abs(p[1] - corners[i - 1]![1])),
    0,
  );

/** A place as the network's grid has it. */
export function spotOf({ columnOf }: Network, { aisle, y }: Place): Spot {
  return { column: columnOf.get(aisle)!, y };
}
