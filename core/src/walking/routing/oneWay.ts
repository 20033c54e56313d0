import type { FloorMap, Place } from '../floor/index.ts';
import type { Walks } from './problem.ts';

/** A walk over the one-way stretches that must be gone through, and a length that no walk with its stops can beat. */
export interface OneWay {
  bound: number;
  /** Inner nodes in the order in which the walk first comes by; those of two-way aisles may be missing. */
  order: number[];
}

/** A stretch of a one-way aisle between two cross aisles with stops on it: it must be walked through. */
interface Stretch {
  from: number;
  to: number;
  metres: number;
}

/**
 * Bounds walks on a floor with one-way aisles, and finds one. Every stretch of a one-way aisle that holds a stop is
 * walked through at least once; what comes in at a junction goes out of it. The shortest set of walks with both is a
 * transport of the junctions' surpluses along shortest ways, solved as an assignment (the directed rural postman's
 * relaxation; Christofides and others 1986). Where it is in one piece it is a shortest walk; else its pieces are joined
 * by the cheapest ways there and back, and the walk follows Hierholzer (1873).
 *
 * @returns null where aisles or cross aisles are blocked, or a start or finish lies between cross aisles of a one-way aisle
 */
export function oneWayWalk(walks: Walks, map: FloorMap): OneWay | null {
  const { columns, rows, columnOf, across } = map.network;
  const whole =
    across.every((row) => row.every(Boolean)) &&
    columns.every((c) => c.free.length === 1 && c.free[0]![0] === rows[0] && c.free[0]![1] === rows.at(-1));
  if (!whole) return null;
  const height = rows.length;
  const junction = (column: number, row: number) => column * height + row;
  const placeAt = (node: number): Place => ({
    aisle: columns[Math.floor(node / height)]!.id,
    y: rows[node % height]!,
  });
  const ends = [walks.places[0]!, walks.places.at(-1)!].map((place) => {
    const row = rows.indexOf(place.y);
    return row < 0 ? null : junction(columnOf.get(place.aisle)!, row);
  });
  if (ends[0] === null || ends[1] === null) return null;
  const stretches = new Map<string, Stretch>();
  for (const { aisle, y } of walks.places.slice(1, -1)) {
    const column = columnOf.get(aisle)!;
    const { way } = columns[column]!;
    const row = rows.findLastIndex((r) => r < y);
    if (way === 0 || rows.includes(y)) continue;
    const [low, high] = [junction(column, row), junction(column, row + 1)];
    stretches.set(`${low}`, {
      from: way > 0 ? low : high,
      to: way > 0 ? high : low,
      metres: rows[row + 1]! - rows[row]!,
    });
  }
  const [begin, end] = ends as [number, number];
  const surplus = new Int32Array(columns.length * height);
  let metres = 0;
  for (const s of stretches.values()) {
    surplus[s.to]! += 1;
    surplus[s.from]! -= 1;
    metres += s.metres;
  }
  surplus[begin]! += 1;
  surplus[end]! -= 1;
  const repeated = (sign: 1 | -1) => {
    const list: number[] = [];
    surplus.forEach((n, node) => {
      for (let i = 0; i < sign * n; i++) list.push(node);
    });
    return list;
  };
  const [out, into] = [repeated(1), repeated(-1)];
  const distance = (a: number, b: number) => map.distance(placeAt(a), placeAt(b));
  const costs = out.map((a) => into.map((b) => distance(a, b)));
  const chosen = assignment(costs);
  const ways: [number, number][] = [];
  chosen.forEach((b, a) => {
    metres += costs[a]![b]!;
    ways.push([out[a]!, into[b]!]);
  });
  if (metres === Infinity) return null;
  for (const s of stretches.values()) ways.push([s.from, s.to]);
  return { bound: metres, order: passedBy(walks, map, euler(joinPieces(ways, begin, distance), begin), placeAt) };
}

