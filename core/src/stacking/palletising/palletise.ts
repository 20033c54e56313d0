import { seeded } from '../../random/index.ts';
import {
  blockOf,
  Effort,
  fill,
  fitsAlone,
  kitFor,
  turnsOf,
  volumeOf,
  type Block,
  type BoxKind,
  type Kit,
  type Placed,
  type Room,
  type Sides,
} from '../boxes/index.ts';
import { sharedBound } from '../cartonising/index.ts';
import { layerOf } from './layer.ts';

/** A pallet: sides and heights in millimetres, weights in grams; `maxHeightMm` includes the pallet itself. */
export interface PalletType {
  lengthMm: number;
  widthMm: number;
  heightMm: number;
  tareG: number;
  maxHeightMm: number;
  /** Weight of the load alone. */
  maxLoadG: number;
}

export interface PalletProblem {
  pallet: PalletType;
  kinds: readonly BoxKind[];
  /** Units of each kind. */
  counts: readonly number[];
  support: number;
  /** Every second layer of equal units is turned about, so that columns hold each other. */
  interlocked?: boolean;
}

export interface Palletised {
  /** For each pallet its units, from below upwards; heights begin at the pallet's deck. */
  pallets: Placed[][];
  /** Pallets that nothing can do without. */
  lowerBound: number;
}

/** A unit that is too large or too heavy for the pallet. */
export class FitsNoPallet extends Error {
  constructor(readonly kind: number) {
    super(`Units of kind ${kind} fit no pallet.`);
  }
}

export interface PalletiseOptions {
  seed?: number;
  /** Whether the time is up. */
  over?: () => boolean;
}

/** Arrangements tried for one pallet, and for one that is built lower or with others. */
const STEPS = 120;
const AGAIN = 40;
const BLOCKS = 900;
/** Share of the pallet that units of one kind must cover for a layer of their own. */
const WORTH_A_LAYER = 0.6;

/**
 * How units stack on pallets: fewest pallets first, then the lowest. Equal units come as layers of a known pattern, the
 * rest in the maximal free spaces; pallet after pallet is filled with what weighs and bears most below, then the emptiest
 * are built again together with others, and each as low as it goes.
 *
 * @throws FitsNoPallet for the first kind of which a unit fits none
 */
export function palletise(problem: PalletProblem, { seed = 1, over = () => false }: PalletiseOptions = {}): Palletised {
  const { pallet, kinds, counts, support } = problem;
  const room: Room = {
    inner: [pallet.lengthMm, pallet.widthMm, pallet.maxHeightMm - pallet.heightMm],
    maxWeightG: pallet.maxLoadG,
    support,
  };
  counts.forEach((n, k) => {
    if (n > 0 && !(fitsAlone(kinds[k]!, room.inner) && kinds[k]!.weightG <= room.maxWeightG)) throw new FitsNoPallet(k);
  });
  if (counts.every((n) => n === 0)) return { pallets: [], lowerBound: 0 };
  const kit = kitFor(kinds, room.inner, counts, BLOCKS, support, layersFor(problem, room.inner, over));
  const total = counts.reduce((n, c) => n + c, 0);
  const effort = new Effort(1_500 + 10 * Math.min(total, 400), over);
  const build = (wanted: readonly number[], steps: number, run: number, height = room.inner[2]) =>
    fill({ ...room, inner: [room.inner[0], room.inner[1], height] }, kit, wanted, {
      effort: effort.part(steps),
      seed: seed + run,
    });

  const all = (wanted: readonly number[], steps: number, run: number): Placed[][] => {
    const made: Placed[][] = [];
    for (let left = [...wanted]; left.some((n) => n > 0);) {
      const filled = build(left, steps, run);
      made.push(filled.units);
      left = filled.left;
    }
    return made;
  };
  const bound = boundOf(kit, counts, room);
  let pallets = all(counts, STEPS, 0);
  const random = seeded(seed);
  for (let run = 1; pallets.length > bound && run <= 40 && !effort.ended; run++) {
    // The emptiest with one or two others: fewer of them are a pallet less, one that is emptier is closer to it.
    const byVolume = [...pallets].sort((a, b) => volumeIn(a) - volumeIn(b));
    const some = new Set([byVolume[0]!]);
    while (some.size < Math.min(pallets.length, 2 + (run % 2))) some.add(random.pick(byVolume));
    const made = all(countsOf([...some].flat(), kinds.length), AGAIN, run);
    const uneven = (list: readonly Placed[][]) => list.reduce((sum, p) => sum + volumeIn(p) ** 2, 0);
    if (made.length < some.size || (made.length === some.size && uneven(made) > uneven([...some])))
      pallets = [...pallets.filter((p) => !some.has(p)), ...made];
  }
  const lowered = pallets.map((units) => lowest(units, kit, room, build, effort));
  return { pallets: lowered.map((units) => inBuildingOrder(units)), lowerBound: Math.min(bound, pallets.length) };
}

