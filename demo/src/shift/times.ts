import { instantOf, localDate } from '@hand-relay/core/calendar';
import { departures, site } from '../house.ts';

/** Minutes from the opening of the demo to each cut-off: one has left, one is near, two have time. */
const AWAY: Record<(typeof departures)[number]['id'], number> = {
  'dep-express': -35,
  'dep-van': 50,
  'dep-pallet': 115,
  'dep-day': 185,
};
/** Minutes of a day at which the first and the last cut-off can be. */
const FIRST = 15;
const LAST = 23 * 60 + 55;

/**
 * The house's departures with cut-offs among which the demo opens in mid-shift, whatever the hour. Late in the evening
 * they come closer to one another, as none can be after midnight.
 */
export function departuresAround(now: Date): (Omit<(typeof departures)[number], 'cutOff'> & { cutOff: string })[] {
  const midnight = instantOf(localDate(now.getTime(), site.timeZone), '00:00', site.timeZone);
  const local = (now.getTime() - midnight) / 60_000;
  const closer = Math.min(1, Math.max(0, (LAST - local) / Math.max(...Object.values(AWAY))));
  return departures.map((d) => {
    const away = AWAY[d.id];
    const at = Math.min(LAST, Math.max(FIRST, local + (away > 0 ? away * closer : away)));
    const minutes = Math.floor(at / 5) * 5;
    return { ...d, cutOff: `${two(Math.floor(minutes / 60))}:${two(minutes % 60)}` };
  });
}

const two = (n: number): string => String(n).padStart(2, '0');
