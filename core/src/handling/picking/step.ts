import type { Check, PickSettings, Touching, TouchReason } from '../../deciding/settings/index.ts';

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
  /**
   * Base units of each of what the card counts in: 12 where it asks for inner packs of 12. One where it is missing, as in
   * what an earlier version left on a device.
   */
  countedBy?: number;
  position: { cart: string; number: number };
  /** Cartons of the order on this cart, where goods go straight into them; null where they go to the place. */
  carton: CartonHere | null;
  /** What is checked here, in which order, and how units are counted. */
  how: PickSettings;
  /** What a touch is worth here for whoever picks; as good as a scan where it is missing, as an earlier version left it. */
  touch?: Touching;
  /** Whether all of the pick may be taken from another bin, by scanning it. */
  otherBins?: boolean;
  /** Lots that may be taken in place of the one reserved: they lie in the bin, free, and are good for the customer. */
  otherLots: string[];
  /** Other bins that hold the item, with what of it is nobody's there; the best first. */
  elsewhere: OtherBin[];
  /** The last day on which the reserved lot is good, as an ISO date; null where it has none. */
  bestBefore: string | null;
  /** What forbids picking here at all, with why in words; null where nothing does. */
  stopped: { by: 'hold' | 'blocked'; why: string } | null;
}

/** What is known of the cartons into which a pick can go. */
export interface CartonHere {
  /** Number on the open carton of the order, an SSCC; null before one is begun. */
  sscc: string | null;
  /** Carton that is proposed for what the order has in the run. */
  box: string;
  /** Codes of all cartons that the site has. */
  boxes: string[];
  /** Numbers of the other cartons of the run: closed ones, and those of other orders. */
  others: string[];
  /** What numbers of this site begin with. */
  prefix: string;
}

/** A bin from which a pick could be done as well. */
export interface OtherBin {
  bin: string;
  /** Null where the item has no lots. */
  lot: string | null;
  units: number;
  serials: string[];
  at: { aisle: string; y: number };
}

/** How far a step has come. It holds nothing that the step itself says. */
export interface PickProgress {
  bin: boolean;
  lot: boolean;
  /** Base units in hand. */
  counted: number;
  /** Whether anything of the item was scanned. */
  seen: boolean;
  /** Checks that were confirmed by touch, or by a count with nothing scanned. */
  touched: Check[];
  serials: string[];
  /** Set by a short: the units that are there. */
  found: number | null;
  /** What the picker said was wrong, with `found`. */
  reason: ShortReason | null;
  /** The lot taken in place of the one reserved. */
  swapped: string | null;
  /** Where what is not found here is taken from; null where it stays missing. */
  rest: { bin: string; lot: string | null } | null;
  /** What the picker wrote of a short. */
  note: string;
  /** Number of the carton that was begun for this pick; null where it goes into the one that is open. */
  sscc: string | null;
  /** The carton taken in place of the one proposed. */
  box: string | null;
  /** The open carton takes no more: a further one is begun. */
  further: boolean;
  /** The carton was full with what is counted: the rest is a pick of its own. */
  full: boolean;
  /** All of it is taken from another bin, which was scanned: a pick of its own there. */
  moved: boolean;
}

export const shortReasons = ['not-enough', 'damaged', 'wrong-goods', 'bin-blocked', 'not-found'] as const;
export type ShortReason = (typeof shortReasons)[number];

export type PickInput =
  | { kind: 'scan'; text: string }
  /** A key pressed in place of a scan. */
  | { kind: 'touch'; what: 'bin' | 'lot' | 'position' | 'carton' | 'further'; why?: TouchReason }
  /** The quantity in hand, typed or by the "all" key. */
  | { kind: 'count'; units: number; why?: TouchReason }
  /** Only so many are there; the others are taken from another bin, or are missing. */
  | { kind: 'short'; units: number; reason: ShortReason; note?: string; rest?: { bin: string; lot: string | null } };

export type Awaited = 'bin' | 'item' | 'lot' | 'serial' | 'position' | 'carton';

export const freshProgress: PickProgress = {
  bin: false,
  lot: false,
  counted: 0,
  seen: false,
  touched: [],
  serials: [],
  found: null,
  reason: null,
  swapped: null,
  rest: null,
  note: '',
  sscc: null,
  box: null,
  further: false,
  full: false,
  moved: false,
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
  // Without a check on dropping the carton must still be known.
  if (step.carton) return checks.includes('position') || cartonOf(step, progress) === null ? ['carton'] : [];
  return checks.includes('position') ? ['position'] : [];
}

/** Number of the carton that a pick goes into: one begun for it, else the order's open one; null where one is to be begun. */
export function cartonOf(step: PickStep, progress: PickProgress): string | null {
  return progress.sscc ?? (progress.further ? null : (step.carton?.sscc ?? null));
}

/**
 * The pick of what is left of one: what was not found in its bin and is taken from another, as far as that one holds it,
 * or what goes into a further carton. Null where nothing is left, or nothing else was said. Device and server make the
 * same one.
 */
export function restOf(step: PickStep, progress: PickProgress): PickStep | null {
  const { rest } = progress;
  if (progress.full)
    return {
      ...step,
      id: `${step.id}.r`,
      lot: progress.swapped ?? step.lot,
      serialsInBin: step.serialsInBin.filter((s) => !progress.serials.includes(s)),
      units: target(step, progress) - progress.counted,
      countedBy: 1,
      carton: step.carton && { ...step.carton, sscc: cartonOf(step, progress) },
    };
  const from = rest && otherBin(step, rest);
  if (!from) return null;
  const units = Math.min(step.units - target(step, progress), from.units);
  if (units <= 0) return null;
  return {
    ...step,
    id: `${step.id}.r`,
    bin: from.bin,
    lot: from.lot,
    serialsInBin: from.serials,
    units,
    countedBy: units % (step.countedBy ?? 1) === 0 ? (step.countedBy ?? 1) : 1,
    otherLots: [],
    elsewhere: step.elsewhere.filter((o) => o !== from),
    bestBefore: from.lot === step.lot ? step.bestBefore : null,
    stopped: null,
  };
}

/**
 * How far the pick of what is left of one has come when it is made: whoever filled a carton, or scanned another bin,
 * stands at the bin.
 */
export function restProgress(progress: PickProgress): PickProgress {
  if (progress.moved) return { ...freshProgress, bin: true };
  return progress.full ? { ...freshProgress, bin: progress.bin, lot: progress.lot, further: true } : freshProgress;
}

/** One of the other bins of a pick, if it is among them. */
export function otherBin(step: PickStep, { bin, lot }: { bin: string; lot: string | null }): OtherBin | undefined {
  return step.elsewhere.find((o) => o.bin === bin && o.lot === lot);
}

/**
 * Picks that are done at the bin where one just was, without going anywhere between: whoever stands there has scanned it.
 *
 * @param picks a run's picks in walking order
 * @param at the place in it of the pick that is done
 * @returns places of the open picks that follow at the same bin
 */
export function atSameBin(picks: readonly { bin: string; open: boolean }[], at: number): number[] {
  const found: number[] = [];
  for (let n = at + 1; n < picks.length; n++) {
    if (!picks[n]!.open) continue;
    if (picks[n]!.bin !== picks[at]!.bin) break;
    found.push(n);
  }
  return found;
}