/** Builds a pallet again with less height, as long as all of it finds room. */
function lowest(
  start: Placed[],
  { kinds }: Kit,
  room: Room,
  build: (wanted: readonly number[], steps: number, run: number, height: number) => { units: Placed[]; left: number[] },
  effort: Effort,
): Placed[] {
  const wanted = countsOf(start, kinds.length);
  const least = volumeIn(start) / (room.inner[0] * room.inner[1]);
  let best = start;
  let low = Math.max(least, ...start.map((u) => Math.min(...u.size)));
  for (let tries = 0; tries < 6 && !effort.ended && heightOf(best) > low + 1; tries++) {
    const height = Math.floor(tries === 0 ? heightOf(best) - 1 : (low + heightOf(best)) / 2);
    const made = build(wanted, AGAIN, tries, height);
    if (made.left.every((n) => n === 0)) best = made.units;
    else if (tries > 0) low = height;
    // Not one millimetre less: half way down there is hardly anything either, two tries tell.
    else low = Math.max(low, heightOf(best) - (heightOf(best) - low) / 2);
  }
  return best;
}

/**
 * Pallets that nothing can do without: by volume, weight and dual feasible volumes, whatever support and stops demand.
 */
function boundOf({ kinds }: Kit, counts: readonly number[], { inner, maxWeightG }: Room): number {
  const type = { inner, tareG: 0, maxWeightG, cost: 1 };
  const goods = kinds.map((kind, k) => ({ ...kind, units: counts[k]!, group: null }));
  return Math.ceil(sharedBound({ types: [type], goods, support: 0, objective: 'cost' }, counts, [1]) - 1e-9);
}

/** Layers of equal units in every turn, one and several on each other, for as many units as there are. */
function layersFor({ kinds, counts, interlocked = false }: PalletProblem, inner: Sides, over: () => boolean): Block[] {
  return kinds.flatMap((kind, k) => {
    const upright = new Map(turnsOf(kind).map((turn) => [turn[2], turn]));
    return [...upright.values()].flatMap(([l, w, h]) => {
      // Of too few units to cover the pallet there is no layer of their own.
      if (h > inner[2] || counts[k]! * l * w < WORTH_A_LAYER * inner[0] * inner[1] || over()) return [];
      const flat = layerOf(inner[0], inner[1], l, w);
      if (flat.length < 2) return [];
      const blocks: Block[] = [];
      for (let n = 1; n * h <= inner[2] && n * flat.length <= counts[k]!; n++) {
        const units = Array.from({ length: n }, (_, z) =>
          flat.map((b): Placed => {
            const turned = interlocked && z % 2 === 1;
            // Turned about the middle of the pallet.
            const at: Sides = turned ? [inner[0] - b.x - b.l, b.y, z * h] : [b.x, b.y, z * h];
            return { kind: k, at, size: [b.l, b.w, h] };
          }),
        ).flat();
        blocks.push(blockOf(kinds, [inner[0], inner[1], n * h], units));
      }
      return blocks;
    });
  });
}

/** Layer by layer, each from the far edge to the near one: what bears a unit is there before it. */
export const inBuildingOrder = (units: readonly Placed[]): Placed[] =>
  [...units].sort((a, b) => a.at[2] - b.at[2] || a.at[1] - b.at[1] || a.at[0] - b.at[0]);

export const heightOf = (units: readonly Pick<Placed, 'at' | 'size'>[]): number =>
  Math.max(0, ...units.map((u) => u.at[2] + u.size[2]));
const volumeIn = (units: readonly Placed[]): number => units.reduce((sum, u) => sum + volumeOf(u.size), 0);

function countsOf(units: readonly Placed[], kinds: number): number[] {
  const counts = Array.from({ length: kinds }, () => 0);
  for (const { kind } of units) counts[kind]! += 1;
  return counts;
}

/** Where the weight of units lies, in millimetres from the corner and from the deck; null without weight. */
export function centreOfGravity(units: readonly (Pick<Placed, 'at' | 'size'> & { weightG: number })[]): Sides | null {
  const total = units.reduce((sum, u) => sum + u.weightG, 0);
  if (total === 0) return null;
  const along = (axis: 0 | 1 | 2) =>
    units.reduce((sum, u) => sum + u.weightG * (u.at[axis] + u.size[axis] / 2), 0) / total;
  return [along(0), along(1), along(2)];
}
