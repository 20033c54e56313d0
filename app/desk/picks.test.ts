import type { PickedRow } from '@hand-relay/contract';
import { sortedPicks, sumsOfPicks } from './picks.ts';

const pick = (id: string, more: Partial<PickedRow>): PickedRow => ({
  id,
  at: '2026-03-03T10:00:00.000Z',
  person: 'Pico',
  run: { id: 'r', number: '0001' },
  order: { id: 'o', number: 'A-1' },
  bin: 'A-01-1',
  item: { id: 'i', sku: 'S', name: 'Jar' },
  lot: '',
  picked: 2,
  asked: 2,
  touched: [],
  seconds: 20,
  expected: 15,
  refused: 0,
  ...more,
});
const list = [
  pick('a', { bin: 'A-10-1', seconds: null, at: '2026-03-03T10:02:00.000Z' }),
  pick('b', { bin: 'A-2-1', seconds: 90, picked: 1, refused: 2, person: 'Suri' }),
  pick('c', { bin: 'A-2-1', at: '2026-03-03T10:01:00.000Z' }),
];
const ids = (sort: Parameters<typeof sortedPicks>[1]) =>
  sortedPicks(list, sort)
    .map((p) => p.id)
    .join('');

describe('the list of picks', () => {
  it('is sorted by any column, bins as they are numbered, equal ones as they were', () => {
    expect(ids({ sort: 'at', down: true })).toBe('acb');
    expect(ids({ sort: 'bin', down: false })).toBe('bca');
    expect(ids({ sort: 'seconds', down: true })).toBe('bca');
    expect(ids({ sort: 'lot', down: false })).toBe('abc');
  });

  it('sums what was picked, short and refused, and the seconds that are known', () => {
    expect(sumsOfPicks(list)).toEqual({ units: 5, short: 1, refused: 2, people: 2, seconds: 110, expected: 45 });
    expect(sumsOfPicks([])).toEqual({ units: 0, short: 0, refused: 0, people: 0, seconds: 0, expected: 0 });
  });
});
