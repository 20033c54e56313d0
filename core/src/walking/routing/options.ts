import type { Network } from '../floor/index.ts';
import { alongKind } from './frontier.ts';

/** What must be visited on one aisle: places ascending by y, each once. */
export interface Needed {
  ys: number[];
  /** Places of these where one end of the walk, but not both, lies: an odd number of edges meets there. */
  odd: number[];
}

/**
 * The ways of walking a stretch of aisle between two cross aisles that can be part of a shortest walk: the kind of each
 * (`alongKind`) and its metres. `first` says whether the lowest edge is walked an odd number of times, `gap` which edge
 * nobody walks (-1: none).
 */
export interface Options {
  count: number;
  kind: Int32Array;
  metres: Float64Array;
  first: Int32Array;
  gap: Int32Array;
}

/** Kinds there are, and so options at most. */
const KINDS = 18;

export const noOptions = (): Options => ({
  count: 0,
  kind: new Int32Array(KINDS),
  metres: new Float64Array(KINDS),
  first: new Int32Array(KINDS),
  gap: new Int32Array(KINDS),
});

function put(
  o: Options,
  low: number,
  high: number,
  through: boolean,
  metres: number,
  first: number,
  gap: number,
): void {
  const i = o.count++;
  o.kind[i] = alongKind(low, high, through);
  o.metres[i] = metres;
  o.first[i] = first;
  o.gap[i] = gap;
}

/** The same where there may be one of this kind already: the shorter stays. */
function putShorter(
  o: Options,
  low: number,
  high: number,
  through: boolean,
  metres: number,
  first: number,
  gap: number,
): void {
  const known = o.kind.subarray(0, o.count).indexOf(alongKind(low, high, through));
  if (known < 0) return put(o, low, high, through, metres, first, gap);
  if (metres >= o.metres[known]!) return;
  o.metres[known] = metres;
  o.first[known] = first;
  o.gap[known] = gap;
}

/** Fills `into` with the options of a stretch of which the places from `begin` up to `end` are needed. */
export function optionsOf(
  network: Network,
  column: number,
  row: number,
  places: Needed | null,
  begin: number,
  end: number,
  into: Options,
): void {
  const [bottom, top] = [network.rows[row]!, network.rows[row + 1]!];
  const whole = top - bottom;
  const count = end - begin;
  into.count = 0;
  if (!network.plain) {
    const shut = shutEdges(network, column, bottom, top, places?.ys.slice(begin, end) ?? []);
    if (shut.length > 1) {
      if (count === 0) put(into, 0, 0, false, 0, 0, 0);
      return;
    }
    if (shut.length === 1) return withEnds(bottom, top, places, begin, end, shut[0]!, into);
  }
  if (count > 0 && places!.odd.some((y) => y > bottom && y < top))
    return withEnds(bottom, top, places, begin, end, null, into);
  put(into, 1, 1, true, whole, 1, -1);
  put(into, 2, 2, true, 2 * whole, 0, -1);
  if (count === 0) return put(into, 0, 0, false, 0, 0, 0);
  if (network.columns[column]!.way !== 0) return;
  const { ys } = places!;
  put(into, 2, 0, false, 2 * (ys[end - 1]! - bottom), 0, count);
  put(into, 0, 2, false, 2 * (top - ys[begin]!), 0, 0);
  if (count < 2) return;
  let [largest, gap] = [-1, 0];
  for (let i = begin + 1; i < end; i++) {
    const between = ys[i]! - ys[i - 1]!;
    if (between > largest) [largest, gap] = [between, i - begin];
  }
  put(into, 2, 2, false, 2 * (whole - largest), 0, gap);
}

/** Edges of a stretch that nobody can walk through. */
function shutEdges({ columns }: Network, column: number, bottom: number, top: number, between: number[]): number[] {
  const { free } = columns[column]!;
  const ys = [bottom, ...between, top];
  const shut: number[] = [];
  for (let i = 0; i + 1 < ys.length; i++)
    if (!free.some(([from, to]) => from <= ys[i]! && ys[i + 1]! <= to)) shut.push(i);
  return shut;
}

/** Where the walk starts or finishes between the cross aisles, or an edge is shut, every way is tried. */
function withEnds(
  bottom: number,
  top: number,
  places: Needed | null,
  begin: number,
  end: number,
  shut: number | null,
  into: Options,
): void {
  const between = places?.ys.slice(begin, end) ?? [];
  const ys = [bottom, ...between, top];
  for (const first of [0, 1])
    for (let gap = -1; gap <= between.length; gap++) {
      if (shut !== null && gap !== shut) continue;
      const times = timesAlong(between, places?.odd ?? [], first, gap);
      if (!times) continue;
      const metres = times.reduce((n, t, i) => n + t * (ys[i + 1]! - ys[i]!), 0);
      putShorter(into, times[0]!, times.at(-1)!, gap < 0, metres, first, gap);
    }
}

/** How often each edge of a stretch is walked; null where the gap would take an edge that must be walked once. */
export function timesAlong(between: number[], ends: number[], first: number, gap: number): number[] | null {
  const times: number[] = [];
  let odd = first === 1;
  for (let i = 0; i <= between.length; i++) {
    if (i > 0 && ends.includes(between[i - 1]!)) odd = !odd;
    if (i === gap && odd) return null;
    times.push(i === gap ? 0 : odd ? 1 : 2);
  }
  return times;
}
