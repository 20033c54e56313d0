import type { Carry, Picking, Walking } from '../choices/index.ts';
import type { CartLimits } from '../batching/index.ts';
import type { BinReason, BinRule, BinStock } from '../bins/index.ts';
import type { Floor, Place, Point } from '../floor/index.ts';
import type { Standards } from '../labour/index.ts';

/** The level from which a bin is out of a picker's reach. */
export const HIGH_LEVEL = 4;

/** A reserved part of an order line: one item, one lot. */
export interface WaveNeed {
  id: string;
  order: string;
  item: string;
  lot: string | null;
  units: number;
  weightG: number;
  volumeCm3: number;
  /** Class of handling, as the standards of labour know it. */
  handling?: string | undefined;
  chilled?: boolean | undefined;
}

export interface WaveBin {
  bin: string;
  aisle: string;
  y: number;
  level?: number | null | undefined;
  /** Number in the site's own order of walking. */
  sequence?: number | null | undefined;
  /** Part of the site that is picked by itself where picking goes by zones. */
  area?: string | undefined;
}

export interface WaveProblem {
  floor: Floor;
  start: Place;
  finish: Place;
  cart: CartLimits;
  /** Places of the bins that hold stock. */
  bins: WaveBin[];
  stock: BinStock[];
  /** `due`: seconds from now by which what is picked of it must be left, so that the rest is in time. */
  orders: { id: string; priority: number; due?: number | null | undefined }[];
  needs: WaveNeed[];
  rules?: readonly BinRule[] | undefined;
  picking?: Picking | undefined;
  carry?: Carry | undefined;
  walking?: Walking | undefined;
  /** Those who share the runs; without them the walk alone counts. */
  crew?: { people: number; standards: Standards } | undefined;
}

export interface PlannedPick {
  need: string;
  bin: string;
  units: number;
  /** From 1 in walking order. */
  sequence: number;
  /** Position of the cart, from 1. */
  position: number;
  why: BinReason;
  /** Metres that the bin saves beside the one that the site's other rules would take, where the walk decided. */
  saves: number;
}

export interface PlannedRun {
  /** In the order of their positions. */
  orders: string[];
  /** Part of the site, where picking goes by zones. */
  area: string | null;
  /** Metres; where runs chain, from the first stop to the last. */
  distance: number;
  /** Metres to the first stop from where the run before ended; 0 where each run begins at the start. */
  approach: number;
  /** Metres that no walk past these bins can beat, and whether this one does not exceed them. */
  lowerBound: number;
  proven: boolean;
  path: Point[];
  stops: number;
  /** What it should take, the approach included, by the crew's standards; 0 without a crew. */
  seconds: number;
  picks: PlannedPick[];
}

export interface WavePlan {
  /** In the order in which they should be picked: what leaves first, then what is urgent, then the longest. */
  runs: PlannedRun[];
  /** Needs that no bin covers. */
  missing: { need: string; units: number }[];
  /** Orders that no cart takes whole, and over how many runs each is split; `over`: a unit is beyond the cart by itself. */
  split: { order: string; runs: number; over: boolean }[];
}
