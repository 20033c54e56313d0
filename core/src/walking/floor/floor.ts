import { networkOf, type Floor, type Network, type Place, type Point } from './network.ts';

/** Answers distances and walks on one floor. */
export interface FloorMap {
  network: Network;
  /** Shortest walk from one place to another, in metres; infinite where nobody can walk there. */
  distance: (from: Place, to: Place) => number;
  /** The corners of that walk, both ends included. */
  walk: (from: Place, to: Place) => Point[];
  x: (aisle: string) => number;
}

interface Spot {
  column: number;
  y: number;
}
/** A junction that a place leads to, or is reached from. */
interface Gate {
  node: number;
  metres: number;
}

/**
 * Prepares a floor for questions.
 *
 * On a plain grid a walk between two aisles leaves its aisle at one cross aisle: with every cross aisle crossing every
 * aisle, no walk with more turns is shorter. Elsewhere junctions are searched by Dijkstra's method (1959), once for
 * each junction that is asked for.
 *
 * @throws RangeError when the floor is no floor (see `networkOf`), or a place is off it
 */
export function mapFloor(floor: Floor): FloorMap {
  const network = networkOf(floor);
  const { columns, columnOf, rows } = network;
  const [low, high] = [rows[0]!, rows.at(-1)!];
  const spot = ({ aisle, y }: Place): Spot => {
    const column = columnOf.get(aisle);
    if (column === undefined) throw new RangeError(`There is no aisle "${aisle}" on this floor.`);
    if (!(y >= low && y <= high)) throw new RangeError(`y ${y} lies outside ${low} to ${high} in aisle "${aisle}".`);
    return { column, y };
  };
  const x = (aisle: string) => columns[spot({ aisle, y: low }).column]!.x;
  const corners = (points: Point[]) =>
    points.filter((p, i) => i === 0 || p[0] !== points[i - 1]![0] || p[1] !== points[i - 1]![1]);

  if (network.plain) {
    const crossing = (from: number, to: number) => {
      let [at, metres] = [rows[0]!, Infinity];
      for (const row of rows) {
        const d = Math.abs(from - row) + Math.abs(to - row);
        if (d < metres) [at, metres] = [row, d];
      }
      return { at, metres };
    };
    return {
      network,
      x,
      distance(from, to) {
        const [a, b] = [spot(from), spot(to)];
        if (a.column === b.column) return Math.abs(a.y - b.y);
        return Math.abs(columns[a.column]!.x - columns[b.column]!.x) + crossing(a.y, b.y).metres;
      },
      walk(from, to) {
        const [a, b] = [spot(from), spot(to)];
        const [ax, bx] = [columns[a.column]!.x, columns[b.column]!.x];
        if (a.column === b.column)
          return corners([
            [ax, a.y],
            [bx, b.y],
          ]);
        const { at } = crossing(a.y, b.y);
        return corners([
          [ax, a.y],
          [ax, at],
          [bx, at],
          [bx, b.y],
        ]);
      },
    };
  }

  const search = searchOf(network);
  const best = (from: Place, to: Place) => {
    const [a, b] = [spot(from), spot(to)];
    let found = { metres: direct(network, a, b), out: null as Gate | null, in: null as Gate | null };
    for (const out of gates(network, a, 1)) {
      const reached = search(out.node);
      for (const entry of gates(network, b, -1)) {
        const metres = out.metres + reached.metres[entry.node]! + entry.metres;
        if (metres < found.metres) found = { metres, out, in: entry };
      }
    }
    return found;
  };
  const point = (node: number): Point => [columns[Math.floor(node / rows.length)]!.x, rows[node % rows.length]!];
  return {
    network,
    x,
    distance: (from, to) => best(from, to).metres,
    walk(from, to) {
      const found = best(from, to);
      if (found.metres === Infinity)
        throw new RangeError(`Nobody can walk from "${from.aisle}" ${from.y} to "${to.aisle}" ${to.y}.`);
      const between: Point[] = [];
      if (found.out && found.in) {
        const { before } = search(found.out.node);
        for (let at = found.in.node; ; at = before[at]!) {
          between.unshift(point(at));
          if (at === found.out.node) break;
        }
      }
      return corners([[x(from.aisle), from.y], ...between, [x(to.aisle), to.y]]);
    },
  };
}

/** The walk along one aisle, infinite where it is blocked between, against the way, or the aisles differ. */
function direct({ columns }: Network, a: Spot, b: Spot): number {
  if (a.column !== b.column) return Infinity;
  if (a.y === b.y) return 0;
  const { way, free } = columns[a.column]!;
  const [low, high] = [Math.min(a.y, b.y), Math.max(a.y, b.y)];
  if (way !== 0 && Math.sign(b.y - a.y) !== way) return Infinity;
  return free.some(([from, to]) => from <= low && high <= to) ? high - low : Infinity;
}

/** Junctions next to a place: those it leads to (`leaving` 1), or those it is reached from (-1). */
function gates({ columns, rows }: Network, { column, y }: Spot, leaving: 1 | -1): Gate[] {
  const at = rows.indexOf(y);
  if (at >= 0) return [{ node: column * rows.length + at, metres: 0 }];
  const { way, free } = columns[column]!;
  const stretch = free.find(([from, to]) => from <= y && y <= to);
  if (!stretch) return [];
  const above = rows.findIndex((r) => r > y);
  const found: Gate[] = [];
  for (const [row, going] of [
    [above - 1, -1],
    [above, 1],
  ] as const) {
    const r = rows[row]!;
    const allowed = way === 0 || way === going * leaving;
    if (allowed && stretch[0] <= r && r <= stretch[1])
      found.push({ node: column * rows.length + row, metres: Math.abs(r - y) });
  }
  return found;
}

interface Reached {
  metres: Float64Array;
  before: Int32Array;
}

/** Shortest walks from a junction to all others, each computed once. */
function searchOf(network: Network): (from: number) => Reached {
  const { columns, rows, across } = network;
  const height = rows.length;
  const size = columns.length * height;
  const edges: { to: number; metres: number }[][] = Array.from({ length: size }, () => []);
  columns.forEach(({ way, free, x }, c) => {
    for (let r = 0; r < height; r++) {
      const node = c * height + r;
      if (r + 1 < height && free.some(([from, to]) => from <= rows[r]! && rows[r + 1]! <= to)) {
        const metres = rows[r + 1]! - rows[r]!;
        if (way >= 0) edges[node]!.push({ to: node + 1, metres });
        if (way <= 0) edges[node + 1]!.push({ to: node, metres });
      }
      if (c + 1 < columns.length && across[r]![c]) {
        const metres = columns[c + 1]!.x - x;
        edges[node]!.push({ to: node + height, metres });
        edges[node + height]!.push({ to: node, metres });
      }
    }
  });
  const known = new Map<number, Reached>();
  return (from) => {
    const there = known.get(from);
    if (there) return there;
    const metres = new Float64Array(size).fill(Infinity);
    const before = new Int32Array(size).fill(-1);
    const done = new Uint8Array(size);
    metres[from] = 0;
    for (;;) {
      let at = -1;
      for (let n = 0; n < size; n++) if (!done[n] && metres[n]! < (at < 0 ? Infinity : metres[at]!)) at = n;
      if (at < 0) break;
      done[at] = 1;
      for (const e of edges[at]!)
        if (metres[at]! + e.metres < metres[e.to]!) {
          metres[e.to] = metres[at]! + e.metres;
          before[e.to] = at;
        }
    }
    known.set(from, { metres, before });
    return { metres, before };
  };
}
