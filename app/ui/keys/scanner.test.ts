import fc from 'fast-check';
import { Burst } from './burst.ts';
import type { Press } from './press.ts';
import { PAUSES, readTrial } from './scanner.ts';

const CODE = 'HR-75/zY_4';
const typed = (keys: readonly string[], pauses: readonly number[]): Press[] => {
  let at = 0;
  return keys.map((key, i) => ({ key, at: (at += pauses[i % pauses.length]!) }));
};

describe('trying a scanner on a known code', () => {
  it('proposes settings with which its codes are heard', () => {
    const scanner = fc.record({
      prefix: fc.constantFrom('', '~', 'H', '*'),
      end: fc.constantFrom('Enter', 'Tab', null),
      pauses: fc.array(fc.integer({ min: 1, max: 250 }), { minLength: 1, maxLength: 12 }),
      code: fc.stringMatching(/^[A-Z0-9-]{4,20}$/),
    });
    fc.assert(
      fc.property(scanner, ({ prefix, end, pauses, code }) => {
        const keysOf = (text: string) => [...prefix, ...text, ...(end ? [end] : [])];
        const tried = readTrial(typed(keysOf(CODE), pauses), CODE);
        if (tried.kind !== 'read') throw new Error(tried.kind);
        expect(tried.scanner).toMatchObject({ prefix, ends: end ?? 'pause' });
        const burst = new Burst(() => tried.scanner);
        // No slower than the trial was.
        const slowest = Math.max(1, Math.floor(tried.longestMs));
        const heard = typed(keysOf(code), [slowest]).map((press) => burst.press(press).heard);
        expect(end ? heard.at(-1) : burst.quiet()).toEqual({ kind: 'scan', text: code });
      }),
    );
  });

  it.each([
    ['Enter alone', ['Enter'], { kind: 'nothing' }],
    ['another code', [...'B-07-2', 'Enter'], { kind: 'other', text: 'B-07-2', keyboard: false }],
    ['another keyboard', [...'HRß75-yZ?4', 'Enter'], { kind: 'other', text: 'HRß75-yZ?4', keyboard: true }],
    ['the kind of barcode before it', [...`]C1${CODE}`, 'Enter'], { kind: 'longPrefix', prefix: ']C1' }],
    ['a sign after it', [...`${CODE}$`, 'Enter'], { kind: 'suffix', suffix: '$' }],
  ])('says what is wrong: %s', (_, keys, told) => expect(readTrial(typed(keys, [10]), CODE)).toEqual(told));

  it('proposes a pause within what can be set', () => {
    const tried = readTrial(typed([...CODE, 'Enter'], [900]), CODE);
    expect(tried).toMatchObject({ scanner: { pauseMs: PAUSES.most } });
  });
});
