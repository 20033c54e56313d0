/** What lies free in a bin: on hand less what open picks will take from it. */
export interface BinStock {
  bin: string;
  item: string;
  lot: string | null;
  units: number;
}

/** Units of an item and lot that an order line needs from somewhere. */
export interface Need {
  id: string;
  item: string;
  lot: string | null;
  units: number;
}

export interface BinChoice {
  need: string;
  bin: string;
  units: number;
}

export interface BinChoices {
  choices: BinChoice[];
  /** Needs that the bins cannot cover, with the units missing. */
  missing: { need: string; units: number }[];
}

/**
 * Recommends bins for needs: the whole quantity from one bin where one holds it, the fullest use of a small
 * remainder first so that bins become empty, else the fewest bins. Ties go to the lower bin code.
 */
export function chooseBins(stock: BinStock[], needs: Need[]): BinChoices {
  const free = new Map<string, BinStock[]>();
  const key = (item: string, lot: string | null) => `${item}\u0000${lot ?? ''}`;
  for (const row of stock) {
    const k = key(row.item, row.lot);
    const rows = free.get(k);
    if (rows) rows.push({ ...row });
    else free.set(k, [{ ...row }]);
  }
  const choices: BinChoice[] = [];
  const missing: BinChoices['missing'] = [];
  for (const need of needs) {
    const bins = (free.get(key(need.item, need.lot)) ?? []).filter((b) => b.units > 0);
    const order = (a: BinStock, b: BinStock) => a.units - b.units || (a.bin < b.bin ? -1 : 1);
    const whole = bins.filter((b) => b.units >= need.units).sort(order)[0];
    let left = need.units;
    for (const bin of whole ? [whole] : bins.sort((a, b) => order(b, a))) {
      if (left === 0) break;
      const units = Math.min(left, bin.units);
      bin.units -= units;
      left -= units;
      choices.push({ need: need.id, bin: bin.bin, units });
    }
    if (left > 0) missing.push({ need: need.id, units: left });
  }
  return { choices, missing };
}
