import type { RunPick } from '@hand-relay/contract';
import { usualSettings } from '@hand-relay/core/deciding/settings';
import { aPick } from '../test/aPick.ts';
import '../text/index.ts';
import { cardWords, cellsOf, countUnits, touchRule } from './card.ts';

const pick = aPick;
const plain = (text: string) => text.replaceAll('\u2011', '-');

describe('what the card says of a pick', () => {
  it('asks for the bin, then the goods, then the place, each in its own words', () => {
    const at = (progress: Partial<RunPick['progress']>) => {
      const { await: wait, code, unit, touch } = cardWords(pick({}, {}, progress), undefined);
      return [wait, code, unit, touch];
    };
    expect(at({})).toEqual(['bin', 'A-01-1', undefined, 'At the bin']);
    expect(at({ bin: true })).toEqual(['item', '12', '× jar', 'All 12']);
    expect(at({ bin: true, counted: 5, seen: true })).toEqual(['item', '7', '× jar', 'All 12']);
    expect(at({ bin: true, counted: 12 })).toEqual(['position', 'Place 3', undefined, 'Placed']);
  });

  it('counts as the order does, with what that is in the base unit', () => {
    const inner = { askedIn: 'inner' as const };
    const words = cardWords(pick(inner, { countedBy: 6 }, { bin: true }), undefined);
    expect([words.code, words.unit, words.count]).toEqual(['2', '× inner of 6 jar', '2 inner = 12 × jar']);
    // Some are left over: then units are asked.
    expect(cardWords(pick(inner, { units: 13 }, { bin: true }), undefined).code).toBe('13');
    expect(countUnits(pick(inner, { countedBy: 6 })).map((u) => [u.name, u.units])).toEqual([
      ['× inner of 6 jar', 6],
      ['× jar', 1],
    ]);
  });

  it('gives no key where only a scan will do, and none where each unit is scanned', () => {
    const never = { bin: 'never', item: 'never', lot: 'never', position: 'never' } as const;
    expect(cardWords(pick({}, { touch: never }), undefined).touch).toBeNull();
    expect(touchRule(pick({}, { touch: never }, { bin: true, seen: true }))).toBe('allowed');
    const each = { how: { ...usualSettings.picking.many, counting: 'each' as const } };
    expect(cardWords(pick({}, each, { bin: true }), undefined).touch).toBeNull();
  });

  it('says where the walk goes on and what will be left, and what tells look-alikes apart until the goods are in hand', () => {
    const next = pick({}, { id: 'p2', bin: 'B-02-2', item: { ...pick().step.item, id: 'i2' } });
    const foot = (now: RunPick, then?: RunPick) => cardWords(now, then).foot.map((f) => plain(f.value));
    expect(foot(pick(), next)).toEqual(['4', 'B-02-2']);
    expect(foot(pick({ remains: 0 }), pick())).toEqual(['None: bin empty', 'Same item again']);
    expect(foot(pick())[1]).toBe('Last pick');
    const alike = { this: '370 g', other: '500 g', name: 'Jar', bin: 'A-01-2' } as RunPick['lookAlike'];
    expect(plain(cardWords(pick({ lookAlike: alike }), undefined).alike!)).toContain('(A-01-2)');
    expect(cardWords(pick({ lookAlike: alike }, {}, { bin: true, counted: 12 }), undefined).alike).toBeUndefined();
  });

  it('shows the places of the cart with what is still to do in each', () => {
    const other = pick(
      { state: 'done', order: { id: 'o2', number: 'LA-0002', note: '', hold: null } },
      { position: { cart: 'CART-01', number: 1 } },
    );
    expect(cellsOf([pick(), other, pick({ state: 'done' })]).map((c) => [c.number, c.state])).toEqual([
      [3, 'open'],
      [1, 'done'],
    ]);
  });
});
