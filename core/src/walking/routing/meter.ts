import type { FloorMap, Place } from '../floor/index.ts';
import { oneBlockLength, type AisleStops } from './oneBlock.ts';
import { lengthBetween } from './route.ts';
import type { Needed } from './options.ts';
import { sweep, SWEEP_ROWS } from './sweep.ts';

/** Stops as a meter takes them: for each aisle of the network their y, ascending, each once; null where there is none. */
export type Load = (Float64Array | null)[];

/** Measures shortest walks over joined loads from one start to one finish, again and again. */
export interface Meter {
  /** Reads stops once, so that they can be measured often. */
  load: (stops: readonly Place[]) => Load;
  /** Metres of the shortest walk over all stops of these loads; of a good one where the shortest is not found quickly. */
  length: (loads: readonly Load[]) => number;
}

/**
 * Prepares measuring on a floor. In one block with start and finish at the front of one aisle it is Ratliff and
 * Rosenthal's method written out, on other two-way floors the sweep, else `route`.
 */
export function openMeter(map: FloorMap, start: Place, finish: Place): Meter {
  const { network } = map;
  const { columns, columnOf, rows, plain } = network;
  const load = (stops: readonly Place[]): Load => {
    const ys: Set<number>[] = [];
    for (const { aisle, y } of stops) (ys[columnOf.get(aisle)!] ??= new Set()).add(y);
    return columns.map((_, c) => (ys[c] ? Float64Array.from(ys[c]).sort() : null));
  };
  const home = start.aisle === finish.aisle && start.y === finish.y;
  if (plain && rows.length === 2 && home && rows.includes(start.y))
    return { load, length: oneBlock(map, columnOf.get(start.aisle)!, start.y === rows[1]) };
  if (network.directed || rows.length > SWEEP_ROWS)
    return {
      load,
      length: (loads) =>
        lengthBetween(
          {
            floor: { aisles: [], crossAisles: [] },
            start,
            finish,
            stops: loads.flatMap((l) =>
              l.flatMap((ys, c) => [...(ys ?? [])].map((y) => ({ id: `${c} ${y}`, aisle: columns[c]!.id, y }))),
            ),
          },
          map,
        ),
    };
  const ends = load([start, finish]);
  return {
    load,
    length(loads) {
      const needed = columns.map((_, c): Needed | null => {
        const own = loads.filter((l) => l[c]);
        if (own.length === 0 && !ends[c]) return null;
        const ys = new Set(ends[c] ?? []);
        for (const l of own) for (const y of l[c]!) ys.add(y);
        const odd = home ? [] : [start, finish].filter((p) => columnOf.get(p.aisle) === c).map((p) => p.y);
        return { ys: [...ys].sort((a, b) => a - b), odd };
      });
      // Within one stretch of one aisle the sweep finds no walk, as it never comes to a cross aisle.
      const straight = needed.filter(Boolean).length === 1 ? lineLength(map, needed, start, finish) : null;
      return straight ?? sweep(network, needed).metres;
    },
  };
}

function lineLength(map: FloorMap, needed: (Needed | null)[], start: Place, finish: Place): number | null {
  const column = needed.findIndex(Boolean);
  const { ys } = needed[column]!;
  const [low, high] = [ys[0]!, ys.at(-1)!];
  // Who is where nobody can walk is there without a walk.
  if (low === high) return 0;
  const { way, free } = map.network.columns[column]!;
  if (way !== 0 || !free.some(([from, to]) => from <= low && high <= to)) return null;
  return high - low + Math.min(start.y - low + (high - finish.y), high - start.y + (finish.y - low));
}

/** The meter of one block: no list is made for a measurement. */
function oneBlock(map: FloorMap, depot: number, turned: boolean): Meter['length'] {
  const { columns, rows } = map.network;
  const long = rows[1]! - rows[0]!;
  const slots = columns.map((): AisleStops => ({ near: 0, far: 0, gap: 0 }));
  const stops: (AisleStops | null)[] = columns.map(() => null);
  const xs = new Float64Array(columns.length);
  const front = rows[0]!;
  const counts = new Int32Array(columns.length);
  /** Places of an aisle that there is room for. */
  let room = 64;
  let scratch = new Float64Array(columns.length * room);
  const widen = (least: number) => {
    const wider = 2 * least;
    const larger = new Float64Array(columns.length * wider);
    for (let c = 0; c < columns.length; c++) larger.set(scratch.subarray(c * room, c * room + counts[c]!), c * wider);
    [room, scratch] = [wider, larger];
  };
  return (loads) => {
    counts.fill(0);
    let [first, last] = [depot, depot];
    for (const l of loads)
      for (let c = 0; c < columns.length; c++) {
        const ys = l[c];
        if (!ys) continue;
        const many = ys.length;
        if (counts[c]! + many > room) widen(counts[c]! + many);
        if (c < first) first = c;
        if (c > last) last = c;
        const base = c * room;
        let n = counts[c]!;
        // Sorted in as they come: a few places each.
        for (let i = 0; i < many; i++) {
          const y = ys[i]!;
          let at = base + n++;
          while (at > base && scratch[at - 1]! > y) {
            scratch[at] = scratch[at - 1]!;
            at--;
          }
          scratch[at] = y;
        }
        counts[c] = n;
      }
    for (let c = first; c <= last; c++) {
      const n = counts[c]!;
      xs[c - first] = columns[c]!.x;
      if (n === 0) {
        stops[c - first] = null;
        continue;
      }
      const base = c * room;
      const slot = slots[c]!;
      const bottom = scratch[base]! - front;
      const top = scratch[base + n - 1]! - front;
      slot.near = turned ? long - top : bottom;
      slot.far = turned ? long - bottom : top;
      let gap = 0;
      for (let i = base + 1; i < base + n; i++) {
        const between = scratch[i]! - scratch[i - 1]!;
        if (between > gap) gap = between;
      }
      slot.gap = gap;
      stops[c - first] = slot;
    }
    return oneBlockLength(xs, stops, last - first + 1, long, depot - first);
  };
}
