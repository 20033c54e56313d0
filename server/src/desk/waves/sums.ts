import type { ReleaseSums } from '@hand-relay/contract';
import type { Allocation } from './demand.ts';

/** An allocation in sums, with the lines that fall short. */
export function sumsOf({ lines }: Allocation): ReleaseSums {
  const byOrder = new Map<string, Allocation['lines']>();
  for (const line of lines) byOrder.set(line.number, [...(byOrder.get(line.number) ?? []), line]);
  const given = lines.filter((l) => l.allocation.units > 0);
  const groups = [...byOrder.values()];
  return {
    orders: groups.filter((g) => g.some((l) => l.allocation.units > 0)).length,
    ordersComplete: groups.filter((g) => g.every((l) => l.allocation.units === l.open)).length,
    lines: given.length,
    units: given.reduce((n, l) => n + l.allocation.units, 0),
    weightG: given.reduce((n, l) => n + l.allocation.units * l.weightG, 0),
    volumeCm3: given.reduce((n, l) => n + l.allocation.units * l.volumeCm3, 0),
    shorts: lines
      .filter((l) => l.allocation.units < l.open)
      .map((l) => ({
        order: l.number,
        line: l.lineNumber,
        sku: l.sku,
        name: l.name,
        asked: l.open,
        gets: l.allocation.units,
      })),
    nothing: [...byOrder].filter(([, g]) => g.every((l) => l.allocation.units === 0)).map(([number]) => number),
  };
}
