import fc from 'fast-check';
import { readSearch, searchFrom, searchKey, searchTo } from './searchKey.ts';

describe('a text in a search', () => {
  it.each([
    ['po 77', 'PO-77'],
    ['so1042', 'SO-1042'],
    ['3 0614141 1234 5678 90', '306141411234567890'],
    ['muehle', 'Muehle'],
    ['Müller & Söhne', 'MULLER SOHNE'],
    ['strasse', 'Straße'],
    ['B 07 2', 'b-07.2'],
  ])('%s is the same as %s', (typed, written) => {
    expect(searchKey(typed)).toBe(searchKey(written));
  });

  it('has one letter for each marked one', () => {
    expect(searchTo.length).toBeLessThan(searchFrom.length);
    expect(new Set(searchFrom).size).toBe(searchFrom.length);
    expect([...'ÄÖÜéñçø'].map(searchKey).join('')).toBe('AOUENCO');
  });

  it('stays as it is when it is read again, and is found by every part of it', () => {
    fc.assert(
      fc.property(fc.string({ unit: 'binary' }), fc.nat(), fc.nat(), (text, from, length) => {
        const key = searchKey(text);
        expect(searchKey(key)).toBe(key);
        const letters = [...text];
        const part = letters.slice(from % (letters.length + 1)).slice(0, length % (letters.length + 1));
        expect(key).toContain(searchKey(part.join('')));
      }),
    );
  });
});

describe('what is looked for', () => {
  it('is the whole, and each word of it', () => {
    expect(readSearch('  vale   bees-ltd ')).toEqual({ key: 'VALEBEESLTD', words: ['VALE', 'BEESLTD'] });
    expect(readSearch(' - ')).toEqual({ key: '', words: [] });
    expect(readSearch('a b c d e f g h').words).toHaveLength(6);
  });
});
