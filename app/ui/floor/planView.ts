import type { FloorPlan as Plan } from '@hand-relay/contract';

/** A part of the floor in its own metres; y grows upwards. */
export interface PlanView {
  left: number;
  bottom: number;
  width: number;
  height: number;
}

export type Point = readonly [x: number, y: number];

/** The whole floor with a margin for its signs. */
export function wholePlan(plan: Pick<Plan, 'aisles' | 'crossAisles' | 'places'>): PlanView {
  const xs = [...plan.aisles, ...plan.places].map((a) => a.x);
  const ys = plan.places.map((p) => p.y);
  const [left, right] = [Math.min(0, ...xs), Math.max(0, ...xs)];
  const low = Math.min(plan.crossAisles[0]!, ...ys);
  const high = Math.max(plan.crossAisles.at(-1)!, ...ys);
  return { left: left - 3, bottom: low - 2.6, width: right - left + 6, height: high - low + 5 };
}

/**
 * The part of the floor that a walk needs, with one more aisle at each side.
 *
 * @param points what must be seen, in metres
 */
export function planAround(plan: Pick<Plan, 'aisles' | 'crossAisles' | 'places'>, points: readonly Point[]): PlanView {
  if (points.length === 0) return wholePlan(plan);
  const aisles = plan.aisles.map((a) => a.x).sort((a, b) => a - b);
  const [least, most] = [Math.min(...points.map(([x]) => x)), Math.max(...points.map(([x]) => x))];
  const [low, high] = [Math.min(...points.map(([, y]) => y)), Math.max(...points.map(([, y]) => y))];
  const before = aisles.filter((x) => x < least - 0.01).at(-1) ?? least;
  const behind = aisles.find((x) => x > most + 0.01) ?? most;
  const [left, right] = [before - 2, behind + 2];
  return { left, bottom: low - 3, width: right - left, height: high - low + 6 };
}

/** Quarter turns of the plan: which way of the floor is up on the screen. */
export type Turn = 'north' | 'east' | 'south' | 'west';

/** Where a point of the floor is drawn, both in metres, the second growing downwards as a screen's does. */
export const turnedTo: Record<Turn, (x: number, y: number) => [u: number, v: number]> = {
  north: (x, y) => [x, -y],
  east: (x, y) => [-y, -x],
  south: (x, y) => [-x, y],
  west: (x, y) => [y, x],
};

/** The same as a matrix of SVG, for what is drawn in the floor's own metres. */
export const turnMatrix: Record<Turn, string> = {
  north: 'matrix(1 0 0 -1 0 0)',
  east: 'matrix(0 -1 -1 0 0 0)',
  south: 'matrix(-1 0 0 1 0 0)',
  west: 'matrix(0 1 1 0 0 0)',
};

/** The box of a view as it is drawn: its least corner and its size. */
export function boxOf(view: PlanView, turn: Turn): { u: number; v: number; width: number; height: number } {
  const corners = [
    turnedTo[turn](view.left, view.bottom),
    turnedTo[turn](view.left + view.width, view.bottom + view.height),
  ];
  const [u, v] = [Math.min(...corners.map((c) => c[0])), Math.min(...corners.map((c) => c[1]))];
  const sideways = turn === 'east' || turn === 'west';
  return {
    u,
    v,
    width: sideways ? view.height : view.width,
    height: sideways ? view.width : view.height,
  };
}

/** How many metres a walker looks ahead to know which way is ahead. */
const AHEAD = 3;

/** The turn that has what lies ahead on a walk above: by its next metres. */
export function aheadUp(ahead: readonly Point[]): Turn {
  const [from] = ahead;
  if (!from) return 'north';
  const to = ahead.find(([x, y]) => Math.abs(x - from[0]) + Math.abs(y - from[1]) >= AHEAD) ?? ahead.at(-1)!;
  const [dx, dy] = [to[0] - from[0], to[1] - from[1]];
  if (Math.abs(dx) > Math.abs(dy)) return dx > 0 ? 'east' : 'west';
  return dy < 0 ? 'south' : 'north';
}
