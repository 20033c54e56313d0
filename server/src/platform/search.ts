import type { RoutedRun, routeRun, RunStop } from '@hand-relay/core/walking/waves';

/** The walk of a run, to be searched; its stops named by their number, so that the same stops are the same question. */
export interface WalkAsked {
  problem: Parameters<typeof routeRun>[0];
  stops: RunStop[];
}

/** The walk, or the stop to which nobody can walk. */
export type WalkFound = { walk: RoutedRun<RunStop> } | { unreachable: string | null };
