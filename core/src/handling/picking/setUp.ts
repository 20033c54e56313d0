import { readCode } from '../../reading/codes/index.ts';

/** An order of a run and the place on the cart that it has, or is to have. */
export interface CartPlace {
  order: string;
  /** The number that people know the order by. */
  number: string;
  place: number;
  /** Somebody said that what it is picked into stands there. */
  ready: boolean;
}

/** A cart that is made ready for a run. */
export interface CartSetUp {
  cart: string;
  /** Places that the cart has. */
  size: number;
  places: CartPlace[];
}

/** An order has its place; `swapped` had it in the plan and gets the one that was planned for the first. */
export interface PlaceGiven {
  order: string;
  place: number;
  swapped: { order: string; place: number } | null;
}

export type SetUpRefusal = 'not-in-run' | 'no-cart-place' | 'place-taken' | 'not-awaited';

export type SetUpVerdict =
  /** An order was scanned: the place that is scanned next is its own. */
  | { verdict: 'chosen'; order: string }
  | ({ verdict: 'set' } & PlaceGiven)
  | { verdict: 'refused'; code: SetUpRefusal; expected: string; got: string };

/** The order that is set up next: the one that was scanned, which may move to another place, else the first in the plan that fits on the cart. */
export function nextToSetUp({ places, size }: CartSetUp, chosen: string | null): CartPlace | null {
  const open = places.filter((p) => !p.ready);
  return places.find((p) => p.order === chosen) ?? open.find((p) => p.place <= size) ?? open[0] ?? null;
}

/**
 * Says what a scan means while a cart is set up: an order or its packing slip chooses the order, a place gives it to the
 * order that is next. Places of the plan are proposals: another one may be scanned.
 *
 * @param chosen the order that was scanned last, null where none was
 * @param text what was scanned or typed
 * @param thisYear for the century of dates in GS1 symbols
 */
export function judgeSetUp(setUp: CartSetUp, chosen: string | null, text: string, thisYear: number): SetUpVerdict {
  const next = nextToSetUp(setUp, chosen);
  const label = (place: number) => `${setUp.cart}-${place}`;
  const expected = next ? label(next.place) : '';
  const refuse = (code: SetUpRefusal, got: string): SetUpVerdict => ({
    verdict: 'refused',
    code,
    expected,
    got,
  });
  const typed = text.trim().toUpperCase();
  // A house may call its carts as it likes: their own places are known by name.
  const own = Array.from({ length: setUp.size }, (_, i) => i + 1).find((n) => label(n).toUpperCase() === typed);
  if (own !== undefined) return set(own);
  const code = readCode(text, thisYear);
  if (code.kind === 'position')
    return code.cart === setUp.cart.toUpperCase() ? set(code.number) : refuse('not-awaited', text.trim());
  const number =
    code.kind === 'order'
      ? code.number
      : code.kind === 'gs1'
        ? code.elements.find((e) => e.ai === '400')?.value
        : typed;
  const order = setUp.places.find((p) => p.number.toUpperCase() === number?.toUpperCase());
  if (order) return { verdict: 'chosen', order: order.order };
  return code.kind === 'order' ? refuse('not-in-run', code.number) : refuse('not-awaited', text.trim());

  function set(place: number): SetUpVerdict {
    if (place < 1 || place > setUp.size) return refuse('no-cart-place', label(place));
    if (!next) return refuse('not-awaited', label(place));
    const there = setUp.places.find((p) => p.place === place && p.order !== next.order);
    if (there?.ready) return refuse('place-taken', there.number);
    return {
      verdict: 'set',
      order: next.order,
      place,
      swapped: there ? { order: there.order, place: next.place } : null,
    };
  }
}

/** Places as they are once an order was given one; given again, nothing changes. */
export function withPlace(places: readonly CartPlace[], { order, place, swapped }: PlaceGiven): CartPlace[] {
  return places.map((p) =>
    p.order === order ? { ...p, place, ready: true } : p.order === swapped?.order ? { ...p, place: swapped.place } : p,
  );
}
