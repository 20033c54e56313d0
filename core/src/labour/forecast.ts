/** Work that is left of a run: one person does all of it. */
export interface Left {
  /** Seconds by the standards. */
  seconds: number;
  /** Who has it already, where somebody does. */
  person?: string | null;
}

export interface Forecast {
  /** Seconds from now until all is done; null where nobody works. */
  ends: number | null;
  /** Between these it ends in four cases of five. */
  early: number | null;
  late: number | null;
}

/** How much runs differ from what the standards say, one from another, and all of them together (common practice, no source). */
const SPREAD = 0.25;
const SHARED = 0.06;
/** Four cases of five lie within so many standard deviations of the mean. */
const FOUR_OF_FIVE = 1.28;

/** Seconds of work as foreseen that weigh as much as what was seen: a few scans do not turn a forecast over. */
const PRIOR = 1200;
/** Slower or quicker than this nobody goes on; a pause or a run left lying must not count. */
const PACES = [0.5, 3] as const;

/**
 * What work takes beside what the standards say, learned from work that was done.
 *
 * @param done seconds that parts should have taken and did take
 * @returns 1 as foreseen, 2 twice as long
 */
export function paceOf(done: readonly { expected: number; actual: number }[]): number {
  let [expected, actual] = [PRIOR, PRIOR];
  for (const d of done) {
    expected += d.expected;
    actual += Math.min(d.expected * PACES[1], Math.max(d.expected * PACES[0], d.actual));
  }
  return actual / expected;
}

/**
 * When work will be done that a crew shares run by run, those begun going on with whoever has them, the others taken in
 * the order given by who is free first.
 *
 * @param people how many pick, those with a run included
 * @param pace what work has taken so far beside what it should have: 1 as foreseen, 2 twice as long
 */
export function forecast(left: readonly Left[], people: number, pace = 1): Forecast {
  const busy = new Map<string, { ends: number; runs: number[] }>();
  for (const { seconds, person } of left)
    if (person) {
      const own = busy.get(person) ?? { ends: 0, runs: [] };
      own.ends += seconds * pace;
      own.runs.push(seconds * pace);
      busy.set(person, own);
    }
  const crew = [...busy.values()];
  while (crew.length < people) crew.push({ ends: 0, runs: [] });
  const waiting = left.filter((l) => !l.person);
  if (left.length === 0) return { ends: 0, early: 0, late: 0 };
  if (crew.length === 0) return { ends: null, early: null, late: null };
  for (const { seconds } of waiting) {
    const next = crew.reduce((a, b) => (b.ends < a.ends ? b : a));
    next.ends += seconds * pace;
    next.runs.push(seconds * pace);
  }
  const last = crew.reduce((a, b) => (b.ends > a.ends ? b : a));
  const deviation = Math.hypot(SPREAD * Math.hypot(...last.runs), SHARED * last.ends);
  return {
    ends: last.ends,
    early: Math.max(0, last.ends - FOUR_OF_FIVE * deviation),
    late: last.ends + FOUR_OF_FIVE * deviation,
  };
}

/**
 * Seconds from now by which the last run of a departure must end: packing, staging and loading come after it.
 *
 * @param leavesAt milliseconds since the epoch
 * @param after seconds of packing that are done side by side, and of staging and loading
 */
export function dueIn(
  leavesAt: number,
  now: number,
  after: { packing: number; packers: number; loading: number },
): number {
  return (leavesAt - now) / 1000 - after.packing / Math.max(1, after.packers) - after.loading;
}

/** Whether work that ends so is in time: surely enough, perhaps, or not. */
export function chanceOf({ ends, late }: Pick<Forecast, 'ends' | 'late'>, due: number): 'made' | 'tight' | 'missed' {
  if (ends === null || ends > due) return 'missed';
  return late! <= due ? 'made' : 'tight';
}
