import fc from 'fast-check';
import { parseBarcode } from 'gs1-barcode-parser-mod';
import { identifierAt, ruleOf } from './identifiers.ts';
import { checkDigit, FNC1, gs1Date, gtin14, hasCheckDigit, printedElements, readGs1, ssccOf } from './index.ts';

const digits = (length: number) => fc.stringMatching(new RegExp(`^\\d{${length}}$`));

describe('check digit', () => {
  // GS1 General Specifications, worked example; the SSCC from memory, recomputed.
  it.each([
    ['629104150021', 3],
    ['00614141123456789', 0],
  ])('completes %s with %i', (key, digit) => expect(checkDigit(key)).toBe(digit));

  it('notices every single wrong digit', () => {
    fc.assert(
      fc.property(digits(12), fc.nat(12), fc.integer({ min: 1, max: 9 }), (body, at, by) => {
        const key = body + checkDigit(body);
        const wrong = key.slice(0, at) + String((Number(key[at]) + by) % 10) + key.slice(at + 1);
        return hasCheckDigit(key) && !hasCheckDigit(wrong);
      }),
    );
  });

  it('says what it received', () => expect(() => checkDigit('12a')).toThrow('"12a"'));
});

describe('SSCC', () => {
  it('fills the serial reference to 18 digits', () =>
    expect(ssccOf({ extension: 3, companyPrefix: '9521234' }, 1)).toBe('395212340000000014'));

  it('gives every serial its own well-formed number', () => {
    fc.assert(
      fc.property(fc.nat(999_999), fc.nat(999_999), (a, b) => {
        const range = { extension: 0, companyPrefix: '0614141' };
        const [one, other] = [ssccOf(range, a), ssccOf(range, b)];
        return one.length === 18 && hasCheckDigit(one) && (a === b) === (one === other);
      }),
    );
  });

  it('refuses a range that is used up', () =>
    expect(() => ssccOf({ extension: 0, companyPrefix: '952123400000' }, 10_000)).toThrow('does not fit'));
});

describe('element strings', () => {
  const element = fc.oneof(
    digits(13).map((d) => ({ ai: '01', value: d + checkDigit(d) })),
    fc.stringMatching(/^[A-Z0-9]{1,20}$/).map((value) => ({ ai: '10', value })),
    fc.stringMatching(/^[A-Z0-9]{1,20}$/).map((value) => ({ ai: '21', value })),
    fc.integer({ min: 1, max: 9999 }).map((n) => ({ ai: '37', value: String(n) })),
    fc
      .date({ min: new Date('2000-01-01'), max: new Date('2049-12-31'), noInvalidDate: true })
      .map((d) => ({ ai: '15', value: d.toISOString().slice(2, 10).replaceAll('-', '') })),
  );
  const raw = (elements: { ai: string; value: string }[]) =>
    elements
      .map((e, i) => e.ai + e.value + (['10', '21', '37'].includes(e.ai) && i < elements.length - 1 ? FNC1 : ''))
      .join('');

  it('are read as an independent parser reads them', () => {
    fc.assert(
      fc.property(fc.uniqueArray(element, { selector: (e) => e.ai, minLength: 1, maxLength: 5 }), (elements) => {
        const ours = readGs1(raw(elements), 2026)!;
        const theirs = parseBarcode(`]C1${raw(elements)}`).parsedCodeItems;
        expect(ours.elements).toEqual(elements);
        expect(ours.elements.map((e) => e.ai)).toEqual(theirs.map((t) => t.ai));
        const lot = theirs.find((t) => t.ai === '10');
        expect(ours.lot).toBe(lot?.data);
      }),
    );
  });

  it('of every identifier are told apart as an independent parser does, whether they are used here or not', () => {
    const known = Array.from({ length: 10_000 }, (_, n) => String(n)).flatMap((n) =>
      [2, 3, 4].flatMap((digits) => (n.length <= digits ? [n.padStart(digits, '0')] : [])),
    );
    let compared = 0;
    for (const ai of known) {
      // Keys with a check digit have tests of their own; (425) held one country before it held several.
      if (identifierAt(ai) !== ai || ['00', '01', '02', '410', '425'].includes(ai)) continue;
      const { most, fixed } = ruleOf(ai);
      // Twelve of the first month: a date and a number alike.
      const value = '12010100000000000000'.repeat(5).slice(0, fixed ? most : Math.min(most, 12));
      const text = `01095212340010103712${FNC1}${ai}${value}${FNC1}10A4802`;
      let theirs: { ai: string }[];
      try {
        theirs = parseBarcode(`]C1${text}`).parsedCodeItems;
      } catch {
        continue;
      }
      // It knows fewer identifiers than there are.
      if (theirs[2]?.ai !== ai) continue;
      compared += 1;
      const ours = readGs1(text, 2026);
      if (!ours) throw new Error(`(${ai}) was not read`);
      expect([ai, ours.elements.map((e) => e.ai)]).toEqual([ai, theirs.map((t) => t.ai)]);
      if (!['10', '37', '30'].includes(ai))
        expect(ours).toMatchObject({ gtin: '09521234001010', count: 12, lot: 'A4802' });
    }
    expect(compared).toBeGreaterThan(150);
  });

  // What labels of the trade carry besides: a maker's own number, a date and time, a house's own words, a new identifier.
  it.each([
    ['(240)OWN-7(01)09521234001010(10)A4802', 'OWN-7'],
    [`240OWN-7${FNC1}010952123400101010A4802`, 'OWN-7'],
    [`010952123400101091any words${FNC1}10A4802`, 'any words'],
    [`01095212340010107003261129093010A4802`, '2611290930'],
    [`010952123400101031030012508200http://x.example/y${FNC1}10A4802`, 'http://x.example/y'],
    [`01095212340010107099new${FNC1}10A4802`, 'new'],
  ])('are read past what is not used here: %s', (text, other) => {
    const read = readGs1(text, 2026);
    expect(read).toMatchObject({ gtin: '09521234001010', lot: 'A4802' });
    expect(read!.elements.map((e) => e.value)).toContain(other);
  });

  it.each(['91234', '240-15', '412', '8004'])('are no plain number of a house: %s', (text) =>
    expect(readGs1(text, 2026)).toBeUndefined(),
  );

  it('are read from the printed form too', () =>
    expect(readGs1('(01)09521234001010(10)A4802(15)270809', 2026)).toMatchObject({
      gtin: '09521234001010',
      lot: 'A4802',
      bestBefore: '2027-08-09',
    }));

  it.each(['0109521234001011', '10', '99ABC', '15271332', '01095212340010'])('refuse %s', (text) =>
    expect(readGs1(text, 2026)).toBeUndefined(),
  );

  it('refuses more than the 48 characters of a GS1-128', () =>
    expect(() =>
      printedElements([
        { ai: '10', value: 'A'.repeat(20) },
        { ai: '21', value: 'B'.repeat(20) },
        { ai: '37', value: '12345' },
      ]),
    ).toThrow('48'));

  it('takes day 00 as the last of the month, and the century within 50 years', () => {
    expect(gs1Date('240200', 2026)).toBe('2024-02-29');
    expect(gs1Date('760101', 2026)).toBe('2076-01-01');
    expect(gs1Date('770101', 2026)).toBe('1977-01-01');
    expect(gs1Date('010101', 2060)).toBe('2101-01-01');
    expect(gs1Date('260231', 2026)).toBeUndefined();
  });

  it('brings GTINs of every length to 14 digits', () => {
    expect(gtin14('6291041500213')).toBe('06291041500213');
    expect(gtin14('96385074')).toBe('00000096385074');
    expect(gtin14('6291041500214')).toBeUndefined();
  });
});

