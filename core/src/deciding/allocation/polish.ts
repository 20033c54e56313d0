import type { Effort, Solver } from '../../solver/index.ts';
import { fitsIn, type Packing } from './packing.ts';

/** Things among which is chosen anew at most: so many the solver looks through in a second or two. */
const CORE = 300;

/**
 * Chooses anew, by branch and cut, among the things about which the prices of the limits say least (the core of Balas
 * and Zemel, 1980); those that are clearly worth their needs, or clearly not, stay as they are.
 *
 * @param chosen things taken, within all limits
 * @param worth of each thing beyond the price of what it needs
 * @returns as many things or more, within all limits
 */
export function polish(
  packing: Packing,
  chosen: readonly number[],
  worth: Float64Array,
  solver: Solver,
  effort: Effort,
): readonly number[] {
  const taken = new Set(chosen);
  // Where choice and prices disagree one of them is wrong.
  const doubt = (thing: number) => (taken.has(thing) === worth[thing]! > 0 ? Math.abs(worth[thing]!) : 0);
  const core = Array.from(worth, (_, thing) => thing)
    .sort((a, b) => doubt(a) - doubt(b))
    .slice(0, CORE);
  const at = new Map(core.map((thing, variable) => [thing, variable]));
  const rows = packing.limits.map(({ units, needs }) => ({
    limit: needs.reduce((n, { thing, units }) => (taken.has(thing) && !at.has(thing) ? n - units : n), units),
    terms: needs.flatMap(({ thing, units }) => (at.has(thing) ? [{ variable: at.get(thing)!, factor: units }] : [])),
  }));
  const ones = core.map(() => 1);
  const { x } = solver(
    {
      gain: ones,
      top: ones,
      whole: ones.map(() => true),
      rows: rows.filter(({ limit, terms }) => terms.reduce((n, t) => n + t.factor, 0) > limit),
      start: core.map((thing) => (taken.has(thing) ? 1 : 0)),
    },
    effort,
  );
  if (!x) return chosen;
  const found = [...chosen.filter((thing) => !at.has(thing)), ...core.filter((_, variable) => x[variable]! > 0.5)];
  // The solver works in floating point: what it says is held against the whole numbers.
  return found.length > chosen.length && fitsIn(packing, found) ? found : chosen;
}
