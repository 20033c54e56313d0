import type { DeskLine } from '@hand-relay/contract';
import { lineEntries, releaseOfLines, shownLines } from './lines.ts';

const line = (id: string, order: string, item: string, open: number, more: Partial<DeskLine> = {}): DeskLine => ({
  id,
  order,
  number: order,
  line: 1,
  customer: 'Heron Farm',
  class: 'A',
  due: '2026-03-03',
  departure: null,
  leavesAt: null,
  priority: 5,
  item,
  sku: item,
  name: item === 'j' ? 'Jar' : 'Lid',
  open,
  reserved: 0,
  free: 9,
  held: '',
  ...more,
});
const list = [
  line('a1', 'A', 'j', 4),
  line('a2', 'A', 'l', 2),
  line('b1', 'B', 'j', 3, { leavesAt: '2026-03-03T10:00:00Z' }),
];
const ids = (lines: readonly DeskLine[]) => lines.map((l) => l.id).join(' ');

describe('the list of lines', () => {
  it('is found by order, customer and item, and sorted by any column', () => {
    const all = { find: '', sort: 'open', down: true } as const;
    expect(ids(shownLines(list, all))).toBe('a1 b1 a2');
    expect(ids(shownLines(list, { ...all, sort: 'departure', down: false }))).toBe('b1 a1 a2');
    expect(ids(shownLines(list, { ...all, find: ' JAR ' }))).toBe('a1 b1');
    expect(ids(shownLines(list, { ...all, find: 'heron' }))).toBe('a1 b1 a2');
  });

  it('puts lines under their item, with the sum of what is open beside what is free', () => {
    const sorted = shownLines(list, { find: '', sort: 'item', down: false });
    const entries = lineEntries(sorted, 'item', (s) => `${s.open}/${s.free} ${s.orders}`);
    expect(entries.map((e) => (e.kind === 'group' ? `${e.title} ${e.detail}` : e.key))).toEqual([
      'Jar 7/9 2',
      'a1',
      'b1',
      'Lid 2/9 1',
      'a2',
    ]);
    expect(lineEntries(sorted, 'open', () => '').every((e) => e.kind === 'row')).toBe(true);
  });

  it('releases the marked lines whole and nothing else of their orders', () => {
    expect(releaseOfLines([list[0]!], list)).toEqual({
      orders: ['A'],
      lines: [
        { line: 'a1', units: 4 },
        { line: 'a2', units: 0 },
      ],
    });
  });
});
