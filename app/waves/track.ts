/** The stretch of time that a track shows, in milliseconds since the epoch. */
export interface Axis {
  from: number;
  to: number;
  /** Instants that get a line and a time. */
  ticks: number[];
}

const MINUTE = 60_000;
const STEPS = [15, 30, 60, 120, 240].map((m) => m * MINUTE);
const MOST_TICKS = 9;
const LEAST = 2 * 60 * MINUTE;
/** Milliseconds ahead that a track shows at most: the hours that a shift leader steers by, or the whole day. */
export const MOST = { hours: 4 * 60 * MINUTE, day: 16 * 60 * MINUTE } as const;

/**
 * The stretch that shows what is to come: a little before now, up to the last of the instants given; two hours at least.
 *
 * @param most milliseconds ahead at most
 */
export function axisOf(now: number, instants: readonly number[], most: number = MOST.day): Axis {
  const last = Math.max(now + LEAST, ...instants.filter((i) => i <= now + most));
  const step = STEPS.find((s) => (last - now) / s <= MOST_TICKS) ?? STEPS.at(-1)!;
  const from = Math.floor((now - step / 2) / (15 * MINUTE)) * 15 * MINUTE;
  const to = Math.ceil((last + step / 4) / (15 * MINUTE)) * 15 * MINUTE;
  const ticks: number[] = [];
  for (let at = Math.ceil(from / step) * step; at <= to; at += step) ticks.push(at);
  return { from, to, ticks };
}

/** Where an instant lies on a track so many pixels wide; what lies before or after is put at its edge. */
export const along = ({ from, to }: Axis, at: number, width: number): number =>
  Math.min(1, Math.max(0, (at - from) / (to - from))) * width;
