import fc from 'fast-check';
import { checkDigit, FNC1 } from '../gs1/index.ts';
import { readCode, warnOfCode } from './index.ts';

const read = (text: string) => readCode(text, 2026);

describe('reading a code', () => {
  it.each([
    ['B-07-2', { kind: 'bin', bin: 'B-07-2' }],
    [' b-07-2 ', { kind: 'bin', bin: 'B-07-2' }],
    ['CART-07', { kind: 'cart', cart: 'CART-07' }],
    ['CART-07-3', { kind: 'position', cart: 'CART-07', number: 3 }],
    ['LANE-2', { kind: 'lane', code: 'LANE-2' }],
    ['BOX-DRUM', { kind: 'box', code: 'BOX-DRUM' }],
    ['ORDER-LA-20001', { kind: 'order', number: 'LA-20001' }],
    ['RUN-0007', { kind: 'run', number: '0007' }],
    ['DO-CLOSE', { kind: 'command', command: 'close' }],
    [']C1240OWN-7', { kind: 'gs1', elements: [{ ai: '240', value: 'OWN-7' }] }],
    ['240OWN-7', { kind: 'text', text: '240OWN-7' }],
    ['COUNT-12', { kind: 'count', count: 12 }],
    ['count-all', { kind: 'count', count: null }],
    ['BADGE-2001', { kind: 'badge', badge: 'BADGE-2001' }],
    ['A4802', { kind: 'text', text: 'A4802' }],
    ['12345678', { kind: 'text', text: '12345678' }],
  ])('%s', (text, expected) => expect(read(text)).toEqual(expected));

  it('finds what a GS1 symbol holds, with the symbology in front or without', () => {
    const text = `0109521234001010${'10A4802'}${FNC1}3712`;
    expect(read(`]C1${text}`)).toMatchObject({ kind: 'gs1', gtin: '09521234001010', lot: 'A4802', count: 12 });
    expect(read('395212340000000014')).toMatchObject({ kind: 'gs1', sscc: '395212340000000014' });
    expect(read('9521234001010')).toMatchObject({ kind: 'gs1', gtin: '09521234001010' });
  });

  const digits = (n: number) => fc.stringMatching(new RegExp(`^\\d{${n}}$`));
  const lot = fc.stringMatching(/^[A-Z0-9]{1,20}$/);

  it('reads back whatever a label of ours can say, in any order of its elements', () => {
    const elements = fc.record({ gtin: digits(13), lot, count: fc.integer({ min: 1, max: 99_999_999 }) });
    fc.assert(
      fc.property(elements, fc.constantFrom(...orders), (of, order) => {
        const gtin = of.gtin + checkDigit(of.gtin);
        const part = { gtin: `01${gtin}`, lot: `10${of.lot}`, count: `37${of.count}` };
        // Elements of variable length end in FNC1 unless they are last.
        const text = order.map((name, i) => part[name] + (name !== 'gtin' && i < 2 ? FNC1 : '')).join('');
        expect(read(`]C1${text}`)).toMatchObject({ kind: 'gs1', gtin, lot: of.lot, count: of.count });
      }),
    );
  });

  it('takes no number for goods whose check digit is wrong', () => {
    fc.assert(
      fc.property(digits(13), fc.integer({ min: 1, max: 9 }), (body, off) => {
        const wrong = body + ((checkDigit(body) + off) % 10);
        expect(read(wrong)).not.toHaveProperty('gtin');
        expect(read(body + checkDigit(body))).toMatchObject({ kind: 'gs1', gtin: body + checkDigit(body) });
      }),
    );
  });

  it('knows the codes of its own house before any form, in any case', () => {
    const own = {
      bin: '07.02.1',
      position: { cart: 'Wagen 1', number: 3 },
      items: [{ sku: 'W-1', gtin: 'none-w-1-unit' }],
      boxes: ['Kiste'],
    };
    const here = (text: string) => readCode(text, 2026, own);
    expect(here('07.02.1')).toEqual({ kind: 'bin', bin: '07.02.1' });
    expect(here('WAGEN 1-3')).toEqual({ kind: 'position', cart: 'Wagen 1', number: 3 });
    expect(here('w-1')).toMatchObject({ kind: 'gs1', gtin: 'none-w-1-unit' });
    expect(here('kiste')).toEqual({ kind: 'box', code: 'Kiste' });
    // What it does not know is read by its form, as everywhere.
    expect(here('07.02.2')).toEqual({ kind: 'text', text: '07.02.2' });
    expect(here('CART-07')).toEqual({ kind: 'cart', cart: 'CART-07' });
    // A bin that is called like goods is the bin where the bin is awaited.
    expect(readCode('9521234001010', 2026, { bin: '9521234001010' })).toEqual({ kind: 'bin', bin: '9521234001010' });
  });

  it('says something of any text, and never throws', () => {
    fc.assert(
      fc.property(fc.string({ unit: 'binary', maxLength: 60 }), (text) => {
        expect(typeof read(text).kind).toBe('string');
      }),
    );
  });
});

describe('a code of master data', () => {
  it.each([
    ['bin', 'F3', null],
    ['bin', 'A-01-1', null],
    ['bin', 'CART-07', { kind: 'reads-as', as: 'cart' }],
    ['bin', '9521234001010', { kind: 'reads-as', as: 'gs1' }],
    ['cart', 'CART-1-6', null],
    ['cart', 'CART-01-6', { kind: 'reads-as', as: 'position' }],
    ['badge', 'B-2', null],
    ['badge', 'DO-CLOSE', { kind: 'reads-as', as: 'command' }],
    ['item', 'K-03-1', { kind: 'reads-as', as: 'bin' }],
    ['place', 'LANE-9', null],
    ['bin', 'Ä-3–1', { kind: 'not-typed', signs: 'Ä –' }],
  ] as const)('of a %s, %s', (use, code, warning) => expect(warnOfCode(use, code, 2026)).toEqual(warning));
});

const orders = [
  ['gtin', 'lot', 'count'],
  ['lot', 'gtin', 'count'],
  ['count', 'lot', 'gtin'],
  ['gtin', 'count', 'lot'],
] as const;
