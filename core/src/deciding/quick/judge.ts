/** Units of a line that were picked somewhere, as they are confirmed. */
export interface QuickPick {
  line: string;
  units: number;
  serials: readonly string[];
}

export interface AskedLine {
  order: string;
  /** Number of the line on its order. */
  line: number;
  sku: string;
  open: number;
  tracksSerial: boolean;
}

export type QuickRefusal =
  | { code: 'no-such-line'; line: string }
  | { code: 'quick-serials'; sku: string; units: number }
  | { code: 'quick-part'; order: string }
  | { code: 'quick-too-much'; sku: string; line: number; units: number; open: number };

/**
 * Whether what was picked may be confirmed as it is told: each line is of its order and gets no more than it asks, of
 * goods with serial numbers each unit is named, once, and an order that ships complete gets all of it.
 *
 * @param lines all lines of these orders
 * @param complete the orders that ship complete
 * @returns the first thing that is wrong, or null
 */
export function judgeQuick(
  orders: readonly { order: string; picks: readonly QuickPick[] }[],
  lines: ReadonlyMap<string, AskedLine>,
  complete: ReadonlySet<string>,
): QuickRefusal | null {
  const sums = new Map<string, { units: number; serials: Set<string> }>();
  for (const { order, picks } of orders)
    for (const { line: id, units, serials } of picks) {
      if (lines.get(id)?.order !== order) return { code: 'no-such-line', line: id };
      const sum = sums.get(id) ?? { units: 0, serials: new Set() };
      sum.units += units;
      for (const serial of serials) sum.serials.add(serial);
      sums.set(id, sum);
    }
  for (const [id, { units, serials }] of sums) {
    const { line, sku, open, tracksSerial } = lines.get(id)!;
    if (tracksSerial && serials.size !== units) return { code: 'quick-serials', sku, units };
    if (units > open) return { code: 'quick-too-much', line, sku, units, open };
  }
  for (const [id, { order, open }] of lines)
    if (complete.has(order) && (sums.get(id)?.units ?? 0) < open) return { code: 'quick-part', order };
  return null;
}
