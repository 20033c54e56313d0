/**
 * How a type of packaging is accounted for. Not at all; as expense: bought and used up, with a reminder to look; by the
 * day: what was closed leaves stock in one posting; with the unit: reserved when it is closed, booked out when it ships.
 */
export const accountings = ['none', 'expense', 'daily', 'with-unit'] as const;
export type Accounting = (typeof accountings)[number];

/** Why packaging came or went. */
export const packagingReasons = ['receipt', 'count', 'daily', 'shipped'] as const;
export type PackagingReason = (typeof packagingReasons)[number];

export interface PackagingStock {
  onHand: number;
  /** Closed units that have not shipped, where the type is accounted for with the unit. */
  reserved: number;
  onOrder: number;
}

/** What may still be used. */
export const freeOf = ({ onHand, reserved }: PackagingStock): number => Math.max(0, onHand - reserved);

/**
 * What to buy: one lot, once on hand and on order less reserved has fallen to the reorder point.
 *
 * @param point null where nothing is proposed
 * @returns units to order; 0 where there is enough
 *
 * @example
 * proposeOrder({ onHand: 38, reserved: 0, onOrder: 0 }, { point: 39, lot: 25 }) // 25
 */
export function proposeOrder(
  { onHand, reserved, onOrder }: PackagingStock,
  { point, lot }: { point: number | null; lot: number },
): number {
  return point !== null && onHand + onOrder - reserved <= point ? lot : 0;
}

/**
 * What leaves stock of units that are used, and what was not there: packing went on, so somebody counted wrongly.
 *
 * @returns `taken` leaves what is on hand, `missing` is looked for
 */
export function takeOut(onHand: number, units: number): { taken: number; missing: number } {
  const taken = Math.min(Math.max(0, onHand), units);
  return { taken, missing: units - taken };
}

/**
 * Whether somebody should look how much is left of a type that is expense: after so many were used, or so many days.
 *
 * @param since what was used, and days that went by, since somebody looked last
 */
export function mustLook(
  since: { used: number; days: number },
  { afterUsed, afterDays }: { afterUsed: number | null; afterDays: number | null },
): boolean {
  return (afterUsed !== null && since.used >= afterUsed) || (afterDays !== null && since.days >= afterDays);
}

/**
 * Units of packaging that goods take by a rule, with what is in each: full ones, and the last with the rest.
 *
 * @throws RangeError where the rule holds no whole, positive number
 *
 * @example
 * filledBy(40, 41) // [40, 1]
 */
export function filledBy(perUnit: number, units: number): number[] {
  if (!Number.isInteger(perUnit) || perUnit < 1)
    throw new RangeError(`A rule counts whole units, received ${perUnit}.`);
  const full = Math.floor(units / perUnit);
  const rest = units % perUnit;
  return [...Array.from({ length: full }, () => perUnit), ...(rest > 0 ? [rest] : [])];
}
