import { mostServed, NO_DATE } from '../allocation/index.ts';

/** What one asker is to get of an item. */
export interface Portion {
  line: string;
  /** Goods must keep to this day. */
  until: string;
  asked: number;
  /** Kept for it already: no part of what lies free. */
  reserved: number;
  units: number;
}

/** Units that portions take beyond what lies free and keeps long enough; 0 where all can be had. */
export function overdrawn(lots: { bestBefore: string | null; free: number }[], portions: Portion[]): number {
  const levels = [...new Set(portions.map((p) => p.until))].sort();
  const supply = levels.map((day) =>
    lots.reduce((n, lot) => ((lot.bestBefore ?? NO_DATE) >= day ? n + Math.max(0, lot.free) : n), 0),
  );
  const wanted = levels.map((day) =>
    portions.reduce((n, p) => (p.until === day ? n + Math.max(0, p.units - p.reserved) : n), 0),
  );
  return wanted.reduce((a, b) => a + b, 0) - mostServed(wanted, supply);
}

/**
 * Moves units from one portion to another, as many as the one can give and the other still asks.
 *
 * @param from index of who gives, null where it comes from what is left over
 * @param to index of who takes, null where it goes there
 */
export function shift(portions: Portion[], from: number | null, to: number | null, units: number): Portion[] {
  const give = from === null ? Infinity : portions[from]!.units - portions[from]!.reserved;
  const take = to === null ? Infinity : portions[to]!.asked - portions[to]!.units;
  const moved = Math.max(0, Math.min(units, give, take));
  return portions.map((p, i) =>
    i === from ? { ...p, units: p.units - moved } : i === to ? { ...p, units: p.units + moved } : p,
  );
}
