/** Picked goods in a place of a cart: one row for each pick, lot and serial number there. */
export interface Loose {
  pick: string;
  place: string;
  lot: string;
  serial: string;
  /** Units that were picked by this pick. */
  units: number;
  /** Units of this lot and serial number in the place, of whatever pick. */
  there: number;
}

/**
 * Which picked goods of a line are taken off its carts: those in front first. A place may hold the same goods for another
 * line, and two picks of one line lie in it as one; no more is taken than was picked, is there and is in no carton.
 *
 * @param notPacked units of the line that were picked and are in no carton, by lot
 * @param most units to take at most
 * @returns how many units of which; as many as can be
 */
export function offCarts<T extends Loose>(
  loose: readonly T[],
  notPacked: ReadonlyMap<string, number>,
  most: number,
): { from: T; units: number }[] {
  const spotOf = ({ place, lot, serial }: Loose) => JSON.stringify([place, lot, serial]);
  const ofPick = new Map(loose.map((l) => [l.pick, l.units]));
  const inSpot = new Map(loose.map((l) => [spotOf(l), l.there]));
  const ofLot = new Map(notPacked);
  const taken: { from: T; units: number }[] = [];
  let rest = most;
  for (const from of loose) {
    const spot = spotOf(from);
    const units = Math.min(rest, ofPick.get(from.pick)!, inSpot.get(spot)!, ofLot.get(from.lot) ?? 0);
    if (units <= 0) continue;
    rest -= units;
    ofPick.set(from.pick, ofPick.get(from.pick)! - units);
    inSpot.set(spot, inSpot.get(spot)! - units);
    ofLot.set(from.lot, ofLot.get(from.lot)! - units);
    taken.push({ from, units });
  }
  return taken;
}

/**
 * Which packed goods of a line are taken out of cartons, and by which pick they came: cartons and picks in front first.
 *
 * @param packed what of the line each carton holds, by lot
 * @param picks what of the line was picked, by lot
 * @param most units to take at most
 */
export function outOfCartons<C extends { lot: string; units: number }, P extends { lot: string; units: number }>(
  packed: readonly C[],
  picks: readonly P[],
  most: number,
): { from: C; pick: P; units: number }[] {
  const left = picks.map((p) => p.units);
  const taken: { from: C; pick: P; units: number }[] = [];
  let rest = most;
  for (const from of packed) {
    let inCarton = from.units;
    picks.forEach((pick, i) => {
      const units = pick.lot === from.lot ? Math.min(rest, inCarton, left[i]!) : 0;
      if (units <= 0) return;
      rest -= units;
      inCarton -= units;
      left[i]! -= units;
      taken.push({ from, pick, units });
    });
  }
  return taken;
}
