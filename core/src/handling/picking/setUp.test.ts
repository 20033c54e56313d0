import fc from 'fast-check';
import { judgeSetUp, nextToSetUp, withPlace, type CartPlace, type CartSetUp } from './index.ts';

const place = (n: number, ready = false): CartPlace => ({ order: `o${n}`, number: `LA-2000${n}`, place: n, ready });
const cart = (...places: CartPlace[]): CartSetUp => ({ cart: 'CART-07', size: 4, places });
const judge = (setUp: CartSetUp, text: string, chosen: string | null = null) => judgeSetUp(setUp, chosen, text, 2026);

describe('a cart that is set up', () => {
  it.each<[string, CartSetUp, string, string | null, object]>([
    [
      'as planned',
      cart(place(1), place(2)),
      'CART-07-1',
      null,
      { verdict: 'set', order: 'o1', place: 1, swapped: null },
    ],
    ['the next one', cart(place(1, true), place(2)), 'cart-07-2', null, { verdict: 'set', order: 'o2', place: 2 }],
    ['another free place', cart(place(1)), 'CART-07-4', null, { verdict: 'set', order: 'o1', place: 4 }],
    [
      'one planned for another',
      cart(place(1), place(2)),
      'CART-07-2',
      null,
      { order: 'o1', place: 2, swapped: { order: 'o2', place: 1 } },
    ],
    ['one that is taken', cart(place(1, true), place(2)), 'CART-07-1', null, { code: 'place-taken', got: 'LA-20001' }],
    ['one that the cart has not', cart(place(1)), 'CART-07-9', null, { code: 'no-cart-place', got: 'CART-07-9' }],
    ['one of another cart', cart(place(1)), 'CART-08-1', null, { code: 'not-awaited', expected: 'CART-07-1' }],
    ['an order', cart(place(1), place(2)), 'ORDER-LA-20002', null, { verdict: 'chosen', order: 'o2' }],
    ['its number, typed', cart(place(1), place(2)), 'la-20002', null, { verdict: 'chosen', order: 'o2' }],
    ['the symbol on its label', cart(place(1), place(2)), ']C1400LA-20002', null, { verdict: 'chosen', order: 'o2' }],
    ['the chosen one', cart(place(1), place(2)), 'CART-07-2', 'o2', { verdict: 'set', order: 'o2', place: 2 }],
    ['an order of another run', cart(place(1)), 'ORDER-LA-29999', null, { code: 'not-in-run', got: 'LA-29999' }],
    ['goods', cart(place(1)), '9521234001010', null, { code: 'not-awaited' }],
  ])('%s', (_, setUp, text, chosen, verdict) => expect(judge(setUp, text, chosen)).toMatchObject(verdict));

  it('gives each order a place of its own, whatever is scanned, and is ready once each was given one that fits', () => {
    const scans = fc.array(
      fc.record({ place: fc.integer({ min: 0, max: 6 }), order: fc.integer({ min: 0, max: 6 }) }),
      {
        maxLength: 40,
      },
    );
    fc.assert(
      fc.property(fc.integer({ min: 1, max: 6 }), fc.integer({ min: 1, max: 6 }), scans, (orders, size, list) => {
        let places = Array.from({ length: orders }, (_, i) => place(i + 1));
        for (const s of list) {
          const setUp = { cart: 'CART-07', size, places };
          const chosen = judgeSetUp(setUp, null, `ORDER-LA-2000${s.order}`, 2026);
          expect(chosen.verdict === 'chosen').toBe(s.order >= 1 && s.order <= orders);
          const order = chosen.verdict === 'chosen' ? chosen.order : null;
          const got = judgeSetUp(setUp, order, `CART-07-${s.place}`, 2026);
          if (got.verdict !== 'set') continue;
          expect(got.order).toBe(nextToSetUp(setUp, order)!.order);
          places = withPlace(places, got);
          // A device lays it over what the server may have told already.
          expect(withPlace(places, got)).toEqual(places);
          expect(new Set(places.map((p) => p.place)).size).toBe(orders);
          expect(places.every((p) => !p.ready || (p.place >= 1 && p.place <= size))).toBe(true);
        }
      }),
    );
  });
});
