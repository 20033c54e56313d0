/** What a wave holds reserved for a line, of one lot. */
export interface Reserved {
  wave: string;
  line: string;
  lot: string;
  units: number;
  /** Units of them that count as taken from the stock of this lot. */
  hardAllocated: number;
}

/**
 * Which reservations end as goods leave: those of the line and lot that leave, the wave in front first. Goods that leave
 * beyond what is reserved end nothing.
 *
 * @param reserved in the order of their waves
 * @param gone units that leave, by line and lot
 * @returns what is left of each reservation that changes
 */
export function consume(
  reserved: readonly Reserved[],
  gone: readonly { line: string; lot: string; units: number }[],
): Reserved[] {
  const keyOf = ({ line, lot }: { line: string; lot: string }) => JSON.stringify([line, lot]);
  const left = new Map<string, number>();
  for (const g of gone) left.set(keyOf(g), (left.get(keyOf(g)) ?? 0) + g.units);
  return reserved.flatMap((r) => {
    const units = Math.min(r.units, left.get(keyOf(r)) ?? 0);
    if (units <= 0) return [];
    left.set(keyOf(r), left.get(keyOf(r))! - units);
    return [{ ...r, units: r.units - units, hardAllocated: Math.max(0, r.hardAllocated - units) }];
  });
}
