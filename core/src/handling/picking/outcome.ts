import { restOf, type PickProgress, type PickStep } from './step.ts';

/** What a confirmed pick came to. */
export interface PickOutcome {
  /** `out`: nothing was taken here, all of it is asked in another bin or goes into another carton. */
  state: 'done' | 'short' | 'out';
  /** Units in hand. */
  picked: number;
  /** Units that were asked and are neither in hand nor asked elsewhere. */
  missing: number;
  /** Units that the pick keeps: those of the rest are asked by a pick of their own. At least one, as a pick asks something. */
  keeps: number;
  /** The pick of the rest; null where there is none. */
  rest: PickStep | null;
}

/**
 * What a pick comes to when it is confirmed; device and server find the same.
 *
 * @param units base units in hand
 */
export function outcomeOf(step: PickStep, progress: PickProgress, units: number): PickOutcome {
  const rest = restOf(step, progress);
  const missing = step.units - units - (rest?.units ?? 0);
  return {
    state: missing > 0 ? 'short' : rest && units === 0 ? 'out' : 'done',
    picked: units,
    missing,
    keeps: rest ? Math.max(units + missing, 1) : step.units,
    rest,
  };
}

/**
 * Whether a pick should leave so little in its bin that it is worth a look.
 *
 * @param remains units that should be left
 * @param limit the site's limit; negative where it does not ask
 * @param outcome what the pick came to: where something was missing, the bin is counted anyway
 */
export function leavesNearlyNothing(remains: number, limit: number, { missing, rest }: PickOutcome): boolean {
  return missing === 0 && !rest && remains <= limit;
}
