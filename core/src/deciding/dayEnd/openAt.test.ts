import fc from 'fast-check';
import { actsFor, openAt } from './index.ts';

const units = (asked: number, released: number, picked: number, packed: number, shipped: number) => ({
  asked,
  released,
  picked,
  packed,
  shipped,
});

describe('what is open of an order at the end of a day', () => {
  it('waits at the earliest leg that has units left', () => {
    expect(openAt(units(10, 4, 4, 2, 0))).toEqual({ waits: { release: 6, pick: 0, pack: 2, ship: 2 }, at: 'release' });
    expect(openAt(units(10, 10, 7, 7, 0)).at).toBe('pick');
    expect(openAt(units(10, 10, 10, 10, 4)).at).toBe('ship');
    expect(openAt(units(10, 10, 10, 10, 10)).at).toBeNull();
  });

  it('can be shipped short only where what is packed waits for nothing that is under way', () => {
    const acts = (of: Parameters<typeof openAt>[0], shipComplete = false) =>
      actsFor(openAt(of).waits, { shipComplete });
    expect(acts(units(10, 6, 6, 6, 0))).toEqual(['move', 'ship-short', 'cancel']);
    expect(acts(units(10, 6, 6, 6, 0), true)).toEqual(['move', 'cancel']);
    expect(acts(units(10, 6, 5, 5, 0))).toEqual(['move', 'cancel']);
    expect(acts(units(10, 10, 10, 10, 0))).toEqual(['move']);
    expect(acts(units(10, 0, 0, 0, 0))).toEqual(['move', 'cancel']);
    expect(acts(units(10, 10, 10, 10, 10))).toEqual([]);
  });

  it('adds up to what is not shipped, whatever was done', () => {
    const five = fc.array(fc.nat(99), { minLength: 5, maxLength: 5 }).map((a) => a.sort((x, y) => y - x));
    fc.assert(
      fc.property(five, ([asked, released, picked, packed, shipped]) => {
        const { waits, at } = openAt(units(asked!, released!, picked!, packed!, shipped!));
        expect(Object.values(waits).reduce((n, w) => n + w, 0)).toBe(asked! - shipped!);
        expect(at === null).toBe(asked === shipped);
      }),
    );
  });
});
