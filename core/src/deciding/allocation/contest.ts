import { goodUntil, NO_DATE, type Demand, type Supply } from './problem.ts';

/** What lines of one item ask, and what lies there for them, by how long the goods must keep. */
export interface ItemLevels {
  item: string;
  /** Days to which lines of the item ask goods to keep, the laxest first. */
  levels: string[];
  /** Units good until each level's day or longer. */
  supply: number[];
}

/**
 * Levels of every asked item. A line of a level accepts what is good until its day or longer, so that what lines accept
 * is nested, and demand can be served in full exactly when at every level all that is asked there or more strictly is
 * no more than what lies there (Hall 1935, for nested sets).
 */
export function levelsOf(supply: Supply[], demand: Demand[]): Map<string, ItemLevels> {
  const days = new Map<string, Set<string>>();
  for (const order of demand)
    for (const line of order.lines) {
      const set = days.get(line.item) ?? new Set();
      set.add(goodUntil(order, line));
      days.set(line.item, set);
    }
  const found = new Map<string, ItemLevels>();
  for (const [item, set] of days) {
    const levels = [...set].sort();
    found.set(item, { item, levels, supply: levels.map(() => 0) });
  }
  for (const row of supply) {
    const at = found.get(row.item);
    at?.levels.forEach((day, i) => {
      if ((row.bestBefore ?? NO_DATE) >= day) at.supply[i]! += row.units;
    });
  }
  return found;
}

/** Units that an order asks at a level or more strictly, for every level that it touches, by `item` and level's number. */
export function needsOf(order: Demand, levels: Map<string, ItemLevels>): Map<string, number[]> {
  const needs = new Map<string, number[]>();
  for (const line of order.lines) {
    const at = levels.get(line.item)!;
    const need = needs.get(line.item) ?? at.levels.map(() => 0);
    const own = at.levels.indexOf(goodUntil(order, line));
    for (let i = 0; i <= own; i += 1) need[i]! += line.units;
    needs.set(line.item, need);
  }
  return needs;
}

/**
 * The most units that demand of nested levels can be served.
 *
 * @param asked units asked at exactly each level, the laxest first
 * @param supply units good for each level or longer, as in {@link ItemLevels}
 */
export function mostServed(asked: number[], supply: number[]): number {
  let served = 0;
  // From the strictest down: what is over for a strict level serves the laxer ones too.
  for (let i = asked.length - 1; i >= 0; i -= 1) served = Math.min(served + asked[i]!, supply[i]!);
  return served;
}
