import type { Solver } from '../solver/index.ts';

/** What a verb needs from outside. */
export interface PlannerTools {
  solver: Solver;
  /** Milliseconds, of any beginning. */
  now: () => number;
}
