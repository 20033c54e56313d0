/** A movement that a confirmation made, and what is left of it where it led to. */
export interface Confirmed {
  to: string;
  units: number;
  /** Units of it in the place that it led to. */
  there: number;
}

/**
 * Which movements of a confirmed pick can go back. Part of what was picked may be on its way back already, by a trip of
 * its own, or lie in a carton; what was only written off as missing goes back whole.
 *
 * @param made the movements of the confirmation
 * @param picked units that are to go back
 * @param discrepancy the place where missing units are booked
 * @returns movements with the units of each that go back, none of them empty, and the units that are not there any more
 */
export function goesBack<T extends Confirmed>(
  made: readonly T[],
  picked: number,
  discrepancy: string,
): { back: T[]; gone: number } {
  let left = picked;
  const back = made.map((m) => {
    if (m.to === discrepancy) return m;
    const units = Math.min(m.units, m.there, left);
    left -= units;
    return { ...m, units };
  });
  return { back: back.filter((m) => m.units > 0), gone: left };
}
