import type { RunDetail } from '@hand-relay/contract';

/** A place where a run stops. */
export interface PlanStop {
  aisle: string;
  y: number;
  /** Its number in the walk, from 1. */
  number: number;
  done: boolean;
}

/** The stops of a run's picks in their order; picks one after another at one place are one stop. */
export function stopsOf(picks: readonly Pick<RunDetail['picks'][number], 'at' | 'state'>[]): PlanStop[] {
  const stops: PlanStop[] = [];
  for (const { at, state } of picks) {
    const last = stops.at(-1);
    const done = state !== 'open';
    if (last && last.aisle === at.aisle && last.y === at.y) last.done &&= done;
    else stops.push({ ...at, number: stops.length + 1, done });
  }
  return stops;
}
