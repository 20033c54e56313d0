/**
 * Rules by which a site chooses bins, in its own order; the first that tells two bins apart decides.
 *
 * `expiry`: the stock that expires first; `age`: the stock that came in first; `home`: the item's home bin; `whole`: one
 * that holds the whole quantity; `remainder`: the smallest quantity, so that bins become empty; `reach`: the lowest
 * level; `walk`: the one that makes the run shortest, chosen together with the route.
 */
export const binRules = ['expiry', 'age', 'home', 'whole', 'remainder', 'reach', 'walk'] as const;
export type BinRule = (typeof binRules)[number];

/** What a site begins with. */
export const usualBinRules: readonly BinRule[] = ['expiry', 'whole', 'remainder'];

/** What lies free in a bin: on hand less what open picks will take from it. */
export interface BinStock {
  bin: string;
  item: string;
  lot: string | null;
  units: number;
  /** ISO date; null where nothing expires. */
  bestBefore?: string | null | undefined;
  /** ISO instant at which it came into the bin. */
  since?: string | null | undefined;
  /** Whether the bin is the item's home. */
  home?: boolean | undefined;
  level?: number | null | undefined;
}

/** Units of an item and lot that an order line needs from somewhere. */
export interface Need {
  id: string;
  item: string;
  lot: string | null;
  units: number;
}

/** Why a bin was taken: the rule that told it from the next best, or that there was no choice, nothing to choose by, or that the picker chose it, or that stock moved since. */
export type BinReason = BinRule | 'only' | 'code' | 'hand' | 'moved';

const text = (a: string | null | undefined, b: string | null | undefined) => {
  // What has no date comes last.
  const [x, y] = [a ?? '\uffff', b ?? '\uffff'];
  return x < y ? -1 : x > y ? 1 : 0;
};

/** How a rule tells two bins apart for so many units: below 0 where the first is better, 0 where it cannot say. */
function byRule(rule: BinRule, a: BinStock, b: BinStock, units: number): number {
  switch (rule) {
    case 'expiry':
      return text(a.bestBefore, b.bestBefore);
    case 'age':
      return text(a.since, b.since);
    case 'home':
      return Number(b.home ?? false) - Number(a.home ?? false);
    case 'whole':
      return Number(b.units >= units) - Number(a.units >= units);
    case 'remainder':
      return a.units - b.units;
    case 'reach':
      return (a.level ?? 0) - (b.level ?? 0);
    case 'walk':
      return 0;
  }
}

/** The first rule that tells two bins apart, and how; null where none does. */
export function firstDifference(
  rules: readonly BinRule[],
  a: BinStock,
  b: BinStock,
  units: number,
): { rule: BinRule; order: number } | null {
  for (const rule of rules) {
    const order = byRule(rule, a, b, units);
    if (order !== 0) return { rule, order };
  }
  return null;
}
