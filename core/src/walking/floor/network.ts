/** A vertical aisle at `x`, in metres. Without `from` and `to` it runs from the first cross aisle to the last. */
export interface Aisle {
  id: string;
  x: number;
  /** The only way people may walk it: `up` is towards larger y. Both ways where absent. */
  oneWay?: 'up' | 'down' | undefined;
  from?: number | undefined;
  to?: number | undefined;
}

/** A stretch that nobody can walk through: of an aisle (metres of y) or of a cross aisle (metres of x). Its ends can be reached. */
export type Blocked = { aisle: string; from: number; to: number } | { crossAisle: number; from: number; to: number };

/** The walking network of a site in metres: vertical aisles, and horizontal cross aisles at the given `y`. */
export interface Floor {
  aisles: Aisle[];
  /** Ascending; the first and the last bound every aisle. */
  crossAisles: number[];
  blocked?: Blocked[] | undefined;
}

/** A point on an aisle's centre line, in metres. */
export interface Place {
  aisle: string;
  y: number;
}

/** A point of a drawn walk: x and y in metres. */
export type Point = [x: number, y: number];

/** A floor as a grid: aisles are columns by ascending x, cross aisles are rows. */
export interface Network {
  columns: { id: string; x: number; way: -1 | 0 | 1; free: [from: number, to: number][] }[];
  columnOf: ReadonlyMap<string, number>;
  rows: number[];
  /** Whether row r can be walked between column c and the next. */
  across: boolean[][];
  /** Whether some aisle is one-way. */
  directed: boolean;
  /** Whether every cross aisle crosses every aisle and nothing is blocked or one-way. */
  plain: boolean;
}

/**
 * Reads a floor as a grid.
 *
 * @throws RangeError when there are fewer than two cross aisles, they do not ascend, two aisles have one name, or what is
 *   blocked lies on no aisle or cross aisle
 */
export function networkOf(floor: Floor): Network {
  const rows = floor.crossAisles;
  if (rows.length < 2) throw new RangeError(`A floor has at least two cross aisles, received ${rows.length}.`);
  for (let i = 1; i < rows.length; i++)
    if (!(rows[i]! > rows[i - 1]!)) throw new RangeError(`Cross aisles ascend, received ${rows.join(', ')}.`);
  const sorted = floor.aisles.map((a, i) => ({ a, i })).sort((p, q) => p.a.x - q.a.x || p.i - q.i);
  const columnOf = new Map(sorted.map(({ a }, column) => [a.id, column]));
  if (columnOf.size < sorted.length) throw new RangeError('Two aisles of a floor have one name.');
  const blocked = floor.blocked ?? [];
  for (const b of blocked) {
    if (!(b.from < b.to))
      throw new RangeError(`A blocked stretch runs from less to more, received ${b.from} to ${b.to}.`);
    if ('aisle' in b && !columnOf.has(b.aisle)) throw new RangeError(`There is no aisle "${b.aisle}" on this floor.`);
    if ('crossAisle' in b && !rows.includes(b.crossAisle))
      throw new RangeError(`There is no cross aisle at ${b.crossAisle} on this floor.`);
  }
  const columns = sorted.map(({ a }) => ({
    id: a.id,
    x: a.x,
    way: a.oneWay === 'up' ? (1 as const) : a.oneWay === 'down' ? (-1 as const) : (0 as const),
    free: freeOf(
      Math.max(rows[0]!, a.from ?? -Infinity),
      Math.min(rows.at(-1)!, a.to ?? Infinity),
      blocked.filter((b): b is Extract<Blocked, { aisle: string }> => 'aisle' in b && b.aisle === a.id),
    ),
  }));
  const across = rows.map((y) =>
    columns.slice(1).map((c, i) => {
      const [left, right] = [columns[i]!.x, c.x];
      return !blocked.some((b) => 'crossAisle' in b && b.crossAisle === y && b.from < right && b.to > left);
    }),
  );
  const directed = columns.some((c) => c.way !== 0);
  const whole = columns.every((c) => c.free.length === 1 && c.free[0]![0] === rows[0] && c.free[0]![1] === rows.at(-1));
  return {
    columns,
    columnOf,
    rows,
    across,
    directed,
    plain: !directed && whole && across.every((row) => row.every(Boolean)),
  };
}

function freeOf(low: number, high: number, blocked: { from: number; to: number }[]): [number, number][] {
  const free: [number, number][] = [];
  let at = low;
  for (const { from, to } of [...blocked].sort((a, b) => a.from - b.from)) {
    if (to <= at) continue;
    if (from >= high) break;
    if (from >= at) free.push([at, from]);
    at = to;
  }
  if (at <= high) free.push([at, high]);
  return free;
}
