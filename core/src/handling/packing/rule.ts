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

/** A rule as a site keeps it; null stands for every customer, every country, any type of carton. */
export interface KeptRule {
  item: string;
  customer: string | null;
  country: string | null;
  carton: string | null;
  perCarton: number;
  perPallet: number | null;
}

/**
 * The rule for an item that goes to a customer in a country: the most exact one, a customer's before a country's.
 *
 * @returns undefined where none is kept
 */
export function ruleFor<R extends Pick<KeptRule, 'item' | 'customer' | 'country'>>(
  rules: readonly R[],
  { item, customer, country }: { item: string; customer: string; country: string },
): R | undefined {
  const exactness = (r: R) => (r.customer === null ? 0 : 2) + (r.country === null ? 0 : 1);
  return rules
    .filter((r) => r.item === item && (r.customer ?? customer) === customer && (r.country ?? country) === country)
    .sort((a, b) => exactness(b) - exactness(a))[0];
}
