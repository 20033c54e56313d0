/** When somebody works, in local time of the site. A shift that ends at or before its begin goes on past midnight. */
export interface Shift {
  person: string;
  /** ISO date on which it begins. */
  day: string;
  /** HH:MM. */
  from: string;
  until: string;
  /** The team whose queue they pick from in it; empty for their own. */
  team: string;
}

/** A moment on the clock of the site. */
export interface LocalMoment {
  /** ISO date. */
  day: string;
  /** HH:MM. */
  time: string;
}

/** Somebody who may do the work. */
export interface Worker {
  id: string;
  team: string;
  /** Signed in, and there to work. */
  here: boolean;
}

const dayAfter = (day: string) => new Date(Date.parse(`${day}T00:00:00Z`) + 86_400_000).toISOString().slice(0, 10);
const overnight = ({ from, until }: Shift) => until <= from;

/** Whether a shift is on at a moment. */
export function isOn(shift: Shift, { day, time }: LocalMoment): boolean {
  if (day === shift.day) return time >= shift.from && (overnight(shift) || time < shift.until);
  return overnight(shift) && day === dayAfter(shift.day) && time < shift.until;
}

const beginsLater = (shift: Shift, { day, time }: LocalMoment) => shift.day === day && shift.from > time;

/** The shift of somebody that is on, or the next one that begins on this day; undefined where there is none. */
export function shiftOf(shifts: readonly Shift[], person: string, at: LocalMoment): Shift | undefined {
  const own = shifts.filter((s) => s.person === person);
  return (
    own.find((s) => isOn(s, at)) ?? own.filter((s) => beginsLater(s, at)).sort((a, b) => (a.from < b.from ? -1 : 1))[0]
  );
}

/**
 * How many do the work of a moment: who is there and who is on shift; before the first shift of a day those with whom it
 * begins.
 *
 * @param workers who may do it
 * @param team only those who are of this team, by their shift or otherwise; all without it
 */
export function workforce(workers: readonly Worker[], shifts: readonly Shift[], at: LocalMoment, team = ''): number {
  const known = new Map(workers.map((w) => [w.id, w]));
  const ofTeam = (worker: Worker, shift?: Shift) => team === '' || (shift?.team || worker.team) === team;
  const on = shifts.filter((s) => known.has(s.person) && isOn(s, at));
  const now = new Set(on.filter((s) => ofTeam(known.get(s.person)!, s)).map((s) => s.person));
  for (const worker of workers)
    if (
      worker.here &&
      ofTeam(
        worker,
        on.find((s) => s.person === worker.id),
      )
    )
      now.add(worker.id);
  if (now.size > 0) return now.size;
  const later = shifts.filter((s) => known.has(s.person) && beginsLater(s, at) && ofTeam(known.get(s.person)!, s));
  const first = later.reduce((least, s) => (s.from < least ? s.from : least), '24:00');
  return new Set(later.filter((s) => s.from === first).map((s) => s.person)).size;
}
