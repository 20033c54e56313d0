/** A mixed-integer program: maximise `gain · x` with every row's sum at most its limit and every x from 0 to its top. */
export interface Program {
  gain: number[];
  top: number[];
  /** Whether the variable must be whole. */
  whole: boolean[];
  rows: { limit: number; terms: { variable: number; factor: number }[] }[];
  /** A solution to begin from, where one is known. */
  start?: number[];
}

export interface Effort {
  /** Ends the search when used up. */
  seconds: number;
  /** Branches looked at most: the same on every machine. */
  nodes: number;
  seed: number;
  /** Share of the seconds that is spent, for searches that look at it; without it steps alone end them. */
  spent?: () => number;
}

export interface Solved {
  /** The best solution found, null where none was. */
  x: number[] | null;
  /** No solution gains more. */
  bound: number;
  proven: boolean;
}

/** Anything that solves mixed-integer programs. */
export type Solver = (program: Program, effort: Effort) => Solved;
