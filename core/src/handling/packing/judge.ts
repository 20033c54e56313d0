import { readCode } from '../../reading/codes/index.ts';
import type { Weighing } from '../../deciding/settings/index.ts';
import type { StepItem } from '../picking/index.ts';
import { isExpected } from '../weighing/index.ts';

export type PackItem = StepItem & {
  /** Goods of different groups never share a carton; null goes with all. */
  group: string | null;
};

/** Picked goods of the order that are in no carton yet. */
export interface Loose {
  item: PackItem;
  lot: string | null;
  serial: string | null;
  units: number;
}

export interface OpenCarton {
  id: string;
  typeCode: string;
  /** Its number on the order. */
  number: number;
  /** The number that was on it before it was begun; null where it gets one when it is closed. */
  sscc: string | null;
  /** What it should weigh, and what the scale showed since anything was last changed in it. */
  weight: { expectedG: number; toleranceG: number; measuredG: number | null };
  contents: { item: string; name: string; group: string | null; units: number }[];
}

/**
 * Why a carton is closed although the scale shows another weight: its goods were counted again, its packing is what
 * weighs, or the scale is wrong.
 */
export const weightReasons = ['counted', 'packing', 'scale'] as const;
export type WeightReason = (typeof weightReasons)[number];

export interface BenchState {
  loose: Loose[];
  /** The carton in hand: goods go into this one. */
  carton: OpenCarton | null;
  /** Cartons of the order that are open beside it. */
  others: OpenCarton[];
  /** Whether a carton is weighed before it is closed. */
  weighing: Weighing;
  /** Carton types that the bench has, by the code on the shelf. */
  boxes: { code: string; name: string }[];
  /** Where the site confirms it: closed cartons that are still at a bench, and the lane where they go. */
  toLane: { lane: string; cartons: { id: string; number: number }[] } | null;
  /** The site's lanes, by their signs. */
  lanes: string[];
}

export type PackRefusal =
  | 'carton-first'
  | 'only-carton'
  | 'unknown-carton'
  | 'not-this-order'
  | 'surplus'
  | 'keep-apart'
  | 'which-lot'
  | 'which-serial'
  | 'wrong-serial'
  | 'wrong-lot'
  | 'not-a-count'
  /** A number was scanned and several goods wait: the item that is scanned next is counted by it. */
  | 'count-of-which'
  | 'no-item'
  | 'nothing-to-close'
  | 'weigh-first'
  | 'weight-off'
  | 'not-a-weight'
  | 'nothing-to-pack'
  /** Another lane than the one where the cartons go. */
  | 'other-lane'
  /** No closed carton waits to be brought to a lane. */
  | 'nothing-for-lane';

export type PackInput =
  /** `times`: the number scanned before it, null for all of them; packs count for what they hold, each time. */
  | { kind: 'scan'; text: string; times?: number | null | undefined }
  | { kind: 'put'; item: string; lot: string | null; units: number }
  /** What the scale shows, with the carton itself. */
  | { kind: 'weigh'; grams: number }
  | { kind: 'close'; reason: WeightReason };

export type PackVerdict =
  /** A carton is begun: in place of the one in hand where that is empty, else beside it. */
  | { verdict: 'open'; box: string }
  /** Another open carton is taken in hand. */
  | { verdict: 'take'; carton: string; number: number }
  /** The open carton is empty and is none any more. */
  | { verdict: 'discard' }
  | { verdict: 'put'; item: string; moves: { lot: string | null; serial: string | null; units: number }[] }
  | { verdict: 'weigh'; grams: number; asExpected: boolean }
  /** The closed cartons stand in their lane. */
  | { verdict: 'stand'; lane: string; cartons: string[] }
  /** `reason` where the scale shows another weight than expected. */
  | { verdict: 'close'; reason: WeightReason | null }
  | { verdict: 'refused'; code: PackRefusal; expected: string; got: string; units?: number };

/** No carton is heavier, in grams. */
const MOST_G = 2_000_000;

