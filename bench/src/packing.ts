import { pack3D } from 'binpackingjs/3d';
import { seeded, type Random } from '@hand-relay/core/random';
import {
  cutSpaces,
  Effort,
  faultsOf,
  fill,
  kitFor,
  Stack,
  turnsOf,
  volumeOf,
  type BoxKind,
  type Sides,
  type Space,
} from '@hand-relay/core/stacking/boxes';
import { cartonise, type CartonProblem, type CartonType, type Goods } from '@hand-relay/core/stacking/cartonising';
import { layerOf, palletise } from '@hand-relay/core/stacking/palletising';
import type { Note } from './note.ts';
import { quantile } from './scans.ts';
import { benchWeights } from './weights.ts';

const types: CartonType[] = (
  [
    [200, 150, 100, 28, 5_000],
    [300, 200, 150, 46, 10_000],
    [400, 300, 150, 74, 20_000],
    [400, 300, 250, 90, 20_000],
    [500, 400, 300, 128, 25_000],
    [600, 400, 400, 175, 30_000],
  ] as const
).map(([l, w, h, cost, maxWeightG]) => ({ inner: [l, w, h], tareG: 200, maxWeightG, cost }));
const largest = types.at(-1)!;

const goods = (size: Sides, units: number, more: Partial<Goods> = {}): Goods => ({
  size,
  units,
  weightG: 100,
  keepUpright: false,
  maxLoadOnTopG: null,
  stop: Infinity,
  group: null,
  ...more,
});

/** Orders of 1 to 60 units of up to eight items; `plain` without all that a general library does not know. */
function ordersOf(count: number, plain: boolean, seed: number): Goods[][] {
  const random = seeded(seed);
  return Array.from({ length: count }, () => {
    const units = random.int(1, 60);
    const list = Array.from({ length: random.int(1, Math.min(8, units)) }, () =>
      goods([random.int(40, 260), random.int(30, 200), random.int(20, 140)], 0, {
        weightG: random.int(50, 1500),
        ...(plain
          ? {}
          : {
              keepUpright: random.next() < 0.2,
              maxLoadOnTopG: random.next() < 0.3 ? random.int(500, 9000) : null,
              group: random.next() < 0.15 ? random.pick(['food', 'soap']) : null,
            }),
      }),
    );
    for (let i = 0; i < units; i++) random.pick(list).units += 1;
    return list.filter((g) => g.units > 0);
  });
}

const problem = (list: Goods[], support: number): CartonProblem => ({ types, goods: list, support, objective: 'cost' });

/** Units one by one, the largest first, each into the first carton and the first free space that takes it. */
function firstFit(list: Goods[], support: number): number {
  interface Open {
    stack: Stack;
    spaces: Space[];
    group: string | null;
    units: number[];
  }
  const into = (open: Open, k: number) => {
    const { group } = list[k]!;
    if (group !== null && open.group !== null && group !== open.group) return false;
    for (const space of [...open.spaces].sort((a, b) => a.from[2] - b.from[2] || a.from[0] - b.from[0]))
      for (const size of turnsOf(list[k]!)) {
        if (size.some((s, axis) => s > space.to[axis]! - space.from[axis]!)) continue;
        if (!open.stack.add([{ kind: k, at: space.from, size }])) continue;
        open.spaces = cutSpaces(open.spaces, space.from, size);
        open.group ??= group;
        open.units.push(k);
        return true;
      }
    return false;
  };
  const begin = ({ inner, maxWeightG }: CartonType): Open => ({
    stack: new Stack({ inner, maxWeightG, support }, list),
    spaces: [{ from: [0, 0, 0], to: inner }],
    group: null,
    units: [],
  });
  const units = list
    .flatMap((g, k) => Array.from({ length: g.units }, () => k))
    .sort((a, b) => volumeOf(list[b]!.size) - volumeOf(list[a]!.size));
  const cartons: Open[] = [];
  for (const k of units) {
    if (cartons.some((c) => into(c, k))) continue;
    const next = begin(largest);
    into(next, k);
    cartons.push(next);
  }
  // Each in the cheapest that takes the same, by the same method.
  return cartons.reduce((sum, c) => {
    const cheapest = types.find((t) => {
      const smaller = begin(t);
      return c.units.every((k) => into(smaller, k));
    });
    return sum + (cheapest ?? largest).cost;
  }, 0);
}

