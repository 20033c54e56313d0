import type { Demand } from '../allocation/index.ts';

/** An order as the Desk sees it: what its lines still ask, and what stock is kept for them. */
export interface OpenOrder extends Omit<Demand, 'lines'> {
  lines: OpenLine[];
}

export interface OpenLine {
  id: string;
  item: string;
  /** Asked and not released. */
  units: number;
  /** Part of it for which stock is kept already. */
  reserved: number;
  minShelfDays: number;
  /** Worth of a unit, in minor units of money. */
  value: number;
}

/** Supply on its way. */
export interface Arrival {
  date: string;
  units: number;
}
