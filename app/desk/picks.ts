import type { PickedRow } from '@hand-relay/contract';

/** Columns that picks are sorted by. */
export const pickSorts = [
  'at',
  'person',
  'bin',
  'item',
  'lot',
  'units',
  'how',
  'seconds',
  'expected',
  'refused',
  'order',
] as const;
export type PickSort = (typeof pickSorts)[number];

const valueOf: Record<PickSort, (r: PickedRow) => string | number> = {
  at: (r) => r.at,
  person: (r) => r.person,
  bin: (r) => r.bin,
  item: (r) => r.item.name,
  lot: (r) => r.lot,
  units: (r) => r.picked,
  how: (r) => r.touched.length,
  // One without a time of its own is neither quick nor slow.
  seconds: (r) => r.seconds ?? -1,
  expected: (r) => r.expected,
  refused: (r) => r.refused,
  order: (r) => r.order.number,
};

/** Picks in an order; equal ones stay as they were. */
export function sortedPicks(
  picks: readonly PickedRow[],
  { sort, down }: { sort: PickSort; down: boolean },
): PickedRow[] {
  const of = valueOf[sort];
  const way = down ? -1 : 1;
  return [...picks].sort((a, b) => {
    const [x, y] = [of(a), of(b)];
    return x === y
      ? 0
      : way * (typeof x === 'number' ? x - (y as number) : x.localeCompare(y as string, undefined, { numeric: true }));
  });
}

/**
 * Sums over picks. Seconds are those of the picks whose time is known, beside what these should have taken; what was
 * confirmed with the pick before it adds to that one's expected time.
 */
export function sumsOfPicks(picks: readonly PickedRow[]): {
  units: number;
  short: number;
  refused: number;
  people: number;
  seconds: number;
  expected: number;
} {
  const sum = (of: (r: PickedRow) => number) => picks.reduce((n, r) => n + of(r), 0);
  return {
    units: sum((r) => r.picked),
    short: picks.filter((r) => r.picked < r.asked).length,
    refused: sum((r) => r.refused),
    people: new Set(picks.map((r) => r.person)).size,
    seconds: sum((r) => r.seconds ?? 0),
    expected: sum((r) => r.expected),
  };
}
