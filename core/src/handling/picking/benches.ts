/** A bench that a cart may be left at, with what it is for. */
export interface BenchNow {
  code: string;
  /** Only for orders that go with this carrier; null for every one. */
  carrier: string | null;
  /** Only for goods of this zone. */
  zone: string | null;
  /** Only for carts with a unit of at least so many litres. */
  fromLitres: number | null;
  /** Carts that stand there, and that fit; null where nobody said. */
  carts: number;
  fits: number | null;
}

/** What is on a cart: carriers of its orders, zones of its goods, and litres of its largest unit. */
export interface CartLoad {
  carriers: readonly string[];
  zones: readonly string[];
  largestLitres: number;
}

/**
 * The bench for a cart, by what the site says its benches are for: the one with the most exact rule that all of the cart
 * meets; of equal ones one with room, then the one with the fewest carts.
 *
 * @returns null where no bench with a rule takes it: it goes to the lane of its orders
 */
export function benchFor(benches: readonly BenchNow[], { carriers, zones, largestLitres }: CartLoad): string | null {
  const all = (of: readonly string[], wanted: string | null) =>
    wanted === null || (of.length > 0 && of.every((one) => one === wanted));
  const rules = (b: BenchNow) => [b.carrier, b.zone, b.fromLitres].filter((rule) => rule !== null).length;
  const full = (b: BenchNow) => (b.fits !== null && b.carts >= b.fits ? 1 : 0);
  const [best] = benches
    .filter(
      (b) => rules(b) > 0 && all(carriers, b.carrier) && all(zones, b.zone) && largestLitres >= (b.fromLitres ?? 0),
    )
    .sort((a, b) => rules(b) - rules(a) || full(a) - full(b) || a.carts - b.carts || (a.code < b.code ? -1 : 1));
  return best?.code ?? null;
}
