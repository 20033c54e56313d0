import fc from 'fast-check';
import { byPackRule } from '../packing/index.ts';
import { filledBy, freeOf, mustLook, proposeOrder, takeOut } from './index.ts';

// The worked example: the rule is common practice and has no source, its figures are made up.
describe('packaging, by the worked example', () => {
  it('is used by rule: so many in a box, so many on a pallet', () => {
    expect(filledBy(40, 40)).toEqual([40]);
    expect(filledBy(40, 41)).toEqual([40, 1]);
    expect([filledBy(10, 40).length, filledBy(40, 40).length]).toEqual([4, 1]);
    expect([filledBy(12, 130).length, filledBy(60, 130)]).toEqual([11, [60, 60, 10]]);
    expect(byPackRule({ perCarton: 12, perPallet: 60 }, 130)).toEqual({
      cartons: 11,
      pallets: 3,
      fullPallets: 2,
      rest: 10,
    });
    expect(() => filledBy(0, 5)).toThrow('received 0');
  });

  it('is reserved while it is closed, and free again when it is reopened', () => {
    const onHand = 14 + 25;
    expect(freeOf({ onHand, reserved: 1, onOrder: 0 })).toBe(38);
    expect(freeOf({ onHand, reserved: 0, onOrder: 0 })).toBe(39);
  });

  it('is ordered once it has fallen to its point: a lot, and no second one', () => {
    const rule = { point: 39, lot: 25 };
    expect(proposeOrder({ onHand: 40, reserved: 0, onOrder: 0 }, rule)).toBe(0);
    expect(proposeOrder({ onHand: 38, reserved: 0, onOrder: 0 }, rule)).toBe(25);
    expect(proposeOrder({ onHand: 38, reserved: 0, onOrder: 25 }, rule)).toBe(0);
    expect(proposeOrder({ onHand: 38 + 25, reserved: 0, onOrder: 0 }, rule)).toBe(0);
    expect(proposeOrder({ onHand: 0, reserved: 0, onOrder: 0 }, { point: null, lot: 25 })).toBe(0);
  });

  it('that was not there is looked for, and never less than nothing is left', () => {
    fc.assert(
      fc.property(fc.integer({ min: -5, max: 50 }), fc.integer({ min: 0, max: 50 }), (onHand, units) => {
        const { taken, missing } = takeOut(onHand, units);
        expect(taken + missing).toBe(units);
        expect(Math.max(0, onHand) - taken).toBeGreaterThanOrEqual(0);
        expect(missing === 0 || taken === Math.max(0, onHand)).toBe(true);
      }),
    );
  });

  it('that is expense is looked at after so many, or so many days', () => {
    const rule = { afterUsed: 200, afterDays: 14 };
    expect(mustLook({ used: 199, days: 13 }, rule)).toBe(false);
    expect(mustLook({ used: 200, days: 0 }, rule)).toBe(true);
    expect(mustLook({ used: 0, days: 14 }, rule)).toBe(true);
    expect(mustLook({ used: 999, days: 99 }, { afterUsed: null, afterDays: null })).toBe(false);
  });
});
