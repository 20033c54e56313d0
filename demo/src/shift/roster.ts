import { addDays, localDate } from '@hand-relay/core/calendar';
import { site } from '../house.ts';

const HOUR = 3_600_000;
/** Shifts begin so long before the demo opens, on the full hour, and take so long. */
const BEFORE_MS = 4 * HOUR;
const LONG_MS = 8 * HOUR;
const DAYS = 7;
const people = ['pico', 'suri', 'bram', 'ada', 'jory', 'len'] as const;

const hourOf = (at: number): string => {
  const hour = new Intl.DateTimeFormat('en-GB', { timeZone: site.timeZone, hour: '2-digit', hourCycle: 'h23' });
  return `${hour.format(at)}:00`;
};

/** The roster of a week from the day on which the demo opens: everybody is in the middle of a shift then. */
export function rosterAround(opened: number): { person: string; day: string; from: string; until: string }[] {
  const began = opened - BEFORE_MS;
  const [from, until] = [hourOf(began), hourOf(began + LONG_MS)];
  const first = localDate(began, site.timeZone);
  return Array.from({ length: DAYS }, (_, n) => addDays(first, n)).flatMap((day) =>
    people.map((person) => ({ person, day, from, until })),
  );
}
