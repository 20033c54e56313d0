export { openSolver } from './highs.ts';
export type { Effort, Program, Solved, Solver } from './solver.ts';
