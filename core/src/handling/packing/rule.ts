/** A pack rule: units of an item in one carton, and on one pallet, a multiple of it. */
export interface PackRule {
  perCarton: number;
  perPallet: number;
}

/**
 * Pallets and cartons of so many units: the last of each may be less than full.
 *
 * @returns `rest` is the units beyond the full pallets
 * @throws RangeError when the rule's counts are not whole and positive, or a pallet holds no whole number of cartons
 *
 * @example
 * byPackRule({ perCarton: 12, perPallet: 60 }, 130) // { pallets: 3, fullPallets: 2, cartons: 11, rest: 10 }
 */
export function byPackRule({ perCarton, perPallet }: PackRule, units: number) {
  for (const n of [perCarton, perPallet])
    if (!Number.isInteger(n) || n < 1) throw new RangeError(`A pack rule counts whole units, received ${n}.`);
  if (perPallet % perCarton !== 0)
    throw new RangeError(`${perPallet} on a pallet are no whole cartons of ${perCarton}.`);
  return {
    pallets: Math.ceil(units / perPallet),
    fullPallets: Math.floor(units / perPallet),
    cartons: Math.ceil(units / perCarton),
    rest: units % perPallet,
  };
}
