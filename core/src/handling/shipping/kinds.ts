/**
 * The four kinds of demand. They are released and picked the same way and end differently: an `order` is invoiced, an
 * `invoiced` one was before and never is again, a `transfer` arrives as supply at another site, and goods for
 * `production` are issued here, by no carrier.
 */
export const demandKinds = ['order', 'invoiced', 'transfer', 'production'] as const;
export type DemandKind = (typeof demandKinds)[number];

export interface Closing {
  /** Whether the host is asked to invoice what left. */
  invoice: boolean;
  /** Whether a carrier's tracking number can be needed. */
  carried: boolean;
  /** Whether what left is supply on its way to another site. */
  arrives: boolean;
}

/** How demand of a kind ends when its goods are confirmed. */
export function closingOf(kind: DemandKind): Closing {
  return { invoice: kind === 'order', carried: kind !== 'production', arrives: kind === 'transfer' };
}
