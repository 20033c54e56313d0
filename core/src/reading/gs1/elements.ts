import { hasCheckDigit } from './checkDigit.ts';
import { identifierAt, ruleOf } from './identifiers.ts';
import { linkElements } from './digitalLink.ts';

/** FNC1 as a scanner sends it: the ASCII group separator. */
export const FNC1 = '\u001d';

/** What one scanned GS1 symbol says, each field absent where the symbol does not hold it. */
export interface Gs1Content {
  sscc?: string;
  /** Always 14 digits. */
  gtin?: string;
  lot?: string;
  serial?: string;
  /** ISO date, from best before (15) or, without it, expiry (17). */
  bestBefore?: string;
  /** Count of units, from 30 or 37. */
  count?: number;
  /** Every element in its order: application identifier and value. */
  elements: { ai: string; value: string }[];
}

/**
 * Identifiers whose elements are used here: their values must be right. Those of others are read by their length and
 * left alone.
 */
const used: ReadonlySet<string> = new Set([
  '00',
  '01',
  '02',
  '10',
  '11',
  '13',
  '15',
  '17',
  '21',
  '30',
  '37',
  '400',
  '410',
]);

/**
 * A date element YYMMDD as an ISO date. Day 00 is the month's last day; the century is the one that puts the
 * year within 49 years before and 50 after the present one (GS1 General Specifications, 7.12).
 */
export function gs1Date(value: string, thisYear: number): string | undefined {
  const [yy, mm, dd] = [value.slice(0, 2), value.slice(2, 4), value.slice(4, 6)].map(Number) as [
    number,
    number,
    number,
  ];
  if (mm < 1 || mm > 12) return undefined;
  const century = Math.floor(thisYear / 100);
  const gap = yy - (thisYear % 100);
  const year = (gap >= 51 ? century - 1 : gap <= -50 ? century + 1 : century) * 100 + yy;
  const last = new Date(Date.UTC(year, mm, 0)).getUTCDate();
  const day = dd === 0 ? last : dd;
  if (day > last) return undefined;
  return `${year}-${String(mm).padStart(2, '0')}-${String(day).padStart(2, '0')}`;
}

/**
 * Reads the text of a GS1 symbol: the raw data with FNC1 as group separators, the printed form with identifiers in
 * brackets, or a GS1 Digital Link address.
 *
 * @param raw the text without symbology identifier
 * @param thisYear the present year, for the century of dates
 * @returns the content, or undefined when the text is not a well-formed element string
 */
export function readGs1(raw: string, thisYear: number): Gs1Content | undefined {
  const elements = linkElements(raw) ?? (raw.startsWith('(') ? splitPrinted(raw) : splitRaw(raw));
  if (!elements || elements.length === 0 || !elements.every(wellFormed)) return undefined;
  const content: Gs1Content = { elements };
  for (const { ai, value } of elements) {
    if ((ai === '00' || ai === '01' || ai === '02' || ai === '410') && !hasCheckDigit(value)) return undefined;
    if (['11', '13', '15', '17'].includes(ai) && !gs1Date(value, thisYear)) return undefined;
    if (ai === '00') content.sscc = value;
    if (ai === '01' || ai === '02') content.gtin = value;
    if (ai === '10') content.lot = value;
    if (ai === '21') content.serial = value;
    if (ai === '15' || (ai === '17' && !content.bestBefore)) content.bestBefore = gs1Date(value, thisYear);
    if (ai === '30' || ai === '37') content.count = Number(value);
  }
  return content;
}

/** Whether an element says what it should, where it is used here. */
function wellFormed({ ai, value }: { ai: string; value: string }): boolean {
  return value !== '' && !value.includes(FNC1) && (!used.has(ai) || ruleOf(ai).form.test(value));
}

function splitRaw(raw: string): Gs1Content['elements'] | undefined {
  const elements: Gs1Content['elements'] = [];
  let rest = raw.startsWith(FNC1) ? raw.slice(1) : raw;
  // Without any sign that it is of GS1, a text that begins with digits may be anybody's number.
  if (!raw.includes(FNC1) && !used.has(identifierAt(rest) ?? '')) return undefined;
  while (rest.length > 0) {
    const ai = identifierAt(rest);
    if (!ai) return undefined;
    rest = rest.slice(ai.length);
    const { most, fixed } = ruleOf(ai);
    const stop = rest.indexOf(FNC1);
    const end = Math.min(stop < 0 ? rest.length : stop, fixed ? most : Infinity);
    elements.push({ ai, value: rest.slice(0, end) });
    rest = rest.slice(end);
    if (rest.startsWith(FNC1)) rest = rest.slice(1);
  }
  return elements;
}

function splitPrinted(raw: string): Gs1Content['elements'] | undefined {
  const parts = [...raw.matchAll(/\((\d{2,4})\)([^(]+)/g)];
  if (parts.map((p) => p[0]).join('') !== raw) return undefined;
  return parts.map((p) => ({ ai: p[1]!, value: p[2]! }));
}

/**
 * The printed form of elements, as barcode libraries take it: identifiers in brackets.
 *
 * @throws RangeError naming the element that is malformed, or when the data exceeds the 48 characters of a GS1-128
 */
export function printedElements(elements: { ai: string; value: string }[]): string {
  for (const { ai, value } of elements)
    if (!ruleOf(ai).form.test(value)) throw new RangeError(`(${ai}) cannot hold "${value}".`);
  const separators = elements.slice(0, -1).filter((e) => ruleOf(e.ai).separated).length;
  const length = elements.reduce((n, e) => n + e.ai.length + e.value.length, separators);
  if (length > 48) throw new RangeError(`A GS1-128 symbol holds 48 characters, received ${length}.`);
  return elements.map((e) => `(${e.ai})${e.value}`).join('');
}

/** A GTIN of 8, 12, 13 or 14 digits as its 14 digits, or undefined when its check digit is wrong. */
export function gtin14(digits: string): string | undefined {
  if (!/^(\d{8}|\d{12,14})$/.test(digits) || !hasCheckDigit(digits)) return undefined;
  return digits.padStart(14, '0');
}
