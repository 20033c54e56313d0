import { FNC1, gtin14, readGs1, type Gs1Content } from '../gs1/index.ts';

/** What a scanned text names. Lots and serials have no form of their own: they stay `text` and are judged in context. */
export type Code =
  | ({ kind: 'gs1' } & Gs1Content)
  | { kind: 'bin'; bin: string }
  | { kind: 'cart'; cart: string }
  | { kind: 'position'; cart: string; number: number }
  | { kind: 'lane'; code: string }
  | { kind: 'bench'; code: string }
  | { kind: 'door'; code: string }
  | { kind: 'box'; code: string }
  | { kind: 'order'; number: string }
  | { kind: 'run'; number: string }
  | { kind: 'badge'; badge: string }
  | { kind: 'command'; command: string }
  /** A number from the sheet of counts; null is all that is asked. */
  | { kind: 'count'; count: number | null }
  | { kind: 'text'; text: string };

/** A symbology identifier (ISO/IEC 15424) in front of what was read, and those that say that it is of GS1. */
const symbology = /^\][A-Za-z][0-9A-Za-z]/;
const ofGs1 = /^\](C1|e0|d2|Q3|J1)/;

const forms: [RegExp, (m: RegExpMatchArray) => Code][] = [
  [/^CART-(\d{2,3})-(\d{1,2})$/, (m) => ({ kind: 'position', cart: `CART-${m[1]}`, number: Number(m[2]) })],
  [/^(CART-\d{2,3})$/, (m) => ({ kind: 'cart', cart: m[1]! })],
  [/^(LANE-\w+)$/, (m) => ({ kind: 'lane', code: m[1]! })],
  [/^(BENCH-\w+)$/, (m) => ({ kind: 'bench', code: m[1]! })],
  [/^(DOOR-\w+)$/, (m) => ({ kind: 'door', code: m[1]! })],
  [/^(BOX-[\w-]+)$/, (m) => ({ kind: 'box', code: m[1]! })],
  [/^ORDER-(.+)$/, (m) => ({ kind: 'order', number: m[1]! })],
  [/^RUN-(.+)$/, (m) => ({ kind: 'run', number: m[1]! })],
  [/^(BADGE-\w+)$/, (m) => ({ kind: 'badge', badge: m[1]! })],
  [/^DO-([A-Z-]+)$/, (m) => ({ kind: 'command', command: m[1]!.toLowerCase() })],
  [/^COUNT-(\d{1,4}|ALL)$/, (m) => ({ kind: 'count', count: m[1] === 'ALL' ? null : Number(m[1]) })],
  [/^([A-Z]{1,2}-\d{2,3}-\d{1,2})$/, (m) => ({ kind: 'bin', bin: m[1]! })],
];

/** Codes that the place where it is scanned knows: a house may name its bins, carts and cartons as it likes. */
export interface Own {
  bin?: string;
  /** Other bins that are known there. */
  bins?: readonly string[];
  position?: { cart: string; number: number };
  /** Items by their own number, each with the GTIN of its unit. */
  items?: readonly { sku: string; gtin: string }[];
  boxes?: readonly string[];
}

/** What a text is among the codes that its place knows, if it is one of them. */
function ownCode(upper: string, { bin, bins, position, items, boxes }: Own): Code | undefined {
  if (bin && upper === bin.toUpperCase()) return { kind: 'bin', bin };
  const other = bins?.find((b) => b.toUpperCase() === upper);
  if (other) return { kind: 'bin', bin: other };
  if (position && upper === `${position.cart}-${position.number}`.toUpperCase())
    return { kind: 'position', ...position };
  const box = boxes?.find((b) => b.toUpperCase() === upper);
  if (box) return { kind: 'box', code: box };
  const item = items?.find((i) => i.sku.toUpperCase() === upper);
  return item && { kind: 'gs1', gtin: item.gtin, elements: [{ ai: '01', value: item.gtin }] };
}

/**
 * Says what a scanned or typed text names: one of the codes that its place knows, else by its form.
 *
 * @param scanned the text as the scanner sent it, with or without symbology identifier
 * @param thisYear the present year, for the century of dates in GS1 symbols
 * @param own codes that are known where it is scanned
 */
export function readCode(scanned: string, thisYear: number, own: Own = {}): Code {
  const text = scanned.trim().replace(symbology, '');
  const upper = text.toUpperCase();
  const known = ownCode(upper, own);
  if (known) return known;
  for (const [form, code] of forms) {
    const match = upper.match(form);
    if (match) return code(match);
  }
  const gtin = gtin14(text);
  if (gtin) return { kind: 'gs1', gtin, elements: [{ ai: '01', value: gtin }] };
  if (/^\d{18}$/.test(text)) {
    const unit = readGs1(`00${text}`, thisYear);
    if (unit) return { kind: 'gs1', ...unit };
  }
  // A separator in front says the same where the scanner names the symbology.
  const content = readGs1(ofGs1.test(scanned.trim()) ? FNC1 + text : text, thisYear);
  if (content) return { kind: 'gs1', ...content };
  return { kind: 'text', text };
}