describe('a GS1 Digital Link address', () => {
  const read = (text: string) => readGs1(text, 2026);
  // The standard's own example domain; values from memory.
  it('fills all that it holds: item, lot and serial from its path, dates and counts from its query', () => {
    expect(read('https://id.gs1.org/01/09506000134352/10/ABC%2F123/21/12345?17=270426&37=4')).toMatchObject({
      gtin: '09506000134352',
      lot: 'ABC/123',
      serial: '12345',
      bestBefore: '2027-04-26',
      count: 4,
    });
    expect(read('https://brand.example/some/shop/01/9506000134352?linkType=gs1:pip')).toMatchObject({
      gtin: '09506000134352',
    });
    expect(read('http://id.gs1.org/00/006141411234567890')).toMatchObject({ sscc: '006141411234567890' });
  });

  it('is none where its key is missing or wrong', () => {
    for (const text of [
      'https://id.gs1.org/01/09506000134353',
      'https://id.gs1.org/10/ABC123',
      'https://id.gs1.org/01/',
      'https://id.gs1.org/01/09506000134352/10',
      'ftp://id.gs1.org/01/09506000134352',
    ])
      expect(read(text)).toBeUndefined();
  });

  it('reads a lot that an address would take for a step back', () =>
    expect(read('https://x.example/01/09506000134352/10/..')).toMatchObject({ lot: '..' }));

  it('says the same as the element string of what it holds', () => {
    fc.assert(
      fc.property(
        digits(13).map((d) => d + checkDigit(d)),
        fc.option(fc.stringMatching(/^[!%-?A-Z_a-z]{1,20}$/)),
        fc.option(fc.stringMatching(/^[!%-?A-Z_a-z]{1,20}$/)),
        (gtin, lot, serial) => {
          const more = [...(lot ? [['10', lot]] : []), ...(serial ? [['21', serial]] : [])];
          const path = more.map(([ai, value]) => `/${ai}/${encodeURIComponent(value!)}`).join('');
          const raw = more.map(([ai, value]) => `${ai}${value}${FNC1}`).join('');
          const { elements: _, ...linked } = read(`https://x.example/01/${gtin}${path}`)!;
          const { elements: __, ...scanned } = read(`01${gtin}${raw}`)!;
          expect(linked).toEqual(scanned);
        },
      ),
    );
  });
});
