/** A departure as the timetable has it. */
export interface Departure {
  id: string;
  /** Local time HH:MM. */
  cutOff: string;
  /** 1 Monday to 7 Sunday. */
  days: number[];
  /** Channel whose orders take it; null takes all. */
  channel: string | null;
}

const forms = new Map<string, Intl.DateTimeFormat>();

/** The fields of a zone's clock; the form is made once for each zone, as making one costs far more than using it. */
function fieldsOf(timeZone: string): Intl.DateTimeFormat {
  const form =
    forms.get(timeZone) ??
    new Intl.DateTimeFormat('en-CA', {
      timeZone,
      hourCycle: 'h23',
      year: 'numeric',
      month: '2-digit',
      day: '2-digit',
      hour: '2-digit',
      minute: '2-digit',
      second: '2-digit',
    });
  forms.set(timeZone, form);
  return form;
}

/** Minutes that a zone's clock is ahead of UTC at an instant. */
function offsetMinutes(at: number, timeZone: string): number {
  const parts = fieldsOf(timeZone).formatToParts(new Date(at));
  const of = (type: string) => Number(parts.find((p) => p.type === type)!.value);
  const local = Date.UTC(of('year'), of('month') - 1, of('day'), of('hour'), of('minute'), of('second'));
  return Math.round((local - Math.floor(at / 1000) * 1000) / 60_000);
}

/**
 * The instant at which a site's clock shows a date and time. A time that the clock skips in spring is taken as
 * the one an hour later; of one that it shows twice in autumn, the earlier.
 *
 * @param date ISO date
 * @param time HH:MM
 * @returns milliseconds since the epoch
 */
export function instantOf(date: string, time: string, timeZone: string): number {
  const local = Date.parse(`${date}T${time}:00Z`);
  if (Number.isNaN(local)) throw new RangeError(`"${date} ${time}" is not a date and time.`);
  const guess = local - offsetMinutes(local - 86_400_000, timeZone) * 60_000;
  if (guess + offsetMinutes(guess, timeZone) * 60_000 === local) return guess;
  const other = local - offsetMinutes(local + 86_400_000, timeZone) * 60_000;
  return other + offsetMinutes(other, timeZone) * 60_000 === local ? other : guess;
}

/** The date that a site's clock shows at an instant. */
export function localDate(at: number, timeZone: string): string {
  return new Date(at + offsetMinutes(at, timeZone) * 60_000).toISOString().slice(0, 10);
}

/** An ISO date some days later, or earlier. */
export function addDays(date: string, days: number): string {
  return new Date(Date.parse(`${date}T00:00:00Z`) + days * 86_400_000).toISOString().slice(0, 10);
}

/** Whole days from one ISO date to another; negative where the other is earlier. */
export const daysBetween = (from: string, to: string): number =>
  Math.round((Date.parse(`${to}T00:00:00Z`) - Date.parse(`${from}T00:00:00Z`)) / 86_400_000);

/**
 * The departure an order takes: one for its channel before one for all; urgent orders (priority 1 and 2) take the
 * day's first cut-off, others the last. On a day without it, the last day before on which it leaves.
 *
 * @returns the departure and the instant it leaves, or null where the timetable has none
 */
export function departureFor(
  order: { channel: string; due: string; priority: number },
  timetable: Departure[],
  timeZone: string,
): { id: string; leavesAt: number } | null {
  const own = timetable.filter((d) => d.channel === order.channel);
  const usable = (own.length > 0 ? own : timetable.filter((d) => d.channel === null))
    .filter((d) => d.days.length > 0)
    .sort((a, b) => (a.cutOff < b.cutOff ? -1 : 1));
  const chosen = order.priority <= 2 ? usable[0] : usable.at(-1);
  return chosen ? { id: chosen.id, leavesAt: leavesWith(chosen, order.due, timeZone)! } : null;
}

/**
 * When an order that is due on a day leaves with a departure: on that day, or the last day before on which it leaves.
 *
 * @param due ISO date
 * @returns milliseconds since the epoch, or null where it leaves on no day
 */
export function leavesWith(
  { cutOff, days }: Pick<Departure, 'cutOff' | 'days'>,
  due: string,
  timeZone: string,
): number | null {
  if (days.length === 0) return null;
  let date = due;
  while (!days.includes(weekday(date))) date = addDays(date, -1);
  return instantOf(date, cutOff, timeZone);
}

/** 1 Monday to 7 Sunday. */
export function weekday(date: string): number {
  return ((new Date(`${date}T00:00:00Z`).getUTCDay() + 6) % 7) + 1;
}

/**
 * When a departure leaves: at its cut-off on a day, or the next time from now.
 *
 * @param day ISO date; null for its next
 * @param now milliseconds since the epoch
 * @returns milliseconds since the epoch, or null where it leaves on no day
 */
export function departureOn(
  { cutOff, days }: Pick<Departure, 'cutOff' | 'days'>,
  day: string | null,
  timeZone: string,
  now: number,
): number | null {
  if (day !== null) return instantOf(day, cutOff, timeZone);
  const today = localDate(now, timeZone);
  for (let ahead = 0; ahead <= 7; ahead++) {
    const date = addDays(today, ahead);
    const at = instantOf(date, cutOff, timeZone);
    if (days.includes(weekday(date)) && at > now) return at;
  }
  return null;
}
