import fc from 'fast-check';
import { usualSettings } from '../../deciding/settings/index.ts';
import {
  freshProgress,
  goesBack,
  inTurn,
  lastDone,
  leavesNearlyNothing,
  nextOpen,
  outcomeOf,
  type PickProgress,
  type PickStep,
} from './index.ts';

const step = (units: number, elsewhere: number): PickStep => ({
  id: 'p',
  bin: 'A-01-1',
  item: { id: 'i', sku: 'JR-001', name: 'Jar', packs: [], tracksLot: false, tracksSerial: false },
  lot: null,
  serialsInBin: [],
  units,
  position: { cart: 'CART-01', number: 1 },
  carton: null,
  how: usualSettings.picking.many,
  otherLots: [],
  elsewhere: [{ bin: 'C-01-1', lot: null, units: elsewhere, serials: [], at: { aisle: 'C', y: 1 } }],
  bestBefore: null,
  stopped: null,
});
const progress = (part: Partial<PickProgress>): PickProgress => ({ ...freshProgress, ...part });
const elsewhere = { bin: 'C-01-1', lot: null };

describe('what a confirmed pick comes to', () => {
  it('is done, short, or out of a bin from which all of it is taken elsewhere', () => {
    expect(outcomeOf(step(5, 9), progress({ counted: 5 }), 5)).toMatchObject({ state: 'done', missing: 0, keeps: 5 });
    expect(outcomeOf(step(5, 9), progress({ found: 2 }), 2)).toMatchObject({ state: 'short', missing: 3, rest: null });
    const some = outcomeOf(step(5, 9), progress({ found: 2, rest: elsewhere }), 2);
    expect(some).toMatchObject({ state: 'done', missing: 0, keeps: 2, rest: { bin: 'C-01-1', units: 3 } });
    const none = outcomeOf(step(5, 9), progress({ found: 0, rest: elsewhere }), 0);
    expect(none).toMatchObject({ state: 'out', missing: 0, keeps: 1, rest: { units: 5 } });
    // The other bin holds only a part: the others are missing.
    const part = outcomeOf(step(5, 1), progress({ found: 2, rest: elsewhere }), 2);
    expect(part).toMatchObject({ state: 'short', missing: 2, keeps: 4, rest: { units: 1 } });
  });

  it('loses no unit: what is in hand, missing and asked elsewhere is what was asked', () => {
    fc.assert(
      fc.property(fc.integer({ min: 1, max: 30 }), fc.nat(40), fc.nat(30), fc.boolean(), (units, there, hand, rest) => {
        fc.pre(hand <= units);
        const found = hand < units ? hand : null;
        const got = outcomeOf(step(units, there), progress({ found, rest: rest ? elsewhere : null }), hand);
        expect(got.picked + got.missing + (got.rest?.units ?? 0)).toBe(units);
        expect(got.missing).toBeGreaterThanOrEqual(0);
        expect(got.state === 'short').toBe(got.missing > 0);
        expect(got.keeps + (got.rest?.units ?? 0)).toBe(got.state === 'out' ? units + 1 : units);
      }),
    );
  });

  it('asks for a look into the bin where nearly nothing should be left, and nothing was missing', () => {
    const done = outcomeOf(step(5, 0), progress({ counted: 5 }), 5);
    expect([2, 3, 4].map((remains) => leavesNearlyNothing(remains, 3, done))).toEqual([true, true, false]);
    expect(leavesNearlyNothing(0, -1, done)).toBe(false);
    expect(leavesNearlyNothing(0, 3, outcomeOf(step(5, 0), progress({ found: 4 }), 4))).toBe(false);
    expect(leavesNearlyNothing(0, 3, outcomeOf(step(5, 9), progress({ found: 4, rest: elsewhere }), 4))).toBe(false);
  });
});

describe('turns of picks', () => {
  const picks = (text: string) => [...text].map((c, n) => ({ id: `p${n}`, open: c !== 'd', held: c === 'h' }));
  it('go on behind the last, round to the first, past what is done or on hold', () => {
    expect(nextOpen(picks('ooo'), 'p1')).toBe('p2');
    expect(nextOpen(picks('oohd'), 'p1')).toBe('p0');
    expect(nextOpen(picks('dohd'), 'p1')).toBeNull();
    expect(nextOpen(picks('do'), 'gone')).toBe('p1');
  });

  it('turn round a pick that is taken out of turn, and one that is put off comes last; none is lost', () => {
    const order = (text: string, next: string, last?: string) => inTurn(picks(text), next, last).map((p) => p.id[1]);
    expect(order('doooo', 'p3').join('')).toBe('03412');
    expect(order('doooo', 'p2', 'p1').join('')).toBe('02341');
    expect(order('oo', 'gone').join('')).toBe('01');
    fc.assert(
      fc.property(
        fc.string({ unit: fc.constantFrom('o', 'd', 'h'), maxLength: 12 }),
        fc.nat(12),
        fc.nat(12),
        (t, a, b) => {
          const all = picks(t);
          expect(
            inTurn(all, `p${a}`, `p${b}`)
              .map((p) => p.id)
              .sort(),
          ).toEqual(all.map((p) => p.id).sort());
        },
      ),
    );
  });

  it('end with the pick that was done last, here before anywhere else', () => {
    const done = (id: string, confirmedAt: string | null, open = false) => ({ id, open, confirmedAt });
    const all = [
      done('a', '2026-03-02T10:00:00Z'),
      done('b', '2026-03-02T10:05:00Z'),
      done('c', null),
      done('d', null, true),
    ];
    expect(lastDone(all)?.id).toBe('b');
    expect(lastDone(all, ['a', 'c', 'd'])?.id).toBe('c');
    expect(lastDone([all[3]!])).toBeNull();
  });
});

describe('undoing a pick', () => {
  it('gives back what is still there, and what was written off as missing whole', () => {
    const made = [
      { to: 'cart', units: 3, there: 3 },
      { to: 'carton', units: 2, there: 1 },
      { to: 'gone', units: 4, there: 0 },
    ];
    expect(goesBack(made, 5, 'gone')).toEqual({
      back: [made[0], { ...made[1], units: 1 }, made[2]],
      gone: 1,
    });
    expect(goesBack(made, 3, 'gone')).toEqual({ back: [made[0], made[2]], gone: 0 });
  });
});
