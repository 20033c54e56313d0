/** Work that must be done before a departure. */
export interface Due {
  /** Milliseconds since the epoch; null where nothing leaves at a time. */
  leavesAt: number | null;
  seconds: number;
}

/** `made` with a fifth of the time to spare, `tight` with less, `missed` without, `gone` when it has left. */
export type Chance = 'made' | 'tight' | 'missed' | 'gone';

/**
 * Whether departures can still be made, the earliest served first, by so many people working side by side.
 *
 * @param backlog seconds of work that comes before all of this
 * @param now milliseconds since the epoch
 * @returns in the order given, with the instant at which the work for each would end; no chance is told where nothing
 *   leaves at a time, and no end where nobody works
 */
export function chances(
  dues: Due[],
  people: number,
  backlog: number,
  now: number,
): { ends: number | null; chance: Chance | null }[] {
  const found = dues.map(() => ({ ends: null as number | null, chance: null as Chance | null }));
  let seconds = backlog;
  const order = dues.map((_, i) => i).sort((a, b) => (dues[a]!.leavesAt ?? Infinity) - (dues[b]!.leavesAt ?? Infinity));
  for (const i of order) {
    const { leavesAt, seconds: own } = dues[i]!;
    if (leavesAt !== null && leavesAt <= now) {
      found[i] = { ends: null, chance: 'gone' };
      continue;
    }
    seconds += own;
    const ends = people > 0 ? now + (seconds / people) * 1000 : null;
    const left = leavesAt === null ? null : leavesAt - now;
    const used = ends === null ? Infinity : ends - now;
    found[i] = { ends, chance: left === null ? null : used > left ? 'missed' : used > left * 0.8 ? 'tight' : 'made' };
  }
  return found;
}
