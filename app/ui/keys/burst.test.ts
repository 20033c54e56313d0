import { Burst, LEAST } from './burst.ts';
import { usualScanner, type Scanner } from './scanner.ts';

/** Presses keys with the same pause between them, and gives what was heard last. */
function type(text: string, pause: number, end?: 'Enter' | 'Tab', scanner: Partial<Scanner> = {}) {
  const burst = new Burst(() => ({ ...usualScanner, ...scanner }));
  let at = 0;
  const left: string[] = [];
  let heard = burst.quiet();
  for (const key of [...text, ...(end ? [end] : [])]) {
    const pressed = burst.press({ key, at: (at += pause) });
    left.push(...pressed.before);
    heard = pressed.heard;
  }
  return { burst, heard, left };
}

describe('a typing scanner', () => {
  it.each([1, 5, 20, 60])('is heard at %i ms a key', (pause) =>
    expect(type('B-07-2', pause, 'Enter').heard).toEqual({ kind: 'scan', text: 'B-07-2' }),
  );
  it('is heard with Tab at its end, and with the separators of GS1', () =>
    expect(type('10A1\u001d21S1', 8, 'Tab').heard).toEqual({ kind: 'scan', text: '10A1\u001d21S1' }));
  it('is told from a person, whose keys come slower: none of them is lost', () => {
    const { heard, left } = type('jjk', usualScanner.pauseMs + 60, 'Enter');
    expect([left, heard]).toEqual([['j', 'j', 'k'], { kind: 'keys', keys: ['Enter'] }]);
  });
  it('is not made of a few keys rolled over, which are given back', () => {
    const keys = 'j'.repeat(LEAST - 1);
    expect(type(keys, 10, 'Enter').heard).toEqual({ kind: 'keys', keys: [...keys, 'Enter'] });
    expect(type('jjjjjj', 10).burst.quiet()).toEqual({ kind: 'keys', keys: [...'jjjjjj'] });
  });
  it('starts over after a pause', () => {
    const burst = new Burst(() => usualScanner);
    burst.press({ key: 'k', at: 0 });
    expect(burst.press({ key: 'B', at: 500 }).before).toEqual(['k']);
    const heard = ['-', '1', '2', 'Enter'].map((key, i) => burst.press({ key, at: 510 + i * 10 }).heard).at(-1);
    expect(heard).toEqual({ kind: 'scan', text: 'B-12' });
  });
  it('is heard by the pause after its code where it sends nothing else', () =>
    expect(type('B-07-2', 20, undefined, { ends: 'pause' }).burst.quiet()).toEqual({ kind: 'scan', text: 'B-07-2' }));
  it('is heard as slow as it was set, and no slower', () => {
    expect(type('B-07-2', 200, 'Enter', { pauseMs: 250 }).heard).toEqual({ kind: 'scan', text: 'B-07-2' });
    expect(type('B-07-2', 200, 'Enter').heard).toEqual({ kind: 'keys', keys: ['Enter'] });
  });
  it('with a prefix is heard by it, however short the code, and nothing else is taken for a scan', () => {
    expect(type('~F3', 200, 'Enter', { prefix: '~' }).heard).toEqual({ kind: 'scan', text: 'F3' });
    expect(type('jjjjj', 20, 'Enter', { prefix: '~' }).heard).toEqual({ kind: 'keys', keys: [...'jjjjj', 'Enter'] });
  });
  it('ends with the key it was set to', () =>
    expect(type('B-07-2', 10, 'Tab', { ends: 'Enter' }).heard).toEqual({ kind: 'keys', keys: [...'B-07-2', 'Tab'] }));
});
