import { batch, type BatchOrder, type CartLimits } from '../batching/index.ts';
import {
  chooseBins,
  equals,
  ranked,
  usualBinRules,
  type BinReason,
  type BinStock,
  type FreeStock,
} from '../bins/index.ts';
import { mapFloor, type FloorMap } from '../floor/index.ts';
import { openMeter, openStandIn, UnreachableStop, type Meter, type Stop } from '../routing/index.ts';
import type { PlannedPick, PlannedRun, WaveBin, WaveNeed, WavePlan, WaveProblem } from './problem.ts';
import { cartLoads } from './cartLoads.ts';
import { chained } from './chained.ts';
import { handlingOf, routeRun, type RunStop } from './routeRun.ts';

export interface PlanOptions {
  seed?: number;
  /** Share of the time for searching that is spent; without it a fixed number of steps is done. */
  spent?: (() => number) | undefined;
  /** Called with the progress now and then, from 0 to 1. */
  onProgress?: ((far: number) => void) | undefined;
}

/** A stop of a plan: a bin for a need. */
interface Chosen extends RunStop {
  need: WaveNeed;
  why: BinReason;
  saves: number;
}

/**
 * Plans a wave: chooses bins by the site's rules, groups orders onto carts for the way it is picked, chooses bins again
 * where the rules leave it to the walk of the whole run, and routes each run.
 */
export function planWave(problem: WaveProblem, options: PlanOptions = {}): WavePlan {
  const map = mapFloor(problem.floor);
  const meter = compareBy(map, problem);
  const { stops, missing, free } = chooseFirst({ ...problem, stock: inReach(problem, map) }, meter);
  const areas = problem.picking === 'zones' ? [...new Set(stops.map((s) => s.bin.area ?? ''))].sort() : [null];
  const runs: PlannedRun[] = [];
  const split = new Map<string, WavePlan['split'][number]>();
  areas.forEach((area, i) => {
    const own = area === null ? stops : stops.filter((s) => (s.bin.area ?? '') === area);
    const part = (far: number) => (i + far) / areas.length;
    const parts = partsOf(problem, map, own);
    addSplits(split, parts);
    const groups = groupsOf(problem, map, parts, {
      ...options,
      spent: options.spent && (() => Math.min(1, options.spent!() * areas.length - i)),
      onProgress: (far) => options.onProgress?.(0.9 * part(far)),
    });
    groups.forEach((group, done) => {
      const inRun = group.flatMap((part) => part.stops);
      rechoose(problem, inRun, free, meter);
      const run = routed(
        problem,
        map,
        group.map((part) => part.order),
        area,
        inRun,
      );
      runs.push(...run.runs);
      missing.push(...run.missing);
      options.onProgress?.(part(0.9 + (0.1 * (done + 1)) / groups.length));
    });
  });
  return { runs: inWorkingOrder(problem, runs, map), missing, split: [...split.values()] };
}

/** Cross aisles beyond which the shortest walk costs too much to be asked for with every bin that could be another. */
const MEASURED_ROWS = 4;

/** What bins are compared by: the walk they lead to, or its stand-in where that would take long. */
function compareBy(map: FloorMap, { start, finish }: WaveProblem): Meter {
  const meter = openMeter(map, start, finish);
  const { directed, rows } = map.network;
  const quick = !directed && rows.length <= MEASURED_ROWS;
  return quick ? meter : { load: meter.load, length: openStandIn(map, start, finish, false) };
}

/** Stock that a picker can walk to and come back from: what lies behind a blocked stretch is no stock for now. */
function inReach({ start, finish, bins, stock }: WaveProblem, map: FloorMap): BinStock[] {
  if (map.network.plain) return stock;
  const shut = new Set(
    bins.filter((b) => map.distance(start, b) === Infinity || map.distance(b, finish) === Infinity).map((b) => b.bin),
  );
  return stock.filter((s) => !shut.has(s.bin));
}

function inWorkingOrder(problem: WaveProblem, runs: PlannedRun[], map: FloorMap): PlannedRun[] {
  const orderOf = new Map(problem.orders.map((o) => [o.id, o]));
  const least = (run: PlannedRun, of: (o: WaveProblem['orders'][number]) => number) =>
    Math.min(...run.orders.map((id) => of(orderOf.get(id)!)));
  const sorted = runs
    .map((run) => ({ run, due: least(run, (o) => o.due ?? Infinity), priority: least(run, (o) => o.priority) }))
    .sort(
      (a, b) =>
        (a.due === b.due ? 0 : a.due - b.due) ||
        a.priority - b.priority ||
        b.run.seconds - a.run.seconds ||
        b.run.distance - a.run.distance,
    );
  if (problem.walking?.between !== 'chain') return sorted.map(({ run }) => run);
  const placeOf = new Map(problem.bins.map((b) => [b.bin, b]));
  let rank = 0;
  const ranked = sorted.map((s, i) => {
    const before = sorted[i - 1];
    if (before && (before.due !== s.due || before.priority !== s.priority)) rank += 1;
    return { run: s.run, rank };
  });
  return chained(problem, ranked, (bin) => placeOf.get(bin)!, map);
}

