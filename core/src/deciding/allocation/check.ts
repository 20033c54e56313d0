import { lotServes, type Demand, type LineAllocation, type Supply } from './problem.ts';

/**
 * Holds promises against the rules of allocation, by other means than those that made them.
 *
 * @returns what is wrong, a sentence each; empty when nothing is
 */
export function faultsOf(supply: Supply[], demand: Demand[], promises: LineAllocation[]): string[] {
  const faults: string[] = [];
  const given = new Map<string, number>();
  const rowOf = new Map(promises.map((p) => [`${p.order} ${p.line}`, p]));
  for (const order of demand) {
    const rows = order.lines.map((line) => rowOf.get(`${order.id} ${line.id}`));
    order.lines.forEach((line, i) => {
      const row = rows[i];
      if (!row) return faults.push(`Line ${line.id} of ${order.id} has no row.`);
      if (row.units > line.units) faults.push(`Line ${line.id} of ${order.id} gets more than it asks.`);
      if (row.units !== row.lots.reduce((n, l) => n + l.units, 0)) faults.push(`Lots of ${line.id} do not add up.`);
      for (const { lot, units } of row.lots) {
        const key = JSON.stringify([line.item, lot]);
        given.set(key, (given.get(key) ?? 0) + units);
        const from = supply.filter((s) => s.item === line.item && s.lot === lot);
        if (!from.some((s) => lotServes(s.bestBefore, order.shipDate, line.minShelfDays)))
          faults.push(`Lot ${lot} does not suit line ${line.id} of ${order.id}.`);
      }
      return undefined;
    });
    const full = rows.every((row, i) => row?.units === order.lines[i]!.units);
    if (order.shipComplete && !full && rows.some((row) => row && row.units > 0))
      faults.push(`Order ${order.id} ships complete and gets a part.`);
  }
  const there = new Map<string, number>();
  for (const { item, lot, units } of supply) {
    const key = JSON.stringify([item, lot]);
    there.set(key, (there.get(key) ?? 0) + units);
  }
  for (const [key, units] of given)
    if (units > (there.get(key) ?? 0))
      faults.push(`${units} of ${key} are promised, ${there.get(key) ?? 0} are there.`);
  return faults;
}

/** Orders of which every line is full. */
export function completeOrders(demand: Demand[], promises: LineAllocation[]): Set<string> {
  const units = new Map(promises.map((p) => [`${p.order}\n${p.line}`, p.units]));
  return new Set(
    demand.filter((o) => o.lines.every((l) => units.get(`${o.id}\n${l.id}`) === l.units)).map((order) => order.id),
  );
}
