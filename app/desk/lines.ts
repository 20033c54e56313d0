import { deskLineFields, type DeskLine } from '@hand-relay/contract';
import type { TableEntry } from '../ui/index.ts';

/** Columns that lines are sorted by. */
export const lineSorts = [
  'departure',
  'order',
  'customer',
  'class',
  'item',
  'open',
  'reserved',
  'free',
  'due',
] as const;
export type LineSort = (typeof lineSorts)[number];

/** A line as the server sends it: values in the order of the fields. */
export const lineFromRow = (values: readonly (string | number | null)[]): DeskLine =>
  Object.fromEntries(deskLineFields.map((field, i) => [field, values[i]])) as unknown as DeskLine;

const valueOf: Record<LineSort, (l: DeskLine) => string | number> = {
  departure: (l) => l.leavesAt ?? '9999',
  order: (l) => l.number,
  customer: (l) => l.customer,
  class: (l) => l.class,
  item: (l) => l.name,
  open: (l) => l.open,
  reserved: (l) => l.reserved,
  free: (l) => l.free,
  due: (l) => l.due,
};

/** Lines that match what is typed, in any of their words, in an order; equal ones stay as they were. */
export function shownLines(
  lines: readonly DeskLine[],
  { find, sort, down }: { find: string; sort: LineSort; down: boolean },
): DeskLine[] {
  const wanted = find.trim().toLowerCase();
  const of = valueOf[sort];
  const way = down ? -1 : 1;
  return lines
    .filter((l) => wanted === '' || `${l.number} ${l.customer} ${l.sku} ${l.name}`.toLowerCase().includes(wanted))
    .sort((a, b) => {
      const [x, y] = [of(a), of(b)];
      if (x === y) return 0;
      return (
        way * (typeof x === 'number' ? x - (y as number) : x.localeCompare(y as string, undefined, { numeric: true }))
      );
    });
}

/**
 * Lines as entries of a table; those of an item stand under it where they are sorted by item, with what is open of it
 * beside what is free.
 */
export function lineEntries(
  lines: readonly DeskLine[],
  sort: LineSort,
  detailOf: (sums: { open: number; free: number; orders: number }) => string,
): TableEntry<DeskLine>[] {
  const rows = lines.map((row) => ({ kind: 'row' as const, key: row.id, row }));
  if (sort !== 'item') return rows;
  return rows.flatMap((entry, i) => {
    if (i > 0 && lines[i - 1]!.item === entry.row.item) return [entry];
    const own = lines.filter((l) => l.item === entry.row.item);
    const sums = {
      open: own.reduce((n, l) => n + l.open, 0),
      free: entry.row.free,
      orders: new Set(own.map((l) => l.order)).size,
    };
    return [
      { kind: 'group' as const, key: `item ${entry.row.item}`, title: entry.row.name, detail: detailOf(sums) },
      entry,
    ];
  });
}

/** A release of these lines alone: the other open lines of their orders get nothing. */
export function releaseOfLines(chosen: readonly DeskLine[], all: readonly DeskLine[]) {
  const own = new Set(chosen.map((l) => l.id));
  const orders = new Set(chosen.map((l) => l.order));
  return {
    orders: [...orders],
    lines: all.filter((l) => orders.has(l.order)).map((l) => ({ line: l.id, units: own.has(l.id) ? l.open : 0 })),
  };
}
