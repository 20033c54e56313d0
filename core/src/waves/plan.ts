import { batch, type CartLimits } from '../batching/index.ts';
import { chooseBins, type BinStock } from '../bins/index.ts';
import type { Floor, Place, Point } from '../floor/index.ts';
import { route } from '../routing/index.ts';

/** A reserved part of an order line: one item, one lot. */
export interface WaveNeed {
  id: string;
  order: string;
  item: string;
  lot: string | null;
  units: number;
  weightG: number;
  volumeCm3: number;
}

export interface WaveProblem {
  floor: Floor;
  start: Place;
  finish: Place;
  cart: CartLimits;
  /** Places of the bins that hold stock. */
  bins: { bin: string; aisle: string; y: number }[];
  stock: BinStock[];
  orders: { id: string; priority: number }[];
  needs: WaveNeed[];
}

export interface PlannedPick {
  need: string;
  bin: string;
  units: number;
  /** From 1 in walking order. */
  sequence: number;
  /** Position of the cart, from 1. */
  position: number;
}

export interface PlannedRun {
  /** In the order of their positions. */
  orders: string[];
  distance: number;
  path: Point[];
  stops: number;
  picks: PlannedPick[];
}

export interface WavePlan {
  runs: PlannedRun[];
  /** Needs that no bin covers. */
  missing: { need: string; units: number }[];
}

/** Chooses bins, groups orders onto carts and routes each run. `onRun` is told after each run is routed. */
export function planWave(problem: WaveProblem, onRun?: (done: number, of: number) => void): WavePlan {
  const placeOf = new Map(problem.bins.map((b) => [b.bin, b]));
  const needOf = new Map(problem.needs.map((n) => [n.id, n]));
  const { choices, missing } = chooseBins(problem.stock, problem.needs);
  const stops = choices.map((choice, i) => {
    const place = placeOf.get(choice.bin);
    if (!place) throw new RangeError(`Bin "${choice.bin}" has stock but no place on the floor.`);
    return { id: String(i), aisle: place.aisle, y: place.y, choice, need: needOf.get(choice.need)! };
  });
  const stopsOf = groupBy(stops, (s) => s.need.order);
  const orders = problem.orders
    .filter((o) => stopsOf.has(o.id))
    .map((o) => {
      const own = stopsOf.get(o.id)!;
      const sum = (of: (n: WaveNeed) => number) => own.reduce((n, s) => n + of(s.need) * s.choice.units, 0);
      return {
        id: o.id,
        priority: o.priority,
        stops: own,
        units: sum(() => 1),
        weightG: sum((n) => n.weightG),
        volumeCm3: sum((n) => n.volumeCm3),
      };
    });
  const groups = batch(orders, problem.cart, problem.floor, problem.start);
  const runs = groups.map((group, done) => {
    const positionOf = new Map(group.map((id, i) => [id, i + 1]));
    const own = group.flatMap((id) => stopsOf.get(id)!);
    const walk = route({ floor: problem.floor, start: problem.start, finish: problem.finish, stops: own });
    const picks = walk.sequence.map((id, i) => {
      const { choice, need } = stops[Number(id)]!;
      return {
        need: need.id,
        bin: choice.bin,
        units: choice.units,
        sequence: i + 1,
        position: positionOf.get(need.order)!,
      };
    });
    onRun?.(done + 1, groups.length);
    return {
      orders: group,
      distance: walk.distance,
      path: walk.path,
      stops: new Set(picks.map((p) => p.bin)).size,
      picks: inBinOrder(picks),
    };
  });
  return { runs, missing };
}

/** Bins above one another are one place: what is taken from one of them stays together, lower levels first. */
function inBinOrder(picks: PlannedPick[]): PlannedPick[] {
  const firstOf = new Map<string, number>();
  const columnOf = (bin: string) => bin.slice(0, bin.lastIndexOf('-'));
  for (const p of picks) if (!firstOf.has(columnOf(p.bin))) firstOf.set(columnOf(p.bin), p.sequence);
  return [...picks]
    .sort(
      (a, b) =>
        firstOf.get(columnOf(a.bin))! - firstOf.get(columnOf(b.bin))! ||
        (a.bin < b.bin ? -1 : a.bin > b.bin ? 1 : 0) ||
        a.position - b.position,
    )
    .map((p, i) => ({ ...p, sequence: i + 1 }));
}

function groupBy<T>(rows: T[], key: (row: T) => string): Map<string, T[]> {
  const groups = new Map<string, T[]>();
  for (const row of rows) {
    const k = key(row);
    groups.set(k, [...(groups.get(k) ?? []), row]);
  }
  return groups;
}
