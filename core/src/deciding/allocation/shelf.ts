import { byText, NO_DATE, type Supply } from './problem.ts';

interface Lot {
  lot: string | null;
  bestBefore: string;
  units: number;
}

/** Units taken off the shelf, and where they lay. */
export interface Taken {
  from: Lot;
  units: number;
}

/** Stock by item, its lots in the order in which they expire; what is taken is gone until it is put back. */
export class Shelf {
  private readonly items = new Map<string, { lots: Lot[]; first: number }>();

  constructor(supply: Supply[]) {
    for (const { item, lot, bestBefore, units } of supply) {
      const entry = this.items.get(item) ?? { lots: [], first: 0 };
      const row = { lot, bestBefore: bestBefore ?? NO_DATE, units };
      const same = entry.lots.find((l) => l.lot === lot && l.bestBefore === row.bestBefore);
      if (same) same.units += units;
      else entry.lots.push(row);
      this.items.set(item, entry);
    }
    for (const { lots } of this.items.values())
      lots.sort((a, b) => byText(a.bestBefore, b.bestBefore) || byText(a.lot ?? '', b.lot ?? ''));
  }

  /** Takes up to so many units that are good until a day, the lot that expires first at first. */
  take(item: string, until: string, units: number): Taken[] {
    const entry = this.items.get(item);
    const taken: Taken[] = [];
    if (!entry) return taken;
    const { lots } = entry;
    while (entry.first < lots.length && lots[entry.first]!.units === 0) entry.first += 1;
    for (let i = entry.first; i < lots.length && units > 0; i += 1) {
      const from = lots[i]!;
      if (from.units === 0 || from.bestBefore < until) continue;
      const some = Math.min(units, from.units);
      from.units -= some;
      units -= some;
      taken.push({ from, units: some });
    }
    return taken;
  }

  putBack(item: string, taken: Taken[]): void {
    const entry = this.items.get(item);
    if (!entry) return;
    entry.first = 0;
    for (const { from, units } of taken) from.units += units;
  }
}

export const sum = (parts: { units: number }[]) => parts.reduce((n, part) => n + part.units, 0);
