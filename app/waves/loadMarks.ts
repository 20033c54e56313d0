import type { LoadSummary, WaveSummary } from '@hand-relay/contract';
import { chanceOf } from '@hand-relay/core/walking/labour';
import type { LaneMarks } from './Lane.tsx';

/**
 * When the waves that pick for a load should be done, with the latest range, against its departure. A load of which
 * something is not planned yet is not foreseen: an end would promise too much.
 */
export function loadMarks(load: LoadSummary, waves: readonly WaveSummary[], now: number): LaneMarks {
  const leaves = load.leavesAt ? Date.parse(load.leavesAt) : null;
  const none: LaneMarks = { ends: null, early: null, late: null, leaves, chance: null };
  const own = waves.filter((w) => load.waves.includes(w.id) && w.forecast && w.forecast.left > 0);
  if (own.length === 0 || load.released < load.units || own.some((w) => w.forecast!.ends === null)) return none;
  const last = (of: 'ends' | 'early' | 'late') => Math.max(...own.map((w) => Date.parse(w.forecast![of]!)));
  const [ends, early, late] = [last('ends'), last('early'), last('late')];
  // Packing, staging and loading come after the picking, as long as the waves themselves count for it.
  const after = Math.max(
    0,
    ...own.map((w) => (w.earliestDeparture && w.doneBy ? Date.parse(w.earliestDeparture) - Date.parse(w.doneBy) : 0)),
  );
  const seconds = (at: number) => (at - now) / 1000;
  return {
    ends,
    early,
    late,
    leaves,
    chance: leaves === null ? null : chanceOf({ ends: seconds(ends), late: seconds(late) }, seconds(leaves - after)),
  };
}