/**
 * The same bench with another of its open cartons in hand: the one that is named, else the one in hand already.
 *
 * @param carton null for the one that the bench begins with, the last that was opened
 */
export function withInHand<S extends Pick<BenchState, 'carton' | 'others'>>(state: S, carton: string | null): S {
  const taken = state.others.find((c) => c.id === carton);
  if (!taken || !state.carton) return state;
  return { ...state, carton: taken, others: [...state.others.filter((c) => c !== taken), state.carton] };
}

/** Goods of a carton that may not lie beside others of this group; undefined where all may. */
export function clashIn<C extends { group: string | null }>(
  contents: readonly C[],
  group: string | null,
): C | undefined {
  return group === null ? undefined : contents.find((c) => c.group !== null && c.group !== group);
}

/**
 * Says what a scan at the bench means: a carton type opens a carton, an item goes into it, the close command closes
 * it. The one function that device and server both ask.
 */
export function judgePack(state: BenchState, input: PackInput, thisYear: number): PackVerdict {
  const refuse = (code: PackRefusal, expected: string, got: string, units?: number): PackVerdict => ({
    verdict: 'refused',
    code,
    expected,
    got,
    ...(units === undefined ? {} : { units }),
  });
  if (input.kind === 'put') {
    const rows = state.loose.filter((l) => l.item.id === input.item && (l.lot ?? '') === (input.lot ?? ''));
    if (rows.length === 0) return refuse('not-this-order', '', input.item);
    if (rows[0]!.item.tracksSerial) return refuse('which-serial', rows[0]!.item.name, String(input.units));
    return put(rows, input.units);
  }
  if (input.kind === 'weigh') return weigh(input.grams);
  if (input.kind === 'close') return close(input.reason);
  const sign = input.text.trim().toUpperCase();
  const lane = state.lanes.find((code) => code.toUpperCase() === sign);
  if (lane !== undefined) return stand(lane);
  const code = readCode(input.text, thisYear, {
    boxes: state.boxes.map((b) => b.code),
    items: state.loose.flatMap(({ item }) => {
      const unit = item.packs.find((p) => p.level === 'unit');
      return unit ? [{ sku: item.sku, gtin: unit.gtin }] : [];
    }),
  });
  const { times } = input;
  if (code.kind === 'count') {
    const [first] = state.loose;
    if (!first) return refuse('nothing-to-pack', '', input.text);
    if (state.loose.some((l) => l.item.id !== first.item.id || l.lot !== first.lot))
      return refuse('count-of-which', '', input.text, code.count ?? undefined);
    if (first.item.tracksSerial) return refuse('which-serial', first.item.name, input.text);
    return put(state.loose, code.count ?? total(state.loose));
  }
  if (code.kind === 'box') {
    if (!state.boxes.some((b) => b.code === code.code)) return refuse('unknown-carton', '', code.code);
    // Without goods that wait here it would be a carton for nothing, and a shipment with it.
    if (state.loose.length === 0) return refuse('nothing-to-pack', '', code.code);
    return { verdict: 'open', box: code.code };
  }
  if (code.kind === 'command' && code.command === 'close') return close(null);
  // The sheet has a barcode for the one reason that a packer gives without thinking: all was counted once more.
  if (code.kind === 'command' && code.command === 'counted') return close('counted');
  if (code.kind === 'command' && code.command === 'other') {
    // In the order of their numbers, round and round.
    const numbers = [...state.others].sort((a, b) => a.number - b.number);
    const next = numbers.find((c) => c.number > (state.carton?.number ?? 0)) ?? numbers[0];
    return next ? take(next) : refuse('only-carton', '', input.text);
  }
  if (code.kind === 'gs1' && code.sscc !== undefined) {
    const named = [state.carton, ...state.others].find((c) => c?.sscc === code.sscc);
    return named ? take(named) : refuse('no-item', '', input.text);
  }
  if (code.kind === 'text') {
    const bySerial = state.loose.filter((l) => l.serial === code.text);
    return bySerial.length > 0 ? put(bySerial, times ?? 1) : refuse('no-item', '', input.text);
  }
  if (code.kind !== 'gs1' || !code.gtin) return refuse('no-item', '', input.text);
  const ofItem = state.loose.filter((l) => l.item.packs.some((p) => p.gtin === code.gtin));
  if (ofItem.length === 0) return refuse('not-this-order', '', code.gtin);
  const { item } = ofItem[0]!;
  const pack = item.packs.find((p) => p.gtin === code.gtin)!.units;
  const unitsOf = (rows: Loose[]) => (times === null ? total(rows) : pack * (times ?? code.count ?? 1));
  if (item.tracksSerial) {
    if (code.serial === undefined) {
      return total(ofItem) === 1 && (times ?? 1) === 1 ? put(ofItem, 1) : refuse('which-serial', item.name, code.gtin);
    }
    const exact = ofItem.filter((l) => l.serial === code.serial);
    return exact.length > 0 ? put(exact, times ?? 1) : refuse('wrong-serial', item.name, code.serial);
  }
  if (code.lot !== undefined) {
    const exact = ofItem.filter((l) => l.lot === code.lot);
    return exact.length > 0 ? put(exact, unitsOf(exact)) : refuse('wrong-lot', ofItem[0]!.lot ?? '', code.lot);
  }
  const lots = new Set(ofItem.map((l) => l.lot));
  return lots.size > 1 ? refuse('which-lot', [...lots].join(', '), code.gtin) : put(ofItem, unitsOf(ofItem));

  function stand(lane: string): PackVerdict {
    if (!state.toLane) return refuse('nothing-for-lane', '', lane);
    if (lane !== state.toLane.lane) return refuse('other-lane', state.toLane.lane, lane);
    return { verdict: 'stand', lane, cartons: state.toLane.cartons.map((c) => c.id) };
  }

  function close(reason: WeightReason | null): PackVerdict {
    if (!state.carton) return refuse('nothing-to-close', '', '');
    if (state.carton.contents.length === 0) return { verdict: 'discard' };
    const { expectedG, toleranceG, measuredG } = state.carton.weight;
    if (measuredG === null)
      return state.weighing === 'always' ? refuse('weigh-first', '', '') : { verdict: 'close', reason: null };
    if (isExpected(measuredG, { grams: expectedG, toleranceG })) return { verdict: 'close', reason: null };
    return reason === null
      ? refuse('weight-off', String(expectedG), String(measuredG), toleranceG)
      : { verdict: 'close', reason };
  }

  function weigh(grams: number): PackVerdict {
    if (!state.carton) return refuse('nothing-to-close', '', '');
    if (!Number.isInteger(grams) || grams < 1 || grams > MOST_G) return refuse('not-a-weight', '', String(grams));
    const { expectedG, toleranceG } = state.carton.weight;
    return { verdict: 'weigh', grams, asExpected: isExpected(grams, { grams: expectedG, toleranceG }) };
  }

  function put(rows: Loose[], count: number): PackVerdict {
    const { item: of } = rows[0]!;
    if (!state.carton) return refuse('carton-first', '', of.name);
    if (!Number.isInteger(count) || count < 1) return refuse('not-a-count', '1', String(count));
    const there = total(rows);
    if (count > there) return refuse('surplus', of.name, String(count), there);
    const clash = clashIn(state.carton.contents, of.group);
    if (clash) return refuse('keep-apart', clash.name, of.name);
    let left = count;
    const moves = rows.flatMap((row) => {
      const units = Math.min(left, row.units);
      left -= units;
      return units > 0 ? [{ lot: row.lot, serial: row.serial, units }] : [];
    });
    return { verdict: 'put', item: of.id, moves };
  }
}

const take = ({ id, number }: OpenCarton): PackVerdict => ({ verdict: 'take', carton: id, number });

const total = (rows: readonly Loose[]) => rows.reduce((n, l) => n + l.units, 0);
