import { firstDifference, usualBinRules, type BinReason, type BinRule, type BinStock, type Need } from './rules.ts';

export interface BinChoice {
  need: string;
  bin: string;
  units: number;
  why: BinReason;
}

export interface BinChoices {
  choices: BinChoice[];
  /** Needs that the bins cannot cover, with the units missing. */
  missing: { need: string; units: number }[];
  /** What is free after the choices. */
  free: FreeStock;
}

export interface ChooseOptions {
  rules?: readonly BinRule[];
  /**
   * What taking from a bin would lengthen the walk of its order by; asked where the rules before `walk` leave a choice.
   * Without it that rule is passed over.
   */
  lengthens?: (need: Need, bin: string) => number;
  /** Called with every choice, so that `lengthens` knows what an order has already. */
  chosen?: (choice: BinChoice) => void;
}

/** Stock by item and lot, from which choices take. */
export class FreeStock {
  private readonly rows = new Map<string, BinStock[]>();

  constructor(stock: readonly BinStock[]) {
    for (const row of stock) {
      const key = keyOf(row);
      const list = this.rows.get(key);
      if (list) list.push({ ...row });
      else this.rows.set(key, [{ ...row }]);
    }
  }

  /** Bins with something left of an item and lot. */
  of(need: Pick<Need, 'item' | 'lot'>): BinStock[] {
    return (this.rows.get(keyOf(need)) ?? []).filter((b) => b.units > 0);
  }

  take(need: Pick<Need, 'item' | 'lot'>, bin: string, units: number): void {
    const row = this.rows.get(keyOf(need))?.find((b) => b.bin === bin);
    if (!row || row.units < units) throw new RangeError(`Bin "${bin}" has not ${units} units free.`);
    row.units -= units;
  }

  giveBack(need: Pick<Need, 'item' | 'lot'>, bin: string, units: number): void {
    this.rows.get(keyOf(need))!.find((b) => b.bin === bin)!.units += units;
  }
}

const keyOf = ({ item, lot }: Pick<Need, 'item' | 'lot'>) => `${item}\u0000${lot ?? ''}`;

/** Bins best first by rules that need no walk; ties go to the lower code. */
export function ranked(bins: readonly BinStock[], rules: readonly BinRule[], units: number): BinStock[] {
  const plain = rules.filter((r) => r !== 'walk');
  return [...bins].sort((a, b) => (firstDifference(plain, a, b, units)?.order ?? 0) || (a.bin < b.bin ? -1 : 1));
}

/** Bins that the rules before `walk` hold for equally good as the best of them. */
export function equals(bins: readonly BinStock[], rules: readonly BinRule[], units: number): BinStock[] {
  const at = rules.indexOf('walk');
  if (at < 0) return [];
  const before = rules.slice(0, at);
  const best = ranked(bins, before, units)[0];
  return best ? bins.filter((b) => !firstDifference(before, best, b, units)) : [];
}

/**
 * Recommends bins for needs by a site's own order of rules, and says of each choice which rule decided. What one bin
 * does not hold is taken from the next best, the quantity still missing counted.
 */
export function chooseBins(
  stock: readonly BinStock[],
  needs: readonly Need[],
  options: ChooseOptions = {},
): BinChoices {
  const { rules = usualBinRules, lengthens, chosen } = options;
  const free = new FreeStock(stock);
  const choices: BinChoice[] = [];
  const missing: BinChoices['missing'] = [];
  for (const need of needs) {
    let left = need.units;
    while (left > 0) {
      const bins = free.of(need);
      if (bins.length === 0) break;
      const { bin, why } = best(bins, rules, { ...need, units: left }, lengthens);
      const units = Math.min(left, bin.units);
      free.take(need, bin.bin, units);
      left -= units;
      const choice = { need: need.id, bin: bin.bin, units, why };
      choices.push(choice);
      chosen?.(choice);
    }
    if (left > 0) missing.push({ need: need.id, units: left });
  }
  return { choices, missing, free };
}

function best(
  bins: BinStock[],
  rules: readonly BinRule[],
  need: Need,
  lengthens: ChooseOptions['lengthens'],
): { bin: BinStock; why: BinReason } {
  if (bins.length === 1) return { bin: bins[0]!, why: 'only' };
  const level = lengthens ? equals(bins, rules, need.units) : [];
  if (level.length > 1) {
    const order = ranked(level, rules, need.units);
    const walks = order.map((b) => lengthens!(need, b.bin));
    const least = Math.min(...walks);
    const nearest = order.filter((_, i) => walks[i]! <= least + 1e-9);
    if (nearest.length < order.length) return { bin: nearest[0]!, why: 'walk' };
  }
  const [first, second] = ranked(bins, rules, need.units) as [BinStock, BinStock];
  const decided = firstDifference(rules, first, second, need.units);
  return { bin: first, why: decided?.rule ?? 'code' };
}
