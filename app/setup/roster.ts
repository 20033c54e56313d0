import { addDays, weekday } from '@hand-relay/core/calendar';
import type { Row } from '@hand-relay/core/reading/sheets';

/** The Monday of a day's week. */
const mondayOf = (day: string) => addDays(day, 1 - weekday(day));

/**
 * The last week of a roster, as the week after it would be.
 *
 * @returns the Monday of that week with its shifts; null where there is none to go on from
 */
export function weekAfter(rows: readonly Row[]): { to: string; shifts: Row[] } | null {
  const used = rows.filter((r) => r['retired'] !== true);
  const last = used
    .map((r) => String(r['day']))
    .sort()
    .at(-1);
  if (last === undefined) return null;
  const from = mondayOf(last);
  const shifts = used
    .filter((r) => mondayOf(String(r['day'])) === from)
    .map(({ person, day, from: starts, until, team }) => ({
      person: person!,
      day: addDays(String(day), 7),
      from: starts!,
      until: until!,
      team: team ?? '',
    }));
  return { to: addDays(from, 7), shifts };
}
