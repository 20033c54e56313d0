import type { Floor, Place } from '@hand-relay/core/walking/floor';
import type { Program, Solver } from '@hand-relay/core/solver';

/**
 * The shortest round walk by another method: a mixed-integer program over the edges of the floor, each walked up to
 * twice, an even number meeting everywhere; where the answer falls into pieces, that is forbidden and it is solved again
 * (cuts as of Dantzig, Fulkerson and Johnson 1954, on the graph of streets as in Letchford, Nasiri and Theis 2013).
 *
 * @returns its length, and whether it was proven in time
 */
export function exactRound(
  floor: Floor,
  depot: Place,
  stops: readonly Place[],
  solver: Solver,
  seconds: number,
): { metres: number; proven: boolean } {
  const needed = [depot, ...stops];
  const nodes = new Map<string, number>();
  const node = (x: number, y: number) => {
    const key = `${x} ${y}`;
    if (!nodes.has(key)) nodes.set(key, nodes.size);
    return nodes.get(key)!;
  };
  const x = new Map(floor.aisles.map((a) => [a.id, a.x]));
  const edges: { a: number; b: number; metres: number }[] = [];
  for (const aisle of floor.aisles) {
    const own = needed.filter((s) => s.aisle === aisle.id).map((s) => s.y);
    const ys = [...new Set([...floor.crossAisles, ...own])].sort((p, q) => p - q);
    for (let i = 1; i < ys.length; i++)
      edges.push({ a: node(aisle.x, ys[i - 1]!), b: node(aisle.x, ys[i]!), metres: ys[i]! - ys[i - 1]! });
  }
  const xs = floor.aisles.map((a) => a.x).sort((p, q) => p - q);
  for (const y of floor.crossAisles)
    for (let i = 1; i < xs.length; i++)
      edges.push({ a: node(xs[i - 1]!, y), b: node(xs[i]!, y), metres: xs[i]! - xs[i - 1]! });
  const must = new Set(needed.map((s) => node(x.get(s.aisle)!, s.y)));
  const count = nodes.size;
  // Variables: how often each edge is walked, then half the edges that meet at each place.
  const program: Program = {
    gain: [...edges.map((e) => -e.metres), ...Array<number>(count).fill(0)],
    top: [...edges.map(() => 2), ...Array<number>(count).fill(4)],
    whole: Array<boolean>(edges.length + count).fill(true),
    rows: [],
  };
  for (let n = 0; n < count; n++) {
    const meet = edges.flatMap((e, i) => (e.a === n || e.b === n ? [{ variable: i, factor: 1 }] : []));
    const half = { variable: edges.length + n, factor: -2 };
    program.rows.push({ limit: 0, terms: [...meet, half] });
    program.rows.push({ limit: 0, terms: [...meet, half].map((t) => ({ ...t, factor: -t.factor })) });
    if (must.has(n)) program.rows.push({ limit: -1, terms: [{ variable: edges.length + n, factor: -1 }] });
  }
  const begun = performance.now();
  for (;;) {
    const left = seconds - (performance.now() - begun) / 1000;
    if (left <= 0) return { metres: NaN, proven: false };
    const { x: found, bound, proven } = solver(program, { seconds: left, nodes: 1_000_000, seed: 1 });
    if (!found || !proven) return { metres: -bound, proven: false };
    const pieces = piecesOf(
      count,
      edges.filter((_, i) => found[i]! > 0.5),
    );
    const home = pieces[node(x.get(depot.aisle)!, depot.y)]!;
    const apart = [...new Set([...must].map((n) => pieces[n]!))].filter((p) => p !== home);
    if (apart.length === 0) return { metres: -bound, proven: true };
    for (const piece of apart)
      program.rows.push({
        limit: -2,
        terms: edges.flatMap((e, i) =>
          (pieces[e.a] === piece) !== (pieces[e.b] === piece) ? [{ variable: i, factor: -1 }] : [],
        ),
      });
  }
}

/** For each place the number of the connected piece in which it lies. */
function piecesOf(count: number, edges: { a: number; b: number }[]): number[] {
  const pieces = Array.from({ length: count }, (_, i) => i);
  const root = (n: number): number => (pieces[n] === n ? n : (pieces[n] = root(pieces[n]!)));
  for (const { a, b } of edges) pieces[root(a)] = root(b);
  return pieces.map((_, n) => root(n));
}
