/** Units of a lot, and of one serial number where the item has them. */
interface Goods {
  lot: string;
  serial: string;
  units: number;
}

/** What is put into a carton of one item: from which place how much, and for which line. */
export interface Received<P extends Goods, L extends { lot: string }> {
  moves: { from: P; units: number }[];
  lines: { line: L; serial: string; units: number }[];
}

/**
 * Which goods of an order go into a carton, and which of its lines receives them. Goods are taken from the place in front
 * first. The first line receives what was picked for it of that lot: two lines of one item are told apart by nothing else.
 *
 * @param lying goods of the item on the order's carts
 * @param lines units that were picked for each line and are in no carton yet, by lot, in the order of the lines
 * @param parts what is put in
 */
export function receive<P extends Goods, L extends { lot: string; units: number }>(
  lying: readonly P[],
  lines: readonly L[],
  parts: readonly Goods[],
): Received<P, L> {
  const there = lying.map((p) => p.units);
  const lacking = lines.map((l) => l.units);
  const received: Received<P, L> = { moves: [], lines: [] };
  for (const { lot, serial, units } of parts) {
    takeFrom(lying, there, units, (p) => p.lot === lot && p.serial === serial).forEach(({ from, units: n }) =>
      received.moves.push({ from, units: n }),
    );
    takeFrom(lines, lacking, units, (l) => l.lot === lot).forEach(({ from, units: n }) =>
      received.lines.push({ line: from, serial, units: n }),
    );
  }
  return received;
}

/**
 * Which lines give up goods that are taken out of a carton: the last line first, as the first one received first.
 *
 * @param inside units of these goods that each line has in the carton, in the order of the lines
 */
export function giveUp<L extends { units: number }>(inside: readonly L[], units: number): { line: L; units: number }[] {
  const last = [...inside].reverse();
  return takeFrom(
    last,
    last.map((l) => l.units),
    units,
    () => true,
  ).map(({ from, units: n }) => ({ line: from, units: n }));
}

/** Takes units from the first rows that suit, lowering what is left of each. */
function takeFrom<T>(
  rows: readonly T[],
  left: number[],
  units: number,
  suits: (row: T) => boolean,
): { from: T; units: number }[] {
  let rest = units;
  return rows.flatMap((from, i) => {
    const some = suits(from) ? Math.min(rest, left[i]!) : 0;
    if (some <= 0) return [];
    rest -= some;
    left[i]! -= some;
    return [{ from, units: some }];
  });
}