/** Bins by the rules; where these leave it to the walk, what lengthens the walk of the order alone least. */
function chooseFirst(
  problem: WaveProblem,
  meter: Meter,
): { stops: Chosen[]; missing: WavePlan['missing']; free: FreeStock } {
  const placeOf = new Map(problem.bins.map((b) => [b.bin, b]));
  const needOf = new Map(problem.needs.map((n) => [n.id, n]));
  const binOf = (code: string): WaveBin => {
    const bin = placeOf.get(code);
    if (!bin) throw new RangeError(`Bin "${code}" has stock but no place on the floor.`);
    return bin;
  };
  const walkOf = new Map<string, WaveBin[]>();
  const length = (bins: WaveBin[]) => meter.length([meter.load(bins)]);
  const { choices, missing, free } = chooseBins(problem.stock, problem.needs, {
    rules: problem.rules ?? usualBinRules,
    lengthens(need, bin) {
      const there = walkOf.get(needOf.get(need.id)!.order) ?? [];
      return length([...there, binOf(bin)]) - length(there);
    },
    chosen({ need, bin }) {
      const { order } = needOf.get(need)!;
      walkOf.set(order, [...(walkOf.get(order) ?? []), binOf(bin)]);
    },
  });
  const stops = choices.map((choice, i): Chosen => {
    const bin = binOf(choice.bin);
    const { units, why } = choice;
    const need = needOf.get(choice.need)!;
    const { order, handling, chilled } = need;
    return {
      id: String(i),
      aisle: bin.aisle,
      y: bin.y,
      bin,
      need,
      order,
      handling,
      chilled,
      units,
      why,
      saves: 0,
      position: 0,
    };
  });
  return { stops, missing, free };
}

/** An order, or as much of one as a cart takes. */
interface Part {
  id: string;
  order: string;
  stops: Chosen[];
  over: boolean;
}

/** Orders as parts that a cart takes, in the order of the problem. */
function partsOf(problem: WaveProblem, map: FloorMap, stops: readonly Chosen[]): Part[] {
  const stopsOf = new Map<string, Chosen[]>();
  for (const s of stops) {
    const list = stopsOf.get(s.need.order);
    if (list) list.push(s);
    else stopsOf.set(s.need.order, [s]);
  }
  const cut = (stop: Chosen, units: number, part: number) => ({ ...stop, id: `${stop.id}/${part}`, units });
  return problem.orders.flatMap(({ id: order }) => {
    const own = stopsOf.get(order);
    if (!own) return [];
    const whole = cartLoads(own, problem.cart, cut);
    if (whole.length === 1) return { id: order, order, stops: own, over: whole[0]!.over };
    const along = [...own].sort((a, b) => map.x(a.aisle) - map.x(b.aisle) || a.y - b.y);
    return cartLoads(along, problem.cart, cut).map((load, i) => ({ ...load, id: `${order} ${i}`, order }));
  });
}

/** Adds the orders of which no cart takes the whole. */
function addSplits(split: Map<string, WavePlan['split'][number]>, parts: readonly Part[]): void {
  const counts = new Map<string, number>();
  for (const { order } of parts) counts.set(order, (counts.get(order) ?? 0) + 1);
  for (const { order, over } of parts) {
    if (counts.get(order) === 1 && !over) continue;
    const so = split.get(order) ?? { order, runs: 0, over: false };
    split.set(order, { order, runs: so.runs + 1, over: so.over || over });
  }
}