const asBin = ({ inner, maxWeightG }: CartonType, name: string) => ({
  name,
  width: inner[0],
  height: inner[1],
  depth: inner[2],
  maxWeight: maxWeightG,
});
const asItems = (list: Goods[], counts: number[]) =>
  list.flatMap((g, k) =>
    Array.from({ length: counts[k]! }, () => ({
      name: String(k),
      width: g.size[0],
      height: g.size[1],
      depth: g.size[2],
      weight: g.weightG,
    })),
  );

/** The library: the cheapest single carton, else the largest ones, each then made as cheap as it takes the same. */
function byLibrary(list: Goods[]): number {
  const single = (counts: number[]) =>
    types.find((t) => pack3D({ bins: [asBin(t, 'one')], items: asItems(list, counts) }).unfitItems.length === 0);
  const all = list.map((g) => g.units);
  const one = single(all);
  if (one) return one.cost;
  const bins = Array.from({ length: 20 }, (_, i) => asBin(largest, String(i)));
  const { packedBins, unfitItems } = pack3D({ bins, items: asItems(list, all) });
  if (unfitItems.length > 0) return Infinity;
  return packedBins.reduce((sum, bin) => {
    if (bin.items.length === 0) return sum;
    const counts = list.map((_, k) => bin.items.filter((i) => i.name === String(k)).length);
    return sum + (single(counts) ?? largest).cost;
  }, 0);
}

function benchOrders(note: Note): void {
  for (const [what, plain, support, effort] of [
    ['with groups, upright goods and loads, as in a wave', false, 0.75, 'quick'],
    ['that a library can pack too, as in a wave', true, 0, 'quick'],
    ['that a library can pack too, as at the bench', true, 0, 'usual'],
  ] as const) {
    const orders = ordersOf(150, plain, 11);
    const [ms, sums] = [[] as number[], { ours: 0, bound: 0, first: 0, library: 0, dearer: 0 }];
    for (const list of orders) {
      const begun = performance.now();
      const answer = cartonise(problem(list, support), { effort });
      ms.push(performance.now() - begun);
      for (const c of answer.cartons)
        if (faultsOf({ ...types[c.type]!, support }, list, c.units).length > 0) throw new Error('A packing is wrong.');
      sums.ours += answer.cost;
      sums.bound += answer.lowerBound;
      sums.first += firstFit(list, support);
      if (!plain) continue;
      const theirs = byLibrary(list);
      sums.library += theirs;
      if (answer.cost > theirs) sums.dearer += 1;
    }
    note(`150 orders ${what}: median`, quantile(ms, 0.5), 'ms', 'aim 30');
    note('  p95', quantile(ms, 0.95), 'ms', 'aim 150');
    note('  cheaper than first fit, largest first', 100 * (1 - sums.ours / sums.first), '%', 'aim 8');
    note('  dearer than the bound', 100 * (sums.ours / sums.bound - 1), '%');
    if (!plain) continue;
    note('  cheaper than the library', 100 * (1 - sums.ours / sums.library), '%');
    note('  orders dearer than by the library', sums.dearer, '', 'aim 0');
  }
}

/** A room cut at random into pieces, which are turned. */
function pieces(inner: Sides, count: number, random: Random): BoxKind[] {
  const list: Sides[] = [inner];
  while (list.length < count) {
    const at = random.int(0, list.length - 1);
    const axis = random.int(0, 2);
    const whole = list[at]![axis]!;
    if (whole < 40) continue;
    const part = random.int(Math.ceil(whole * 0.2), Math.floor(whole * 0.8));
    const cut = (length: number) => list[at]!.map((s, k) => (k === axis ? length : s)) as unknown as Sides;
    list.splice(at, 1, cut(part), cut(whole - part));
  }
  return list.map((size) => goods(random.pick(turnsOf(goods(size, 1))), 1));
}

function benchPerfect(note: Note): void {
  for (const [from, to] of [
    [5, 10],
    [11, 20],
    [21, 30],
  ] as const) {
    let [solved, within] = [0, 0];
    for (let seed = 1; seed <= 40; seed++) {
      const random = seeded(seed);
      const type = types[3]!;
      const list = pieces(type.inner, random.int(from, to), random) as Goods[];
      const end = performance.now() + 1000;
      const { cartons } = cartonise(
        { types: [{ ...type, maxWeightG: Infinity }], goods: list, support: 0.75, objective: 'cartons' },
        { effort: 'thorough', over: () => performance.now() > end },
      );
      if (cartons.length === 1) solved += 1;
      if (cartons.length <= 2) within += 1;
    }
    note(
      `40 cartons cut into ${from} to ${to} pieces, a second each: put together again`,
      (100 * solved) / 40,
      '%',
      to <= 20 ? 'aim 80' : '',
    );
    note('  within one carton more', (100 * within) / 40, '%', to <= 20 ? 'aim 95' : '');
  }
}

