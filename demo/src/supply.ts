import { addDays } from '@hand-relay/core/calendar';
import type { Scenario } from './scenario.ts';

export interface Coming {
  reference: string;
  itemId: string;
  due: string;
  units: number;
  source: 'purchase' | 'transfer' | 'production';
}

const sources = ['purchase', 'transfer', 'production'] as const;
const prefixes = { purchase: 'PO', transfer: 'TR', production: 'MO' };

/**
 * Supply on its way for the items that orders ask more of than lies in the bins: for every third of them nothing comes,
 * for the others what is missing and a little more, some of it in two parts.
 */
export function comingSupply(world: Scenario, today: string): Coming[] {
  const short = new Map<string, number>();
  for (const order of world.orders)
    for (const l of order.lines) {
      const units = l.quantity * l.item.packs.find((p) => p.level === l.pack)!.units;
      short.set(l.item.id, (short.get(l.item.id) ?? 0) + units);
    }
  for (const { item, units } of world.stock) short.set(item, (short.get(item) ?? 0) - units);
  const missing = [...short].filter(([, units]) => units > 0).sort(([a], [b]) => (a < b ? -1 : 1));
  return missing.flatMap(([itemId, units], n) => {
    if (n % 3 === 2) return [];
    const source = sources[n % sources.length]!;
    const row = (part: number, share: number) => ({
      reference: `${prefixes[source]}-${7700 + 2 * n + part}`,
      itemId,
      due: addDays(today, 1 + ((n * 2) % 5) + 3 * part),
      units: Math.max(1, Math.ceil(units * share)),
      source,
    });
    return n % 2 === 0 ? [row(0, 0.6), row(1, 0.6)] : [row(0, 1.1)];
  });
}
