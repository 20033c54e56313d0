import { demandKinds, type DemandKind } from '../../handling/shipping/index.ts';
import { usualBinRules, type BinRule } from '../../walking/bins/index.ts';
import { usualWalking, type Carry, type Walking } from '../../walking/choices/index.ts';

/** How a site works: the choices that its people make once, each with what it changes. */

/** The stages that goods pass: packed at a bench or not, confirmed by a person or by itself. */
export const stagings = ['pick-pack-ship', 'pick-ship', 'pick-and-ship'] as const;
export type Staging = (typeof stagings)[number];

/** When stock is promised to a line. */
export const reserveTimes = ['intake', 'hand', 'release', 'scan'] as const;
export type ReserveTime = (typeof reserveTimes)[number];

/**
 * How units are counted: every scan for what it holds, the rest typed or touched; every pack scanned and nothing
 * typed; or one scan for all that is asked.
 */
export const countings = ['packs', 'each', 'once'] as const;
export type Counting = (typeof countings)[number];

/** What is done about goods that are easily taken for others: nothing, told on the card, or each unit scanned besides. */
export const lookAlikeModes = ['off', 'tell', 'each'] as const;
export type LookAlikeMode = (typeof lookAlikeModes)[number];

export const checks = ['bin', 'item', 'lot', 'position'] as const;
export type Check = (typeof checks)[number];

/** What a key in place of a scan is worth at a check: as good as one, with a reason, or nothing. */
export const touchRules = ['allowed', 'reason', 'never'] as const;
export type TouchRule = (typeof touchRules)[number];
export type Touching = Record<Check, TouchRule>;

/** Why something was confirmed by touch where a scan is wanted. */
export const touchReasons = ['no-label', 'unreadable', 'scanner', 'other'] as const;
export type TouchReason = (typeof touchReasons)[number];

/** Which of bin and item is asked first. */
export const checkOrders = ['bin-first', 'item-first', 'either'] as const;
export type CheckOrder = (typeof checkOrders)[number];

/** What is done about the places of a cart before the first stop: they are as planned, or each is confirmed. */
export const setUps = ['none', 'confirm'] as const;
export type SetUp = (typeof setUps)[number];

/** Where goods go from the bin: to the order's place on the cart, or straight into the carton that ships. */
export const drops = ['place', 'carton'] as const;
export type Drop = (typeof drops)[number];

/**
 * Whether a carton is weighed before it is closed. Never: it weighs what its goods do. Optional: a weight that was
 * measured is checked. Always: it does not close without one.
 */
export const weighings = ['never', 'optional', 'always'] as const;
export type Weighing = (typeof weighings)[number];

/**
 * When the label of a carton is printed: by hand, when the carton is closed (with "of 3" only on those that know it), or
 * all of an order together with its last carton.
 */
export const labelTimes = ['hand', 'each', 'all'] as const;
export type LabelTime = (typeof labelTimes)[number];

/** With which carton of a shipment its packing slip is printed. */
export const slipTimes = ['hand', 'first', 'last'] as const;
export type SlipTime = (typeof slipTimes)[number];

/** What is checked at a pick, in which order, and where the goods go. Units are counted in any case. */
export interface PickSettings {
  checks: Check[];
  order: CheckOrder;
  counting: Counting;
  drop: Drop;
}

export interface SiteSettings {
  stages: Staging;
  reserve: ReserveTime;
  /** Whether what is released and not reserved counts as taken. */
  countReleased: boolean;
  /** Whether a picker may take another lot than the one promised, where it is free and good for the customer. */
  lotSwaps: boolean;
  /** Whether a picker may take all of a pick from another bin of the same item and lot, by scanning that bin. */
  otherBins: boolean;
  /** Ways to pick: a cart with one order, and one with several. */
  picking: { one: PickSettings; many: PickSettings };
  /** Whether a check may be confirmed by touch, or a count typed before anything of the item was scanned. */
  touch: Touching;
  /** Rules by which bins are chosen, the first that tells two apart deciding. */
  bins: BinRule[];
  carry: Carry;
  walking: Walking;
  /** Whether each order's place on the cart is confirmed before the first stop. */
  setUp: SetUp;
  /** Whether a picker may gather a trip of their own from what waits. */
  ownTrips: boolean;
  /** Whether a run is taken with the scan of a cart; where crates have no numbers, the smallest free one counts as its. */
  askCart: boolean;
  lookAlikes: LookAlikeMode;
  /** When a pick should leave at most so many units, the picker is asked whether that is what is left; never at −1. */
  nearlyEmpty: number;
  /** Units by which a count may differ from the books and put them right at once; beyond, somebody has to agree. */
  countLimit: number;
  /** Lane of urgent work; empty where there is none. */
  expressLane: string;
  /** What else than picking is done, in the site's own words. */
  otherWork: string[];
  sounds: { accepted: boolean; refused: boolean; finished: boolean };
  /** What is printed by itself when a wave starts, and where; on any printer for sheets without a name. */
  atStart: { lists: boolean; slips: boolean; printer: string };
  /** What is printed by itself when a carton is closed, where its bench has printers for it. */
  labels: LabelTime;
  slips: SlipTime;
  /** Whether a closed carton is confirmed in its lane by scanning the lane. */
  confirmLane: boolean;
  /** Kinds of demand whose packaging is accounted for, where its type is. */
  packagingFor: DemandKind[];
  /** Whether cartons are weighed before they are closed. */
  weighing: Weighing;
  label: '4x6' | 'a6';
  paper: 'a4' | 'letter';
  units: 'metric' | 'imperial';
}

const allChecks: PickSettings = {
  checks: ['bin', 'item', 'lot', 'position'],
  order: 'bin-first',
  counting: 'packs',
  drop: 'place',
};

/** How a site works until somebody says otherwise. */
export const usualSettings: SiteSettings = {
  stages: 'pick-pack-ship',
  reserve: 'release',
  countReleased: true,
  lotSwaps: false,
  otherBins: false,
  picking: { one: allChecks, many: allChecks },
  touch: { bin: 'allowed', item: 'allowed', lot: 'allowed', position: 'allowed' },
  bins: [...usualBinRules],
  carry: { heavyFirst: false, chilledLast: false, highTogether: false },
  walking: usualWalking,
  setUp: 'none',
  ownTrips: false,
  askCart: true,
  lookAlikes: 'tell',
  nearlyEmpty: 3,
  countLimit: 5,
  expressLane: '',
  otherWork: ['Resting', 'Charging', 'Tidying', 'Briefing', 'Helping out', 'Waiting for work'],
  sounds: { accepted: true, refused: true, finished: true },
  atStart: { lists: false, slips: false, printer: '' },
  labels: 'each',
  slips: 'hand',
  confirmLane: false,
  packagingFor: [...demandKinds],
  weighing: 'optional',
  label: '4x6',
  paper: 'a4',
  units: 'metric',
};

/** The way of picking a cart with so many orders. */
export function pickSettings({ picking }: Pick<SiteSettings, 'picking'>, orders: number): PickSettings {
  return orders > 1 ? picking.many : picking.one;
}