/** Joins the pieces that ways fall into by the cheapest ways there and back, until all are one with the beginning. */
function joinPieces(
  given: readonly [number, number][],
  begin: number,
  distance: (a: number, b: number) => number,
): [number, number][] {
  const ways = [...given];
  const piece = new Map<number, number>();
  const root = (node: number): number => {
    const up = piece.get(node) ?? node;
    if (up === node) return node;
    const top = root(up);
    piece.set(node, top);
    return top;
  };
  const nodes = new Set([begin, ...given.flat()]);
  for (const [a, b] of given) piece.set(root(a), root(b));
  for (;;) {
    const inside = [...nodes].filter((n) => root(n) === root(begin));
    const outside = [...nodes].filter((n) => root(n) !== root(begin));
    if (outside.length === 0) return ways;
    let least = Infinity;
    let link: [number, number] = [begin, outside[0]!];
    for (const a of inside)
      for (const b of outside) {
        const there = distance(a, b) + distance(b, a);
        if (there < least) [least, link] = [there, [a, b]];
      }
    ways.push(link, [link[1], link[0]]);
    piece.set(root(link[0]), root(link[1]));
  }
}

/** A walk along all ways, each once, from the beginning (Hierholzer 1873). */
function euler(ways: readonly [number, number][], begin: number): number[] {
  const leaving = new Map<number, number[]>();
  for (const [a, b] of ways) leaving.set(a, [...(leaving.get(a) ?? []), b]);
  const walk: number[] = [];
  const stack = [begin];
  while (stack.length > 0) {
    const next = leaving.get(stack.at(-1)!)?.pop();
    if (next === undefined) walk.push(stack.pop()!);
    else stack.push(next);
  }
  return walk.reverse();
}

/** Inner nodes in the order in which a walk over junctions first comes by. */
function passedBy(walks: Walks, map: FloorMap, walk: readonly number[], placeAt: (node: number) => Place): number[] {
  const { columns } = map.network;
  const columnAt = new Map(columns.map((c, i) => [c.x, i]));
  const at = new Map<number, { node: number; y: number }[]>();
  walks.places.forEach((place, node) => {
    if (node === 0 || node === walks.size - 1) return;
    const column = map.network.columnOf.get(place.aisle)!;
    at.set(column, [...(at.get(column) ?? []), { node, y: place.y }]);
  });
  const seen = new Set<number>();
  walk.forEach((to, i) => {
    if (i === 0 || walk[i - 1] === to) return;
    const path = map.walk(placeAt(walk[i - 1]!), placeAt(to));
    path.forEach(([x, y], p) => {
      const from = path[p - 1] ?? path[p]!;
      if (from[0] !== x) return;
      const met = (at.get(columnAt.get(x)!) ?? [])
        .filter((n) => n.y >= Math.min(from[1], y) && n.y <= Math.max(from[1], y))
        .sort((a, b) => (y >= from[1] ? a.y - b.y : b.y - a.y));
      for (const { node } of met) seen.add(node);
    });
  });
  return [...seen];
}

/**
 * The cheapest one-to-one assignment by successive shortest paths with potentials (Jonker and Volgenant 1987).
 *
 * @param costs square, row by row
 * @returns the column of each row
 */
function assignment(costs: readonly (readonly number[])[]): number[] {
  const n = costs.length;
  const [rowPrice, columnPrice] = [new Float64Array(n + 1), new Float64Array(n + 1)];
  const rowOf = new Int32Array(n + 1);
  const before = new Int32Array(n + 1);
  for (let row = 1; row <= n; row++) {
    rowOf[0] = row;
    let column = 0;
    const least = new Float64Array(n + 1).fill(Infinity);
    const used = new Uint8Array(n + 1);
    do {
      used[column] = 1;
      const here = rowOf[column]!;
      let [delta, next] = [Infinity, 0];
      for (let j = 1; j <= n; j++) {
        if (used[j]) continue;
        const reduced = costs[here - 1]![j - 1]! - rowPrice[here]! - columnPrice[j]!;
        if (reduced < least[j]!) {
          least[j] = reduced;
          before[j] = column;
        }
        if (least[j]! < delta) [delta, next] = [least[j]!, j];
      }
      if (delta === Infinity) return costs.map((_, i) => i);
      for (let j = 0; j <= n; j++)
        if (used[j]) {
          rowPrice[rowOf[j]!]! += delta;
          columnPrice[j]! -= delta;
        } else least[j]! -= delta;
      column = next;
    } while (rowOf[column] !== 0);
    do {
      const prior = before[column]!;
      rowOf[column] = rowOf[prior]!;
      column = prior;
    } while (column !== 0);
  }
  const columns = new Array<number>(n).fill(0);
  for (let j = 1; j <= n; j++) columns[rowOf[j]! - 1] = j - 1;
  return columns;
}
