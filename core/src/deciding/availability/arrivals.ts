import { firstServed, goodUntil, Shelf, sum, type Supply } from '../allocation/index.ts';
import type { Arrival, OpenOrder } from './open.ts';

/**
 * The day on which each line that stock does not fill is filled by expected supply, everybody served in turn.
 *
 * @returns by line; null where what is expected does not reach, absent where stock fills it
 */
export function arrivals(
  supply: Supply[],
  expected: ({ item: string } & Arrival)[],
  orders: OpenOrder[],
): Map<string, string | null> {
  const shelf = new Shelf(supply);
  const coming = new Map<string, Arrival[]>();
  for (const { item, date, units } of expected) {
    const list = coming.get(item) ?? [];
    list.push({ date, units });
    coming.set(item, list);
  }
  for (const list of coming.values()) list.sort((a, b) => (a.date < b.date ? -1 : 1));
  const days = new Map<string, string | null>();
  for (const order of [...orders].sort(firstServed))
    for (const line of order.lines) {
      const lack = line.units - line.reserved;
      let missing = lack - sum(shelf.take(line.item, goodUntil(order, line), lack));
      if (missing === 0) continue;
      let day: string | null = null;
      for (const arrival of coming.get(line.item) ?? []) {
        const taken = Math.min(missing, arrival.units);
        arrival.units -= taken;
        missing -= taken;
        if (missing === 0) {
          day = arrival.date;
          break;
        }
      }
      days.set(line.id, day);
    }
  return days;
}
