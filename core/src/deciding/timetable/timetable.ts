/** How large a wave may become; null where there is no limit. */
export interface Limits {
  waveOrders: number | null;
  waveUnits: number | null;
}

/** What an entry of the timetable does by itself, and when. Times are the site's clock as `HH:MM`. */
export interface TimetableRule extends Limits {
  gather: 'hand' | 'time' | 'level';
  gatherAt: string | null;
  /** Orders that wait, at which it gathers. */
  gatherLevel: number | null;
  plan: 'hand' | 'gathered' | 'time';
  planAt: string | null;
  start: 'hand' | 'planned' | 'time';
  startAt: string | null;
}

/** A wave that still gathers. */
export interface OpenWave {
  orders: number;
  units: number;
}

/** Which orders are gathered, and whether they join the open wave or begin another. */
export interface Gathering<O> {
  joins: boolean;
  orders: O[];
}

/**
 * Which of the orders that wait are gathered: the most urgent first, each whole, as far as the wave's limits allow. One
 * that does not fit is passed over for a smaller one behind it. An order that is larger than the limit by itself gets a
 * wave of its own, or it would never go.
 *
 * @param open the wave of the day that still gathers; one that is full is left as it is
 * @param waiting the most urgent first
 */
export function chooseForWave<O extends { units: number }>(
  { waveOrders, waveUnits }: Limits,
  open: OpenWave | null,
  waiting: readonly O[],
): Gathering<O> {
  const [mostOrders, mostUnits] = [waveOrders ?? Infinity, waveUnits ?? Infinity];
  const joins = open !== null && open.orders < mostOrders && open.units < mostUnits;
  let { orders, units } = joins ? open : { orders: 0, units: 0 };
  const chosen = waiting.filter((order) => {
    if (orders + 1 > mostOrders || (orders > 0 && units + order.units > mostUnits)) return false;
    orders += 1;
    units += order.units;
    return true;
  });
  return { joins, orders: chosen };
}

/**
 * Whether an entry gathers by itself now.
 *
 * @param time what the site's clock shows
 * @param waiting orders that it would gather
 * @param gatheredToday whether it has gathered on this day: by time it does so once a day
 */
export function gathersNow(
  { gather, gatherAt, gatherLevel }: TimetableRule,
  { time, waiting, gatheredToday }: { time: string; waiting: number; gatheredToday: boolean },
): boolean {
  if (gather === 'level') return waiting >= (gatherLevel ?? 1);
  return gather === 'time' && gatherAt !== null && time >= gatherAt && !gatheredToday;
}

/**
 * What is done by itself with a wave of an entry now, in this order. A wave of a day before is due at any time.
 *
 * @param wave its state and its day as an ISO date
 * @param now day and time of the site's clock
 */
export function dueSteps(
  { plan, planAt, start, startAt }: TimetableRule,
  wave: { state: string; day: string },
  now: { day: string; time: string },
): ('plan' | 'start')[] {
  const due = (at: string | null) => wave.day < now.day || (at !== null && now.time >= at);
  const plans = wave.state === 'gathering' && (plan === 'gathered' || (plan === 'time' && due(planAt)));
  const planned = plans || wave.state === 'planned';
  const starts = planned && (start === 'planned' || (start === 'time' && due(startAt)));
  return [...(plans ? (['plan'] as const) : []), ...(starts ? (['start'] as const) : [])];
}
