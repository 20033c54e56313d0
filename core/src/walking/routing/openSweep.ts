import type { Network } from '../floor/index.ts';
import { alongKind, openFrontier, type Frontier } from './frontier.ts';
import { timesAlong } from './options.ts';
import type { Edge } from './sweep.ts';

/** Ways of walking a stretch with so many ends of the walk in it: the shortest of each kind. */
interface Way {
  kind: number;
  metres: number;
  ends: number[];
  times: number[];
}

interface Reached {
  metres: number;
  before: Reached | null;
  edges: Edge[];
  /** Ends of the walk that lie behind. */
  used: number;
  state: number;
}

const frontiers = new Map<number, Frontier>();

/**
 * The shortest walk over all places that begins and ends at whichever of them suits it best: the sweep over aisles with
 * the number of ends passed so far in its state. Exact, as the sweep itself is.
 *
 * @param ys for each aisle of the network the places to visit, ascending, each once
 * @returns edges of the walk; null where not everything can be connected
 */
export function openSweep(network: Network, ys: readonly number[][]): Edge[] | null {
  const { columns, rows, across } = network;
  const frontier = frontiers.get(rows.length) ?? openFrontier(rows.length);
  frontiers.set(rows.length, frontier);
  const lastNeeded = ys.findLastIndex((list) => list.length > 0);
  const first = network.plain ? ys.findIndex((list) => list.length > 0) : 0;
  const last = network.plain ? lastNeeded : columns.length - 1;
  let front: Reached[] = [{ state: frontier.begin, used: 0, metres: 0, before: null, edges: [] }];
  const step = (
    each: (r: Reached, to: (state: number, used: number, metres: number, edges: Edge[]) => void) => void,
  ) => {
    const best = new Map<number, Reached>();
    for (const before of front)
      each(before, (state, used, more, edges) => {
        if (state < 0 || used > 2) return;
        const metres = before.metres + more;
        const known = best.get(state * 3 + used);
        if (!known || metres < known.metres) best.set(state * 3 + used, { state, used, metres, before, edges });
      });
    front = [...best.values()];
  };
  for (let column = first; column <= last; column++) {
    const there = ys[column]!;
    rows.forEach((y, row) => {
      if (there.includes(y))
        step((r, to) => {
          to(frontier.visit(r.state, row, false), r.used, 0, []);
          to(frontier.visit(r.state, row, true), r.used + 1, 0, []);
        });
      const top = rows[row + 1];
      if (top === undefined) return;
      const between = there.filter((p) => p > y && p < top);
      const ways = waysAlong(network, column, [y, ...between, top]);
      step((r, to) => {
        for (const w of ways)
          to(
            frontier.along(r.state, row, w.kind),
            r.used + w.ends.length,
            w.metres,
            edgesOf(column, [y, ...between, top], w),
          );
      });
    });
    if (column === last) break;
    const gap = columns[column + 1]!.x - columns[column]!.x;
    rows.forEach((y, row) =>
      step((r, to) => {
        const meets = frontier.at(r.state, row);
        if (meets !== 1) {
          const dropped = frontier.drop(r.state, row);
          if (dropped !== frontier.closed || column >= lastNeeded) to(dropped, r.used, 0, []);
        }
        // As many edges go on as meet here, odd or even, so that the state stays what it is.
        if (meets > 0 && across[row]![column]!)
          to(r.state, r.used, meets * gap, [{ from: { column, y }, to: { column: column + 1, y }, times: meets }]);
      }),
    );
  }
  const whole = front.filter((r) => r.used === 2 && frontier.whole(r.state));
  if (whole.length === 0) return null;
  const edges: Edge[] = [];
  for (let at: Reached | null = whole.reduce((a, b) => (b.metres < a.metres ? b : a)); at; at = at.before)
    edges.push(...at.edges);
  return edges;
}

/** Every way of walking a stretch from its lower to its upper cross aisle, places between in `ys`, with at most two ends. */
function waysAlong(network: Network, column: number, ys: number[]): Way[] {
  const between = ys.slice(1, -1);
  const { free } = network.columns[column]!;
  const shut = ys.slice(1).flatMap((y, i) => (free.some(([from, to]) => from <= ys[i]! && y <= to) ? [] : [i]));
  // Places shut in on both sides are in nobody's reach.
  if (shut.length > 1) return [];
  const best = new Map<number, Way>();
  const offer = (ends: number[]) => {
    for (const first of [0, 1])
      for (let gap = -1; gap <= between.length; gap++) {
        if (shut.length > 0 && gap !== shut[0]) continue;
        const times = timesAlong(between, ends, first, gap);
        if (!times) continue;
        const metres = times.reduce((n, t, i) => n + t * (ys[i + 1]! - ys[i]!), 0);
        const kind = alongKind(times[0]!, times.at(-1)!, gap < 0);
        const known = best.get(kind * 3 + ends.length);
        if (!known || metres < known.metres) best.set(kind * 3 + ends.length, { kind, metres, ends, times });
      }
  };
  offer([]);
  between.forEach((a, i) => {
    offer([a]);
    for (const b of between.slice(i + 1)) offer([a, b]);
  });
  return [...best.values()];
}

const edgesOf = (column: number, ys: number[], { times }: Way): Edge[] =>
  times.flatMap((t, i) => (t === 0 ? [] : [{ from: { column, y: ys[i]! }, to: { column, y: ys[i + 1]! }, times: t }]));
