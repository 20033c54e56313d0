import type { TrackDeparture, WaveSummary } from '@hand-relay/contract';
import { relayOf, type Forecast, type Relay } from '@hand-relay/core/walking/labour';

/**
 * The relay of a departure: its own work, with the picking of its waves as they are foreseen. A wave that goes with
 * several departures counts for each of them whole, as its last run may be that of any.
 */
export function relayOfDeparture(
  departure: TrackDeparture,
  { waves, now, pickers, packers }: { waves: readonly WaveSummary[]; now: number; pickers: number; packers: number },
): Relay {
  const seconds = (instant: string) => Math.max(1, (Date.parse(instant) - now) / 1000);
  const floors = departure.waves.flatMap(({ id }): Forecast[] => {
    const seen = waves.find((w) => w.id === id)?.forecast;
    if (!seen || seen.left === 0) return [];
    return seen.ends === null
      ? [{ ends: null, early: null, late: null }]
      : [{ ends: seconds(seen.ends), early: seconds(seen.early!), late: seconds(seen.late!) }];
  });
  const floor = floors.some((f) => f.ends === null)
    ? { ends: null, early: null, late: null }
    : floors.reduce<Forecast | null>((last, f) => (last && last.ends! >= f.ends! ? last : f), null);
  return relayOf({
    now,
    leavesAt: Date.parse(departure.leavesAt),
    waiting: departure.waiting.seconds,
    floor,
    packing: departure.packing,
    loading: departure.loading,
    pickers,
    packers,
  });
}
