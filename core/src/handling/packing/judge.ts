import { readCode } from '../../reading/codes/index.ts';
import type { StepItem } from '../picking/index.ts';

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
  contents: { item: string; name: string; group: string | null; units: number }[];
}

export interface BenchState {
  loose: Loose[];
  carton: OpenCarton | null;
  /** Carton types that the bench has, by the code on the shelf. */
  boxes: { code: string; name: string }[];
}

export type PackRefusal =
  | 'carton-first'
  | 'carton-open'
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
  | 'nothing-to-pack';

export type PackInput =
  /** `times`: the number scanned before it, null for all of them; packs count for what they hold, each time. */
  | { kind: 'scan'; text: string; times?: number | null | undefined }
  | { kind: 'put'; item: string; lot: string | null; units: number };

export type PackVerdict =
  /** A carton is begun, in place of an empty one where one is open. */
  | { verdict: 'open'; box: string }
  /** The open carton is empty and is none any more. */
  | { verdict: 'discard' }
  | { verdict: 'put'; item: string; moves: { lot: string | null; serial: string | null; units: number }[] }
  | { verdict: 'close' }
  | { verdict: 'refused'; code: PackRefusal; expected: string; got: string; units?: number };

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
  const code = readCode(input.text, thisYear, {
    boxes: state.boxes.map((b) => b.code),
    items: state.loose.flatMap(({ item }) => {
      const unit = item.packs.find((p) => p.level === 'unit');
      return unit ? [{ sku: item.sku, gtin: unit.gtin }] : [];
    }),
  });
  const empty = state.carton?.contents.length === 0;
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
    if (state.carton && !empty) return refuse('carton-open', state.carton.typeCode, code.code);
    if (!state.boxes.some((b) => b.code === code.code)) return refuse('unknown-carton', '', code.code);
    // Without goods that wait here it would be a carton for nothing, and a shipment with it.
    if (state.loose.length === 0) return refuse('nothing-to-pack', '', code.code);
    return { verdict: 'open', box: code.code };
  }
  if (code.kind === 'command' && code.command === 'close') {
    if (!state.carton) return refuse('nothing-to-close', '', input.text);
    if (empty) return { verdict: 'discard' };
    return { verdict: 'close' };
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

  function put(rows: Loose[], count: number): PackVerdict {
    const { item: of } = rows[0]!;
    if (!state.carton) return refuse('carton-first', '', of.name);
    if (!Number.isInteger(count) || count < 1) return refuse('not-a-count', '1', String(count));
    const there = total(rows);
    if (count > there) return refuse('surplus', of.name, String(count), there);
    const clash = of.group && state.carton.contents.find((c) => c.group && c.group !== of.group);
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

const total = (rows: readonly Loose[]) => rows.reduce((n, l) => n + l.units, 0);
