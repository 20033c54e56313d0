/** How far the work on a promise is: gathered in a wave, or in a run that is planned, waits, or is being picked. */
export const workStates = ['gathering', 'planned', 'waiting', 'picking'] as const;

/** Units of a line that are released and that nobody has picked. */
export interface Unpicked {
  line: string;
  state: (typeof workStates)[number];
  /** The wave's running number and the place in the run, to take the latest first. */
  wave: number;
  sequence: number;
  units: number;
}

/**
 * From where units go back to Desk: what has cost the least work first (a wave that gathers, then runs by how far they
 * are), and within that the latest wave and the last stops.
 *
 * @param wanted units to take back, by line
 * @param begun whether runs that a picker has begun may lose stops too
 * @returns what is taken from each; less than wanted where so much is not unpicked
 */
export function unrelease<T extends Unpicked>(
  wanted: ReadonlyMap<string, number>,
  unpicked: readonly T[],
  { begun }: { begun: boolean },
): { from: T; units: number }[] {
  const rank = (u: T) => workStates.indexOf(u.state);
  const order = [...unpicked].sort((a, b) => rank(a) - rank(b) || b.wave - a.wave || b.sequence - a.sequence);
  const rest = new Map(wanted);
  const taken: { from: T; units: number }[] = [];
  for (const from of order) {
    if (from.state === 'picking' && !begun) continue;
    const units = Math.min(rest.get(from.line) ?? 0, from.units);
    if (units <= 0) continue;
    rest.set(from.line, rest.get(from.line)! - units);
    taken.push({ from, units });
  }
  return taken;
}
