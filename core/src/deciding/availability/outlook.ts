import { levelsOf, mostServed, goodUntil, type ItemLevels, type Supply } from '../allocation/index.ts';
import { arrivals } from './arrivals.ts';
import type { Arrival, OpenOrder } from './open.ts';

export interface LineOutlook {
  line: string;
  /** Units that leave whatever is decided for others. */
  sure: number;
  /** Units that leave when this order is served before all others. */
  could: number;
  /** Day on which expected supply fills it when everybody is served in turn; null when none is known to. */
  fullBy: string | null;
}

/**
 * How far an order can go. `goes`: all of it, whatever is decided; `choose`: more of it, at the cost of others; `part`:
 * some of it, and nobody's choice gives more; `waits`: not now, supply is expected for it; `short`: nothing is in sight; `held`: a hold
 * keeps it here, and it asks for nothing in the meantime.
 */
export const readinesses = ['goes', 'choose', 'part', 'waits', 'short', 'held'] as const;
export type Readiness = (typeof readinesses)[number];

export interface OrderOutlook {
  order: string;
  readiness: Readiness;
  /** What leaves whatever is decided for others. An order that ships complete leaves whole or not at all. */
  sure: { lines: number; units: number; value: number };
  /** What could leave were it served first. */
  could: { lines: number; units: number; value: number };
  /** Day on which all of it can leave; null when all could now, or when it is not known. */
  fullBy: string | null;
  lines: LineOutlook[];
}

export interface ItemOutlook {
  item: string;
  /** Units that lines in view ask beside what is kept for them. */
  asked: number;
  /** Units that can be promised. */
  free: number;
  /** Units of what is asked that can be served at most, dates considered. */
  served: number;
  orders: number;
  lines: number;
  expected: Arrival[];
}

export interface Outlook {
  orders: OrderOutlook[];
  /** Items of which less can be served than is asked, the most wanting first. */
  short: ItemOutlook[];
}

interface Sums {
  at: ItemLevels;
  asked: number[];
  most: number;
}

/** Units an order lacks of each item by level. */
function lacksOf(order: OpenOrder, items: Map<string, Sums>): Map<string, number[]> {
  const lacks = new Map<string, number[]>();
  for (const line of order.lines) {
    const { at } = items.get(line.item)!;
    const list = lacks.get(line.item) ?? at.levels.map(() => 0);
    list[at.levels.indexOf(goodUntil(order, line))]! += line.units - line.reserved;
    lacks.set(line.item, list);
  }
  return lacks;
}

/**
 * What of open orders can leave: for sure, at others' cost, and later. A line is sure of what is left when all others
 * are served before it; what lines accept is nested by date, so that both follow from the most that can be served with
 * the order and without it (Hall 1935; see `levelsOf`).
 *
 * @param supply what is free to promise; what is kept for lines is no part of it
 * @param expected supply on its way, by day; it suits every line
 */
export function outlook(supply: Supply[], expected: ({ item: string } & Arrival)[], orders: OpenOrder[]): Outlook {
  const items = new Map<string, Sums>();
  for (const [item, at] of levelsOf(supply, orders)) items.set(item, { at, asked: at.levels.map(() => 0), most: 0 });
  const lacking = orders.map((order) => lacksOf(order, items));
  const askers = new Map<string, { orders: number; lines: number }>();
  lacking.forEach((lacks, n) => {
    for (const [item, list] of lacks) {
      const sums = items.get(item)!;
      list.forEach((units, i) => (sums.asked[i]! += units));
      const count = askers.get(item) ?? { orders: 0, lines: 0 };
      count.orders += 1;
      count.lines += orders[n]!.lines.filter((l) => l.item === item).length;
      askers.set(item, count);
    }
  });
  for (const sums of items.values()) sums.most = mostServed(sums.asked, sums.at.supply);
  const fullBy = arrivals(supply, expected, orders);
  const outlooks = orders.map((order, n) => orderOutlook(order, lacking[n]!, items, fullBy));
  const freeOf = new Map<string, number>();
  for (const row of supply) freeOf.set(row.item, (freeOf.get(row.item) ?? 0) + row.units);
  const coming = new Map<string, Arrival[]>();
  for (const { item, date, units } of expected) coming.set(item, [...(coming.get(item) ?? []), { date, units }]);
  const short = [...items].flatMap(([item, { asked, most }]): ItemOutlook[] => {
    const all = asked.reduce((a, b) => a + b, 0);
    if (most >= all) return [];
    const free = freeOf.get(item) ?? 0;
    return [{ item, asked: all, free, served: most, ...askers.get(item)!, expected: coming.get(item) ?? [] }];
  });
  short.sort((a, b) => b.asked - b.served - (a.asked - a.served) || (a.item < b.item ? -1 : 1));
  return { orders: outlooks, short };
}

function orderOutlook(
  order: OpenOrder,
  lacks: Map<string, number[]>,
  items: Map<string, Sums>,
  fullBy: Map<string, string | null>,
): OrderOutlook {
  const pools = new Map<string, { sure: number; could: number }>();
  for (const [item, list] of lacks) {
    const { at, asked, most } = items.get(item)!;
    const without = mostServed(
      asked.map((units, i) => units - list[i]!),
      at.supply,
    );
    pools.set(item, { sure: most - without, could: mostServed(list, at.supply) });
  }
  // Of several lines of one item the stricter are filled first.
  const strict = [...order.lines].sort((a, b) => b.minShelfDays - a.minShelfDays);
  const found = new Map<string, LineOutlook>();
  for (const line of strict) {
    const pool = pools.get(line.item)!;
    const lack = line.units - line.reserved;
    const sure = Math.min(lack, pool.sure);
    const could = Math.min(lack, pool.could);
    pool.sure -= sure;
    pool.could -= could;
    found.set(line.id, {
      line: line.id,
      sure: line.reserved + sure,
      could: line.reserved + could,
      fullBy: could === lack ? null : (fullBy.get(line.id) ?? null),
    });
  }
  const lines = order.lines.map((l) => found.get(l.id)!);
  const all = order.lines.every((l, i) => lines[i]!.could === l.units);
  const sureAll = order.lines.every((l, i) => lines[i]!.sure === l.units);
  const sum = (of: 'sure' | 'could', whole: boolean) => {
    if (order.shipComplete && !whole) return { lines: 0, units: 0, value: 0 };
    return order.lines.reduce(
      (n, line, i) => ({
        lines: n.lines + (lines[i]![of] === line.units ? 1 : 0),
        units: n.units + lines[i]![of],
        value: n.value + lines[i]![of] * line.value,
      }),
      { lines: 0, units: 0, value: 0 },
    );
  };
  const sure = sum('sure', sureAll);
  const could = sum('could', all);
  const waits = order.lines.filter((l, i) => lines[i]!.could < l.units);
  const days = waits.map((l) => found.get(l.id)!.fullBy);
  const last = days.includes(null) ? null : (days.sort().at(-1) ?? null);
  const readiness: Readiness = sureAll
    ? 'goes'
    : could.units > sure.units
      ? 'choose'
      : sure.units > 0
        ? 'part'
        : last
          ? 'waits'
          : 'short';
  return { order: order.id, readiness, sure, could, fullBy: last, lines };
}
