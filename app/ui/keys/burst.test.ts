import { Burst, GAP_MS, LEAST } from './burst.ts';

/** Presses keys with the same pause between them, and gives what was heard last. */
function type(text: string, pause: number, end?: 'Enter' | 'Tab', begin = 0) {
  const burst = new Burst();
  let at = begin;
  let heard = burst.quiet();
  for (const key of [...text, ...(end ? [end] : [])]) heard = burst.press({ key, at: (at += pause) });
  return { burst, heard };
}

describe('a typing scanner', () => {
  it.each([1, 5, 20, 60])('is heard at %i ms a key', (pause) =>
    expect(type('B-07-2', pause, 'Enter').heard).toEqual({ kind: 'scan', text: 'B-07-2' }),
  );
  it('is heard with Tab at its end, and with the separators of GS1', () =>
    expect(type('10A1\u001d21S1', 8, 'Tab').heard).toEqual({ kind: 'scan', text: '10A1\u001d21S1' }));
  it('is told from a person, whose keys come slower', () =>
    expect(type('j', GAP_MS + 60, 'Enter').heard).toEqual({ kind: 'key', key: 'Enter' }));
  it('is not made of a few keys rolled over', () =>
    expect(type('a'.repeat(LEAST - 1), 10, 'Enter').heard).toEqual({ kind: 'key', key: 'Enter' }));
  it('leaves a single key to the person when nothing follows', () =>
    expect(type('j', 10).burst.quiet()).toEqual({ kind: 'key', key: 'j' }));
  it('never leaves a key of its own as a shortcut, even without an end', () =>
    expect(type('jjjj', 10).burst.quiet()).toEqual({ kind: 'waiting', burst: false }));
  it('starts over after a pause', () => {
    const burst = new Burst();
    burst.press({ key: 'k', at: 0 });
    let heard = burst.press({ key: 'B', at: 500 });
    for (const [i, key] of ['-', '1', '2', 'Enter'].entries()) heard = burst.press({ key, at: 510 + i * 10 });
    expect(heard).toEqual({ kind: 'scan', text: 'B-12' });
  });
});
