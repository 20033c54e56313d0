import type { PickWay } from '../ways/index.ts';

/** A pack size of an item: how many base units a GTIN stands for. */
export interface Pack {
  /** 14 digits. */
  gtin: string;
  level: 'unit' | 'inner' | 'outer';
  units: number;
}

export interface StepItem {
  id: string;
  sku: string;
  name: string;
  packs: Pack[];
  tracksLot: boolean;
  tracksSerial: boolean;
}

/** One pick of a run as the device and the server both know it. */
export interface PickStep {
  id: string;
  bin: string;
  item: StepItem;
  /** The lot reserved, null where the item has none. */
  lot: string | null;
  /** Serial numbers that lie in the bin, empty where the item has none. */
  serialsInBin: string[];
  /** Base units asked. */
  units: number;
  position: { cart: string; number: number };
  /** What is checked here, in which order, and how units are counted. */
  how: PickWay;
  /** Lots that may be taken in place of the one reserved: they lie in the bin, free, and are good for the customer. */
  otherLots: string[];
}

/** How far a step has come. It holds nothing that the step itself says. */
export interface PickProgress {
  bin: boolean;
  lot: boolean;
  /** Base units in hand. */
  counted: number;
  serials: string[];
  /** Set by a short: the units that are there. */
  found: number | null;
  /** What the picker said was wrong, with `found`. */
  reason: ShortReason | null;
  /** The lot taken in place of the one reserved. */
  swapped: string | null;
}

export const shortReasons = ['not-enough', 'damaged', 'wrong-goods', 'bin-blocked', 'not-found'] as const;
export type ShortReason = (typeof shortReasons)[number];

export type PickInput =
  | { kind: 'scan'; text: string }
  /** A key pressed in place of a scan. */
  | { kind: 'touch'; what: 'bin' | 'lot' | 'position' }
  /** The quantity in hand, typed or by the "all" key. */
  | { kind: 'count'; units: number }
  /** Only so many are there. */
  | { kind: 'short'; units: number; reason: ShortReason };

export type Awaited = 'bin' | 'item' | 'lot' | 'serial' | 'position';

export const freshProgress: PickProgress = {
  bin: false,
  lot: false,
  counted: 0,
  serials: [],
  found: null,
  reason: null,
  swapped: null,
};

/** Units that make the step complete: those asked, or those found where the picker reported a short. */
export function target(step: PickStep, progress: PickProgress): number {
  return progress.found ?? step.units;
}

/** What the step waits for, the first one being what the card asks for; empty where all is told. */
export function awaited(step: PickStep, progress: PickProgress): Awaited[] {
  const { checks, order } = step.how;
  const bin: Awaited[] = checks.includes('bin') && !progress.bin ? ['bin'] : [];
  const goods: Awaited[] =
    progress.counted >= target(step, progress) ? [] : step.item.tracksSerial ? ['serial', 'item'] : ['item'];
  if (bin.length > 0 && (goods.length === 0 || order === 'bin-first')) return bin;
  // Whoever has goods in hand stands at the bin: what is asked next is more of them.
  if (goods.length > 0)
    return order !== 'either' ? goods : progress.counted > 0 ? [...goods, ...bin] : [...bin, ...goods];
  if (step.item.tracksLot && checks.includes('lot') && !progress.lot) return ['lot'];
  return checks.includes('position') ? ['position'] : [];
}
