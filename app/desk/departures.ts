import { canMove, openOf, type Listed } from './listing.ts';

export interface ToRelease {
  key: string;
  /** Empty for orders without a departure. */
  name: string;
  day: string;
  leavesAt: string | null;
  orders: string[];
  units: number;
}

/**
 * What can be released, by departure: those of today and of days before in the order in which they leave, then later days.
 *
 * @param today ISO date at the site: what is overdue goes with today's departures
 */
export function departuresOf(rows: readonly Listed[], today: string): ToRelease[] {
  const found = new Map<string, ToRelease>();
  for (const r of rows) {
    if (!canMove(r)) continue;
    const day = r.due < today ? today : r.due;
    const key = `${day} ${r.departure ?? ''}`;
    const one = found.get(key) ?? { key, name: r.departure ?? '', day, leavesAt: null, orders: [], units: 0 };
    one.orders.push(r.id);
    one.units += openOf(r);
    // Of overdue orders the hour has passed: that of today's is the one to make.
    if (r.due >= today) one.leavesAt = r.leavesAt;
    found.set(key, one);
  }
  const at = (d: ToRelease) => `${d.day} ${d.leavesAt ?? '9'}`;
  return [...found.values()].sort((a, b) => (at(a) < at(b) ? -1 : 1));
}
