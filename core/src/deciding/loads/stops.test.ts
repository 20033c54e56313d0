import fc from 'fast-check';
import { addressKey, areaOf, numberStops, type Address } from './index.ts';

const at = (street: string, more: Partial<Address> = {}): Address => ({
  street,
  postcode: 'ZA1 2BC',
  city: 'Dunmere',
  country: 'GB',
  ...more,
});

describe('the stops of a load', () => {
  it('takes one address for one stop, however it is written', () => {
    expect(addressKey(at('5 Weir Street'))).toBe(addressKey(at('5  weir-street', { postcode: 'za12bc' })));
    expect(addressKey(at('5 Weir Street'))).not.toBe(addressKey(at('5 Weir Street', { country: 'IE' })));
  });

  it('gives an order that joins the stop of its address, or a new one at the end', () => {
    const orders = [
      { address: at('1 Weir Street'), stop: 2 },
      { address: at('9 Mill Lane'), stop: 1 },
      { address: at('9 mill lane'), stop: null },
      { address: at('4 Kiln Row'), stop: null },
    ];
    expect(numberStops(orders)).toEqual([2, 1, 1, 3]);
  });

  it('closes gaps, and keeps two addresses apart that had one number', () => {
    expect(
      numberStops([
        { address: at('a'), stop: 7 },
        { address: at('b'), stop: 3 },
      ]),
    ).toEqual([2, 1]);
    expect(
      numberStops([
        { address: at('a'), stop: 1 },
        { address: at('b'), stop: 1 },
      ]),
    ).toEqual([1, 2]);
  });

  it('keeps the order of stops that are known, and leaves no gap', () => {
    const orders = fc.array(
      fc.record({
        address: fc.constantFrom('a', 'b', 'c', 'd', 'e').map((street) => at(street)),
        stop: fc.option(fc.integer({ min: 1, max: 9 })),
      }),
    );
    fc.assert(
      fc.property(orders, (some) => {
        const stops = numberStops(some);
        const different = [...new Set(stops)].sort((a, b) => a - b);
        expect(different).toEqual(different.map((_, i) => i + 1));
        // Numbered once, numbered again: nothing moves.
        expect(numberStops(some.map((o, i) => ({ ...o, stop: stops[i]! })))).toEqual(stops);
        const joining = some.flatMap((o, i) => (o.stop === null ? [i] : []));
        const known = new Set(some.filter((o) => o.stop !== null).map((o) => addressKey(o.address)));
        const last = Math.max(0, ...stops.filter((_, i) => some[i]!.stop !== null));
        for (const i of joining) if (!known.has(addressKey(some[i]!.address))) expect(stops[i]).toBeGreaterThan(last);
      }),
    );
  });

  it('names the district of a postcode', () => {
    expect(['ZA1 2BC', 'zb9', '48143', '8021', 'D-48143', '', '  ', '1'].map(areaOf)).toEqual([
      'ZA',
      'ZB',
      '48',
      '80',
      'D',
      '',
      '',
      '1',
    ]);
  });
});
