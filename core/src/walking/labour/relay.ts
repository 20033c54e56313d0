import type { Forecast } from './forecast.ts';

/** What is left to do before a departure, leg by leg. Instants are milliseconds since the epoch, the rest seconds. */
export interface RelayWork {
  now: number;
  leavesAt: number;
  /** Picking of what is not released yet, for one person. */
  waiting: number;
  /** When what is released should be picked, seconds from now; null where nothing of it is left. */
  floor: Forecast | null;
  /** Packing, for one person. */
  packing: number;
  /** Staging and loading. */
  loading: number;
  pickers: number;
  packers: number;
}

export type RelayLeg = 'desk' | 'floor' | 'bench' | 'dock';

export interface Relay {
  /** The legs with work left, laid end to end from now; none where nobody is there to do one of them. */
  stretches: { leg: RelayLeg; from: number; to: number }[];
  /** When the last of them ends; null where nobody is there to do one of them. */
  ends: number | null;
  /** By when all must be picked: packing and loading come after it. */
  latestPick: number;
  /** Seconds between the end and the departure, negative where it is missed; null without an end. */
  spare: number | null;
  /** Nothing left to do, or whether the departure is made: surely enough, perhaps, or not. */
  chance: 'done' | 'made' | 'tight' | 'missed';
}

/**
 * The way that is left to a departure, as a relay of four legs of which each begins where the one before ends. That is
 * the longest it takes: legs that are worked side by side end sooner.
 */
export function relayOf(work: RelayWork): Relay {
  const { now, leavesAt, floor } = work;
  const nobody = [
    work.waiting > 0 && work.pickers === 0,
    floor !== null && floor.ends === null,
    work.packing > 0 && work.packers === 0,
  ].some(Boolean);
  const bench = work.packing / Math.max(1, work.packers);
  const seconds: [RelayLeg, number][] = [
    ['desk', work.waiting / Math.max(1, work.pickers)],
    ['floor', floor?.ends ?? 0],
    ['bench', bench],
    ['dock', work.loading],
  ];
  const stretches: Relay['stretches'] = [];
  let at = now;
  for (const [leg, length] of seconds)
    if (length > 0) {
      stretches.push({ leg, from: at, to: at + 1000 * length });
      at += 1000 * length;
    }
  const latestPick = leavesAt - 1000 * (bench + work.loading);
  if (nobody) return { stretches: [], ends: null, latestPick, spare: null, chance: 'missed' };
  if (stretches.length === 0) return { stretches, ends: now, latestPick, spare: null, chance: 'done' };
  const spare = (leavesAt - at) / 1000;
  const range = floor?.late ? floor.late - floor.ends! : 0;
  return { stretches, ends: at, latestPick, spare, chance: spare < 0 ? 'missed' : spare < range ? 'tight' : 'made' };
}
