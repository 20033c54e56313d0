/** A staging lane as it is now. */
export interface LaneNow {
  code: string;
  /** Metres, where it is placed on the plan. */
  at: { x: number; y: number } | null;
  /** Carts that are left in it. */
  carts: number;
  /** Carts that fit; null where nobody said. */
  fits: number | null;
}

export interface LaneAdvice {
  full: boolean;
  /** Not where the orders of the cart go. */
  other: boolean;
  /** Metres to the planned lane, walked along and across; null where either is not placed. */
  metres: number | null;
  /** The lane with room that is the least walk away, where this one is full. */
  instead: string | null;
}

/**
 * What to say of the lane in which a cart is about to be left.
 *
 * @param planned the lane in which its orders are expected, null where any will do
 * @returns null where there is nothing to say
 */
export function laneAdvice(lanes: readonly LaneNow[], code: string, planned: string | null): LaneAdvice | null {
  const lane = lanes.find((l) => l.code === code);
  if (!lane) return null;
  const full = isFull(lane);
  const other = planned !== null && planned !== code;
  if (!full && !other) return null;
  const target = lanes.find((l) => l.code === planned) ?? lane;
  // The planned one first, then what is near it; lanes that are not placed come last.
  const [instead] = lanes
    .filter((l) => l.code !== code && !isFull(l))
    .map((l) => ({ code: l.code, metres: l.code === planned ? -1 : (metresBetween(l, target) ?? Infinity) }))
    .sort((a, b) => a.metres - b.metres || (a.code < b.code ? -1 : 1));
  return {
    full,
    other,
    metres: other ? metresBetween(lane, target) : null,
    instead: full ? (instead?.code ?? null) : null,
  };
}

const isFull = ({ carts, fits }: LaneNow) => fits !== null && carts >= fits;

function metresBetween(a: LaneNow, b: LaneNow): number | null {
  return a.at && b.at ? Math.abs(a.at.x - b.at.x) + Math.abs(a.at.y - b.at.y) : null;
}
