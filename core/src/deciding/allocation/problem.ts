import { addDays } from '../../calendar/index.ts';

/** Stock of one lot that can still be promised. `lot` and `bestBefore` are null where the item has none. */
export interface Supply {
  item: string;
  lot: string | null;
  bestBefore: string | null;
  units: number;
}

export interface DemandLine {
  id: string;
  item: string;
  units: number;
  minShelfDays: number;
}

export interface Demand {
  id: string;
  /** 1 is served first. */
  priority: number;
  /** ISO date on which the goods leave. */
  shipDate: string;
  shipComplete: boolean;
  lines: DemandLine[];
}

export interface LineAllocation {
  order: string;
  line: string;
  units: number;
  lots: { lot: string | null; units: number }[];
}

/** Units that each line gets, by `order line`; which lots they are is settled when they are handed out. */
export type Grants = Map<DemandLine, number>;

/** Lots without a date outlast every date. */
export const NO_DATE = '9999-12-31';

export const byText = (a: string, b: string) => (a < b ? -1 : a > b ? 1 : 0);

/** The order in which demand is served: priority, day of leaving, id. */
export function firstServed(a: Demand, b: Demand): number {
  return a.priority - b.priority || byText(a.shipDate, b.shipDate) || byText(a.id, b.id);
}

const days = new Map<string, string>();

/** The day to which a lot must be good to serve a line of the order: the later, the stricter. */
export function goodUntil(order: Pick<Demand, 'shipDate'>, line: Pick<DemandLine, 'minShelfDays'>): string {
  if (line.minShelfDays === 0) return order.shipDate;
  const key = `${order.shipDate} ${line.minShelfDays}`;
  let day = days.get(key);
  // Few days and few terms meet in many lines; reckoning with dates is slow.
  if (day === undefined) days.set(key, (day = addDays(order.shipDate, line.minShelfDays)));
  return day;
}

/** Whether a lot is good for long enough after the day of shipping. */
export function lotServes(bestBefore: string | null, shipDate: string, minShelfDays: number): boolean {
  return bestBefore === null || bestBefore >= goodUntil({ shipDate }, { minShelfDays });
}