/** Parts of orders that share a run, in the order of their positions. */
function groupsOf(problem: WaveProblem, map: FloorMap, parts: readonly Part[], options: PlanOptions): Part[][] {
  if (problem.picking === 'single') return parts.map((part) => [part]);
  const rankOf = new Map(problem.orders.map((o) => [o.id, o]));
  const orders = parts.map(({ id, order, stops }): BatchOrder => {
    const { priority, due } = rankOf.get(order)!;
    const sum = (of: (n: WaveNeed) => number) => stops.reduce((n, s) => n + of(s.need) * s.units, 0);
    return {
      id,
      priority,
      due,
      handling: handlingOf(problem.crew, stops),
      stops,
      units: sum(() => 1),
      weightG: sum((n) => n.weightG),
      volumeCm3: sum((n) => n.volumeCm3),
    };
  });
  const cart: CartLimits =
    problem.picking === 'consolidate' ? { ...problem.cart, positions: orders.length || 1 } : problem.cart;
  const { floor, start, finish, crew } = problem;
  const shared = crew && {
    people: Math.max(1, crew.people),
    speed: crew.standards.speed,
    perRun: crew.standards.perRun,
  };
  const { runs } = batch(
    orders,
    cart,
    { floor, start, finish, map },
    { ...options, ...(shared ? { crew: shared } : {}) },
  );
  const byId = new Map(parts.map((part) => [part.id, part]));
  return runs.map((ids) => ids.map((id) => byId.get(id)!));
}

/** Whether one run may visit both bins: where picking goes by zones, those of one area. */
const together = ({ picking }: WaveProblem, a: WaveBin | undefined, b: WaveBin): boolean =>
  picking !== 'zones' || (a?.area ?? '') === (b.area ?? '');

/** Times all stops of a run are looked at again for a bin nearer to its walk. */
const ROUNDS = 4;

/** Other bins that the site's rules hold for as good, where they make the whole run shorter. */
function rechoose(problem: WaveProblem, stops: Chosen[], free: FreeStock, meter: Meter): void {
  const rules = problem.rules ?? usualBinRules;
  if (!rules.includes('walk')) return;
  const placeOf = new Map(problem.bins.map((b) => [b.bin, b]));
  const load = (place: Stop | WaveBin) => meter.load([place]);
  const loads = stops.map(load);
  let length = meter.length(loads);
  for (let round = 0; round < ROUNDS; round++) {
    let shorter = false;
    stops.forEach((stop, i) => {
      const { need, units } = stop;
      // As if nothing were chosen yet: the bin in hand is one of those to choose from.
      free.giveBack(need, stop.bin.bin, units);
      const choice = equals(free.of(need), rules, units).filter((b) => b.units >= units);
      const without = [...loads];
      let [best, least] = [stop.bin, length];
      for (const { bin } of choice) {
        const place = placeOf.get(bin);
        if (!place || bin === stop.bin.bin || !together(problem, place, stop.bin)) continue;
        without[i] = load(place);
        const metres = meter.length(without);
        if (metres < least - 1e-9) [best, least] = [place, metres];
      }
      if (best !== stop.bin) {
        shorter = true;
        length = least;
        loads[i] = load(best);
        Object.assign(stop, { bin: best, aisle: best.aisle, y: best.y, why: 'walk' });
      }
      free.take(need, stop.bin.bin, units);
    });
    if (!shorter) break;
  }
  stops.forEach((stop, i) => {
    if (stop.why !== 'walk') return;
    free.giveBack(stop.need, stop.bin.bin, stop.units);
    const usual = ranked(
      equals(free.of(stop.need), rules, stop.units).filter((b) => together(problem, placeOf.get(b.bin), stop.bin)),
      rules,
      stop.units,
    )[0];
    free.take(stop.need, stop.bin.bin, stop.units);
    const place = usual && placeOf.get(usual.bin);
    if (!place) return;
    const other = [...loads];
    other[i] = load(place);
    stop.saves = Math.max(0, meter.length(other) - length);
  });
}

/** The run of a group. What one-way aisles keep apart from the rest of it is missing: no walk takes in both. */
function routed(
  problem: WaveProblem,
  map: FloorMap,
  group: string[],
  area: string | null,
  stops: Chosen[],
): { runs: PlannedRun[]; missing: WavePlan['missing'] } {
  const positionOf = new Map(group.map((id, i) => [id, i + 1]));
  for (const s of stops) s.position = positionOf.get(s.order)!;
  const missing: WavePlan['missing'] = [];
  for (let left = stops; left.length > 0;)
    try {
      const { order, ...walk } = routeRun(problem, left, map);
      return { runs: [{ orders: group, area, ...walk, approach: 0, picks: order.map(pickOf) }], missing };
    } catch (error) {
      const out = error instanceof UnreachableStop ? left.find((s) => s.id === error.stop) : undefined;
      if (!out) throw error;
      left = left.filter((s) => s !== out);
      missing.push({ need: out.need.id, units: out.units });
    }
  return { runs: [], missing };
}

const pickOf = ({ need, bin, units, why, saves, position }: Chosen, i: number): PlannedPick => ({
  need: need.id,
  bin: bin.bin,
  units,
  sequence: i + 1,
  position,
  why,
  saves,
});