/** Container loads in the manner of Bischoff and Ratcliff, 1995 (the recipe from memory): the container is nearly full. */
function benchContainers(note: Note): void {
  const inner: Sides = [587, 233, 220];
  for (const kindsOf of [3, 5, 8, 10, 12, 15, 20])
    for (const seconds of [1, 5]) {
      let full = 0;
      for (let seed = 1; seed <= 4; seed++) {
        const random = seeded(100 * seed + kindsOf);
        const kinds = Array.from({ length: kindsOf }, (): BoxKind =>
          goods([random.int(30, 120), random.int(25, 100), random.int(20, 80)], 0),
        );
        const wanted = kinds.map(() => 0);
        for (let left = volumeOf(inner); ;) {
          const k = random.int(0, kindsOf - 1);
          left -= volumeOf(kinds[k]!.size);
          if (left < 0) break;
          wanted[k]! += 1;
        }
        const end = performance.now() + 1000 * seconds;
        const room = { inner, maxWeightG: Infinity, support: 0.75 };
        const kit = kitFor(kinds, inner, wanted, 900, room.support);
        const { volume, units } = fill(room, kit, wanted, {
          effort: new Effort(1e9, () => performance.now() > end),
          seed: 1,
        });
        if (faultsOf(room, kinds, units).length > 0) throw new Error('A packing is wrong.');
        full += volume / volumeOf(inner) / 4;
      }
      note(`Container loads of ${kindsOf} kinds of boxes, ${seconds} s: filled`, 100 * full, '%');
    }
}

function benchPallets(note: Note): void {
  let known = 0;
  const layers = [
    [1200, 800, 600, 400, 4],
    [1200, 1000, 600, 400, 5],
    [1200, 800, 400, 300, 8],
    [1200, 1000, 400, 300, 10],
    [1200, 800, 176, 135, 38],
    [22, 16, 5, 3, 23],
  ] as const;
  for (const [l, w, a, b, best] of layers) if (layerOf(l, w, a, b).length === best) known += 1;
  note(`Layers of equal boxes as many as is known to be best, of ${layers.length}`, known, '');
  const pallet = { lengthMm: 1200, widthMm: 800, heightMm: 144, tareG: 25_000, maxHeightMm: 1800, maxLoadG: 1_000_000 };
  for (const stops of [1, 3]) {
    const [used, least, full] = [[] as number[], [] as number[], [] as number[]];
    for (let seed = 1; seed <= 8; seed++) {
      const random = seeded(seed);
      const kinds = Array.from({ length: 10 }, (): BoxKind => ({
        size: [random.int(200, 600), random.int(150, 400), random.int(100, 400)],
        weightG: random.int(2000, 15_000),
        keepUpright: random.next() < 0.5,
        maxLoadOnTopG: random.next() < 0.3 ? random.int(40_000, 150_000) : null,
        stop: stops === 1 ? Infinity : random.int(1, stops),
      }));
      const counts = kinds.map(() => random.int(5, 25));
      const end = performance.now() + 2000;
      const { pallets, lowerBound } = palletise(
        { pallet, kinds, counts, support: 0.8 },
        { over: () => performance.now() > end },
      );
      used.push(pallets.length);
      least.push(lowerBound);
      for (const p of pallets.slice(0, -1))
        full.push(p.reduce((sum, u) => sum + volumeOf(u.size), 0) / (1200 * 800 * (1800 - 144)));
    }
    const total = (list: number[]) => list.reduce((a, b) => a + b, 0);
    const what = stops === 1 ? 'one stop' : `${stops} stops`;
    note(`8 loads of ten kinds on pallets, ${what}, 2 s each: pallets`, total(used), '');
    note('  the bound', total(least), '');
    note('  filled, all but the last of each', (100 * total(full)) / Math.max(1, full.length), '%');
  }
}

/** Weights of cartons; cartons and pallets: cost beside first fit, a library and the bound; perfect packings, container loads, a whole wave. */
export function benchPacking(note: Note): void {
  benchWeights(note);
  benchOrders(note);
  benchPerfect(note);
  benchContainers(note);
  benchPallets(note);
  const begun = performance.now();
  for (const list of ordersOf(1000, false, 5)) cartonise(problem(list, 0.75), { effort: 'quick' });
  note('1,000 orders of a wave, one thread', (performance.now() - begun) / 1000, 's', 'aim 20');
}
