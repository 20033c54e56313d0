import type { Serving } from '../allocation/index.ts';
import type { OpenOrder } from './open.ts';

/** What an order of serving looks at, beside the order itself. */
export interface ServedBy {
  /** Rank of the customer's class, 1 first. */
  classRank: number;
  /** Instant at which the order came in. */
  takenAt: string;
}

type Key = readonly (string | number)[];

/** What each serving compares, the first that differs decides. */
const keys: Record<Serving, (order: OpenOrder, of: ServedBy) => Key> = {
  'customer-class': (order, of) => [of.classRank, order.priority, order.shipDate],
  'ship-date': (order) => [order.shipDate, order.priority],
  'order-age': (_, of) => [of.takenAt],
};

function compareKeys(a: Key, b: Key): number {
  const at = a.findIndex((part, i) => part !== b[i]);
  return at < 0 ? 0 : a[at]! < b[at]! ? -1 : 1;
}

/**
 * Orders with their place in an order of serving as priority, so that the first of them is served first: 1, 2, …, equal
 * ones the same.
 *
 * @param factsOf what is known of an order, by its id
 * @returns the orders as they were given
 */
export function served(
  orders: readonly OpenOrder[],
  serving: Serving,
  factsOf: (order: string) => ServedBy,
): OpenOrder[] {
  const keyed = orders.map((order) => ({ order, key: keys[serving](order, factsOf(order.id)) }));
  const placeOf = new Map<OpenOrder, number>();
  let place = 0;
  let before: Key | undefined;
  for (const { order, key } of [...keyed].sort((a, b) => compareKeys(a.key, b.key))) {
    if (!before || compareKeys(before, key) !== 0) place += 1;
    placeOf.set(order, place);
    before = key;
  }
  return orders.map((order) => ({ ...order, priority: placeOf.get(order)! }));
}
