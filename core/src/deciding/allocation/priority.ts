import { firstServed, goodUntil, type Demand, type Grants, type Supply } from './problem.ts';
import { Shelf, sum } from './shelf.ts';

/**
 * Serves demand in the order of priority, day of leaving and id. An order that ships complete gets every line in full
 * or nothing.
 *
 * @returns units of every line, also where it gets none
 */
export function byPriority(supply: Supply[], demand: Demand[]): Grants {
  const shelf = new Shelf(supply);
  const grants: Grants = new Map();
  for (const order of [...demand].sort(firstServed)) {
    const taken = order.lines.map((line) => {
      return { line, lots: shelf.take(line.item, goodUntil(order, line), line.units) };
    });
    const refused = order.shipComplete && taken.some(({ line, lots }) => sum(lots) < line.units);
    for (const { line, lots } of taken) {
      if (refused) shelf.putBack(line.item, lots);
      grants.set(line, refused ? 0 : sum(lots));
    }
  }
  return grants;
}
