import type { LineAllocation, Settled, Supply } from '@hand-relay/core/deciding/allocation';
import type { OpenLine, OpenOrder } from '@hand-relay/core/deciding/availability';

/** An open order as the database tells it, values in a row: fifty thousand lines travel as one text. */
export type OrderValues = [
  id: string,
  number: string,
  customerNumber: string,
  customer: string,
  customerClass: string,
  due: string,
  shipDate: string,
  priority: number,
  shipComplete: boolean,
  minShelfDays: number,
  /** null where nothing of it is open. */
  lines: LineValues[] | null,
  held: boolean,
  /** Rank of the customer's class, 1 first; behind all of them where there is none. */
  classRank: number,
  takenAt: string,
];
export type LineValues = [id: string, number: number, item: string, open: number, value: number, manual: number | null];

/** Everything that the Desk computes with. */
export interface DeskProblem {
  today: string;
  orders: OrderValues[];
  /** Stock kept for lines before a release. */
  reserved: [line: string, lot: string, units: number][];
  /** Days that an item must keep for a customer, where it is not the customer's usual. */
  wishes: [customer: string, item: string, days: number][];
  supply: Supply[];
  expected: { item: string; date: string; units: number }[];
}

export interface Head {
  id: string;
  number: string;
  customer: string;
  class: string;
  due: string;
  classRank: number;
  takenAt: string;
}

/** The problem in the words of core, with what only screens need beside it. */
export class Desk {
  readonly today: string;
  readonly supply: Supply[];
  readonly expected: DeskProblem['expected'];
  readonly orders: OpenOrder[];
  readonly heads = new Map<string, Head>();
  readonly lineNumbers = new Map<string, number>();
  readonly settled: Settled;

  constructor(problem: DeskProblem) {
    this.today = problem.today;
    this.supply = problem.supply;
    this.expected = problem.expected;
    const reserved = new Map<string, LineAllocation['lots']>();
    const manual = new Map<string, number>();
    this.settled = { reserved: reserved, manual };
    for (const [line, lot, units] of problem.reserved)
      reserved.set(line, [...(reserved.get(line) ?? []), { lot: lot || null, units }]);
    const wishes = new Map(problem.wishes.map(([customer, item, days]) => [`${customer}\n${item}`, days]));
    this.orders = problem.orders.map(
      ([
        id,
        number,
        customerNumber,
        customer,
        customerClass,
        due,
        shipDate,
        priority,
        shipComplete,
        shelfDays,
        lines,
        _held,
        classRank,
        takenAt,
      ]) => {
        this.heads.set(id, { id, number, customer, class: customerClass, due, classRank, takenAt });
        const open = (lines ?? []).map(([line, lineNumber, item, units, value, manualUnits]): OpenLine => {
          this.lineNumbers.set(line, lineNumber);
          if (manualUnits !== null) manual.set(line, Math.min(manualUnits, units));
          const keptUnits = (reserved.get(line) ?? []).reduce((n, l) => n + l.units, 0);
          const minShelfDays = wishes.get(`${customerNumber}\n${item}`) ?? shelfDays;
          return { id: line, item, units, reserved: Math.min(units, keptUnits), minShelfDays, value };
        });
        return { id, priority, shipDate, shipComplete, lines: open };
      },
    );
  }
}
