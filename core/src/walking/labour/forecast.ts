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

/** Somebody who picks, and the team whose queue is theirs beside everybody's. */
export interface Hand {
  id: string;
  team: string;
}

/** A wave's work that is left, in the order in which it is taken; `people` where so many do it and nothing else. */
export interface WaveLeft {
  left: readonly (Left & { team?: string })[];
  people?: number | null;
}

/**
 * When work will be done that a crew shares run by run, those begun going on with whoever has them, the others taken in
 * the order given by who is free first.
 *
 * @param people how many pick, those with a run included
 * @param pace what work has taken so far beside what it should have: 1 as foreseen, 2 twice as long
 */
export function forecast(left: readonly Left[], people: number, pace = 1): Forecast {
  const named = new Set(left.flatMap((l) => l.person ?? []));
  const others = Array.from({ length: Math.max(0, people - named.size) }, (_, i) => ({ id: `\u0000${i}`, team: '' }));
  const work = left.map(({ seconds, person }) => ({ seconds, person }));
  return forecastInTurn([{ left: work }], others, pace)[0]!;
}

/**
 * When each of several waves will be done that one crew works off in turn: nobody begins with a wave while an earlier one
 * has a run left that they may take. A wave with people of its own is done by these, whoever is here.
 *
 * @param here who may take runs now; whoever has one goes on with it, here or not
 * @returns in the order given
 */
export function forecastInTurn(waves: readonly WaveLeft[], here: readonly Hand[], pace = 1): Forecast[] {
  const crew = new Map(here.map((h) => [h.id, { ...h, ends: 0, runs: [] as number[] }]));
  const shared = waves.map(({ people }) => people === null || people === undefined);
  const found = waves.map(() => ({ ends: 0, range: 0, stuck: false }));
  const give = (wave: number, hand: { ends: number; runs: number[] }, seconds: number) => {
    hand.ends += seconds * pace;
    hand.runs.push(seconds * pace);
    const own = found[wave]!;
    if (hand.ends < own.ends) return;
    own.ends = hand.ends;
    own.range = FOUR_OF_FIVE * Math.hypot(SPREAD * Math.hypot(...hand.runs), SHARED * hand.ends);
  };
  waves.forEach(({ left }, wave) => {
    if (!shared[wave]) return;
    for (const { seconds, person } of left) {
      if (!person) continue;
      const hand = crew.get(person) ?? { id: person, team: '', ends: 0, runs: [] };
      crew.set(person, hand);
      give(wave, hand, seconds);
    }
  });
  waves.forEach(({ left }, wave) => {
    if (!shared[wave]) return;
    for (const { seconds, person, team = '' } of left) {
      if (person) continue;
      const able = [...crew.values()].filter((h) => team === '' || h.team === team);
      if (able.length === 0) found[wave]!.stuck = true;
      else
        give(
          wave,
          able.reduce((a, b) => (b.ends < a.ends ? b : a)),
          seconds,
        );
    }
  });
  return waves.map(({ left, people }, wave) => {
    if (!shared[wave]) return forecast(left, people!, pace);
    const { ends, range, stuck } = found[wave]!;
    return stuck
      ? { ends: null, early: null, late: null }
      : { ends, early: Math.max(0, ends - range), late: ends + range };
  });
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
