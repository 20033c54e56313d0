import type { Allocated, DeskPolicy } from '../allocation/index.ts';
import type { OpenOrder } from './open.ts';

/** What a policy brings, in sums. */
export interface Tally {
  policy: DeskPolicy;
  orders: number;
  lines: number;
  units: number;
  value: number;
  /** Orders of today or earlier that do not go in full. */
  late: number;
  byClass: Record<string, { orders: number; complete: number }>;
  /** `most-orders` alone: no choice completes more. */
  bound?: number;
}

export interface Comparison {
  tallies: Tally[];
  /** Lines that at least one policy leaves short, with units under each policy in the order of `tallies`. */
  lines: { order: string; line: string; asked: number; units: number[] }[];
  /** Orders that one policy completes and another does not, likewise. */
  sides: { order: string; complete: boolean[] }[];
}

/**
 * Sets policies side by side.
 *
 * @param today ISO date at the site
 * @param classOf class of the customer by order
 */
export function compare(
  orders: OpenOrder[],
  results: { policy: DeskPolicy; allocated: Allocated }[],
  today: string,
  classOf: (order: string) => string,
): Comparison {
  const units = results.map(({ allocated }) => new Map(allocated.promises.map((p) => [p.line, p.units])));
  const complete = orders.map((o) => units.map((of) => o.lines.every((l) => (of.get(l.id) ?? 0) >= l.units)));
  const tallies = results.map(({ policy, allocated }, n): Tally => {
    const byClass: Tally['byClass'] = {};
    let late = 0;
    orders.forEach((order, i) => {
      const sums = (byClass[classOf(order.id)] ??= { orders: 0, complete: 0 });
      sums.orders += 1;
      if (complete[i]![n]) sums.complete += 1;
      else if (order.shipDate <= today) late += 1;
    });
    const lines = orders.flatMap((o) => o.lines.map((line) => ({ line, got: units[n]!.get(line.id) ?? 0 })));
    return {
      policy,
      orders: complete.filter((c) => c[n]).length,
      lines: lines.filter(({ line, got }) => got >= line.units).length,
      units: lines.reduce((sum, { got }) => sum + got, 0),
      value: lines.reduce((sum, { line, got }) => sum + got * line.value, 0),
      late,
      byClass,
      ...(allocated.bound === undefined ? {} : { bound: allocated.bound }),
    };
  });
  return {
    tallies,
    lines: orders.flatMap((order) =>
      order.lines.flatMap((line) => {
        const got = units.map((of) => of.get(line.id) ?? 0);
        return got.every((n) => n >= line.units)
          ? []
          : [{ order: order.id, line: line.id, asked: line.units, units: got }];
      }),
    ),
    sides: orders.flatMap((order, i) =>
      new Set(complete[i]).size > 1 ? [{ order: order.id, complete: complete[i]! }] : [],
    ),
  };
}
