import type { IntakeError, IntakeExpectation } from './draft.ts';
import type { DraftedOrder } from './rows.ts';

export interface ReadOrders {
  orders: DraftedOrder[];
  errors: IntakeError[];
}

/** A file of which nothing can be read, and why. */
export function unreadable(row: number, column: string, value: string, expected: IntakeExpectation): ReadOrders {
  return { orders: [], errors: [{ row, column, value, expected, order: '' }] };
}
