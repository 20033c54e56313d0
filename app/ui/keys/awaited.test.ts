import fc from 'fast-check';
import { ALONE_MS, Awaited, FORGET_MS } from './awaited.ts';
import { usualScanner, type ScannerEnd } from './scanner.ts';

describe('where a scan is awaited', () => {
  it('every code is heard once and whole: of 1 to 30 characters, at 5 to 250 ms a key, ended by Enter, Tab or a pause, with a prefix or none', () => {
    const code = fc.record({
      text: fc
        .array(fc.constantFrom(...'AZaz019-_/. :%$+', '\u001d'), { minLength: 1, maxLength: 30 })
        .map((letters) => letters.join('')),
      pause: fc.integer({ min: 5, max: 250 }),
      end: fc.constantFrom('Enter', 'Tab'),
      after: fc.integer({ min: 1_000, max: 5_000 }),
    });
    const ends = fc.constantFrom<ScannerEnd>('any', 'Enter', 'Tab', 'pause');
    fc.assert(
      fc.property(
        fc.array(code, { minLength: 1, maxLength: 6 }),
        ends,
        fc.constantFrom('', '~'),
        (codes, set, prefix) => {
          const awaited = new Awaited(() => ({ ends: set, prefix, pauseMs: 250 }));
          let at = 0;
          const heard = codes.flatMap(({ text, pause, end, after }) => {
            at += after;
            const keys = [...prefix, ...text, ...(set === 'pause' ? [] : [set === 'any' ? end : set])];
            const typed = keys.flatMap((key) => {
              const one = awaited.press({ key, at: (at += pause) });
              return one.kind === 'part' ? [] : [one];
            });
            return set === 'pause' ? [...typed, awaited.quiet()] : typed;
          });
          expect(heard).toEqual(codes.map(({ text }) => ({ kind: 'code', text })));
        },
      ),
    );
  });

  it('Enter and Tab alone are no code, nor is what was typed long before them', () => {
    const awaited = new Awaited(() => usualScanner);
    expect(awaited.press({ key: 'Enter', at: 0 })).toEqual({ kind: 'end' });
    awaited.press({ key: 'x', at: 100 });
    expect(awaited.press({ key: 'Tab', at: 101 + FORGET_MS })).toEqual({ kind: 'end' });
  });

  it('a key that nothing follows is a person’s, and no part of what comes next', () => {
    const awaited = new Awaited(() => usualScanner);
    awaited.press({ key: '?', at: 0 });
    expect(awaited.quiet()).toEqual({ kind: 'key', text: '?' });
    for (const key of 'F3') awaited.press({ key, at: ALONE_MS + 10 });
    expect(awaited.quiet()).toBeNull();
    expect(awaited.press({ key: 'Enter', at: ALONE_MS + 20 })).toEqual({ kind: 'code', text: 'F3' });
  });
});
