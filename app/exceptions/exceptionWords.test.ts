import type { ExceptionRow } from '@hand-relay/contract';
import '../text/index.ts';
import { reasonOf, titleOf } from './exceptionWords.ts';

const row = (of: Partial<ExceptionRow>): ExceptionRow =>
  ({
    kind: 'short',
    place: 'A-32-1',
    units: 20,
    item: { id: 'i1', name: 'Queen cage' },
    order: { id: 'o1', number: 'LA-7' },
    run: { id: 'r1', number: '0007' },
    line: 2,
    reason: 'not-found',
    facts: {},
    ...of,
  }) as ExceptionRow;

describe('an exception', () => {
  it('says in one line what happened where, and why as the picker said it', () => {
    expect(titleOf(row({}))).toMatch(/A-32-1.*20 × Queen cage/);
    expect(reasonOf(row({}))).toBe('Cannot find');
    expect(reasonOf(row({ reason: 'a word of an earlier version' }))).toBe('a word of an earlier version');
    expect(reasonOf(row({ reason: '' }))).toBe('');
  });

  it('falls back on what the device told where nothing of it is known any more', () => {
    const lost = row({
      kind: 'lost',
      place: '',
      item: null,
      run: null,
      facts: { bin: 'B-1', item: 'Jar', run: '0003', code: 'pick-done' },
    });
    expect(titleOf(lost)).toMatch(/B-1|Jar|0003/);
    expect(reasonOf(lost)).toBe('Somebody has already confirmed this pick.');
  });
});
