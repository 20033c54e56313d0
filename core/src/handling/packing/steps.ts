/** One kind of goods of a carton: how many units of it are in, of how many. */
export interface PackStep {
  item: string;
  inside: number;
  of: number;
}

export interface PackSteps {
  /** Goods in the order in which they are put in. */
  steps: PackStep[];
  /** For each place of the carton whether a unit is there. */
  filled: boolean[];
  /** The place of the next unit; null where all are in. */
  next: number | null;
}

/**
 * What a packer does next by the plan of a carton. Units of an item are alike: the first places of it are filled, whichever
 * unit was put in.
 *
 * @param places a unit each, in the order in which they are put in
 * @param inside units of each item that are in
 */
export function packSteps(places: readonly { item: string }[], inside: ReadonlyMap<string, number>): PackSteps {
  const left = new Map(inside);
  const filled = places.map(({ item }) => {
    const units = left.get(item) ?? 0;
    if (units > 0) left.set(item, units - 1);
    return units > 0;
  });
  const steps = [...new Set(places.map((p) => p.item))].map((item): PackStep => {
    const own = places.flatMap((p, i) => (p.item === item ? [filled[i]!] : []));
    return { item, inside: own.filter(Boolean).length, of: own.length };
  });
  const next = filled.indexOf(false);
  return { steps, filled, next: next < 0 ? null : next };
}
