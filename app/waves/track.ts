/** The stretch of time that a track shows, in milliseconds since the epoch. */
export interface Axis {
  from: number;
  to: number;
  /** Instants that get a line and a time. */
  ticks: number[];
}

const MINUTE = 60_000;
const STEPS = [5, 15, 30, 60, 120, 240].map((m) => m * MINUTE);
const MOST_TICKS = 9;
/** Milliseconds ahead that a track shows at least: of the whole hall, and of one wave. */
export const LEAST = { hall: 2 * 60 * MINUTE, wave: 30 * MINUTE } as const;
/** Milliseconds ahead that a track shows at most: the hours that a shift leader steers by, or the whole day. */
export const MOST = { hours: 4 * 60 * MINUTE, day: 16 * 60 * MINUTE } as const;

/**
 * The stretch that shows what is to come: a little before now, up to the last of the instants given.
 *
 * @param most milliseconds ahead at most
 * @param least milliseconds ahead at least
 */
export function axisOf(
  now: number,
  instants: readonly number[],
  most: number = MOST.day,
  least: number = LEAST.hall,
): Axis {
  const last = Math.max(now + least, ...instants.filter((i) => i <= now + most));
  const step = STEPS.find((s) => (last - now) / s <= MOST_TICKS) ?? STEPS.at(-1)!;
  const grain = Math.min(step, 15 * MINUTE);
  const from = Math.floor((now - step / 2) / grain) * grain;
  const to = Math.ceil((last + step / 4) / grain) * grain;
  const ticks: number[] = [];
  for (let at = Math.ceil(from / step) * step; at <= to; at += step) ticks.push(at);
  return { from, to, ticks };
}

/** Where an instant lies on a track so many pixels wide; what lies before or after is put at its edge. */
export const along = ({ from, to }: Axis, at: number, width: number): number =>
  Math.min(1, Math.max(0, (at - from) / (to - from))) * width;
