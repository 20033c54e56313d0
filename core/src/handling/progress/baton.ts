/** What has become of what an order, wave or load asks, in base units; cancelled units are no longer asked. */
export interface Amounts {
  asked: number;
  released: number;
  picked: number;
  packed: number;
  shipped: number;
}

export const legs = ['desk', 'floor', 'bench', 'dock'] as const;
export type Leg = (typeof legs)[number];

export interface Baton {
  /** Share worked of each leg, 0 to 1. */
  filled: Record<Leg, number>;
  /** The leg being worked; null when all is done or nothing is asked. */
  at: Leg | null;
  late: boolean;
}

/**
 * The baton of an order: each leg's share of what is asked, and the leg that holds work back: the first one that
 * is not full.
 *
 * @param due instant by which it must have left, in milliseconds, or null
 * @param now the present instant in milliseconds
 */
export function baton(amounts: Amounts, due: number | null, now: number): Baton {
  const { asked, released, picked, packed, shipped } = amounts;
  const share = (part: number) => (asked > 0 ? Math.min(1, part / asked) : 0);
  const filled = { desk: share(released), floor: share(picked), bench: share(packed), dock: share(shipped) };
  const at = asked > 0 ? (legs.find((leg) => filled[leg] < 1) ?? null) : null;
  return { filled, at, late: at !== null && due !== null && now > due };
}
