import { gtin14 } from '../gs1/index.ts';
import type { Column, SheetExpectation, Value } from './column.ts';

/** A cell as a file has it: text, or what a spreadsheet keeps by type. */
export type Cell = string | number | boolean | Date | null;

export type CellResult = { value: Value } | { expected: SheetExpectation; facts?: Record<string, string | number> };

/** In which order a column's written dates name day and month: 31/12 is day first, 12/31 month first. */
export type DateOrder = 'day-first' | 'month-first' | 'unknown';

/** Which mark stands before the decimals of a column's written numbers: 1.5 or 1,5. */
export type DecimalMark = 'point' | 'comma' | 'unknown';

/** How a column's dates and numbers are written, as far as it is known. */
export interface Written {
  dates: DateOrder;
  decimals: DecimalMark;
}

const YES = new Set(['yes', 'y', 'true', '1', 'x', 'ja', 'oui']);
const NO = new Set(['no', 'n', 'false', '0', '', '-', 'nein', 'non']);

/** A cell as people see it, for messages. */
export function cellText(cell: Cell): string {
  if (cell === null) return '';
  if (cell instanceof Date) return cell.toISOString().slice(0, 10);
  return String(cell).trim();
}

/** Characters of a cell that a message repeats. */
const QUOTED = 100;

/** A cell's text as a message repeats it: what is longer is cut, so that a list of errors stays small whatever the file. */
export function quoted(text: string): string {
  return text.length > QUOTED ? `${text.slice(0, QUOTED - 1)}…` : text;
}

/** Reads a cell as its column wants it. */
export function readCell(cell: Cell, column: Column, { dates, decimals }: Written): CellResult {
  const text = cellText(cell);
  if (text === '') {
    if (column.otherwise !== undefined) return { value: column.otherwise };
    if (column.needed) return { expected: 'a-value' };
    return { value: column.type.kind === 'text' ? '' : column.type.kind === 'yes-no' ? false : null };
  }
  const { type } = column;
  switch (type.kind) {
    case 'text': {
      const most = type.most ?? 200;
      return text.length > most
        ? { expected: 'a-shorter-text', facts: { most } }
        : { value: type.upper ? text.toUpperCase() : type.lower ? text.toLowerCase() : text };
    }
    case 'whole':
      return within(cell, type, 1, decimals);
    case 'decimal':
      return within(cell, type, type.scale, decimals);
    case 'date': {
      const date = cell instanceof Date ? text : readDate(text, dates);
      return date === 'unknown' ? { expected: 'one-date-only' } : date ? { value: date } : { expected: 'a-date' };
    }
    case 'time': {
      const m = text.match(/^([01]?\d|2[0-3])[:.]([0-5]\d)(?::00)?$/);
      return m ? { value: `${m[1]!.padStart(2, '0')}:${m[2]!}` } : { expected: 'a-time' };
    }
    case 'yes-no': {
      const word = text.toLowerCase();
      return YES.has(word) ? { value: true } : NO.has(word) ? { value: false } : { expected: 'yes-or-no' };
    }
    case 'choice': {
      const found = type.of.find((o) => o.toLowerCase() === text.toLowerCase());
      return found === undefined ? { expected: 'one-of', facts: { of: type.of.join(', ') } } : { value: found };
    }
    case 'choices': {
      const words = text
        .toLowerCase()
        .split(/[\s,;]+/)
        .filter(Boolean);
      const wrong = words.some((w) => !type.of.some((o) => o.toLowerCase() === w));
      return wrong
        ? { expected: 'one-of', facts: { of: type.of.join(', ') } }
        : { value: type.of.filter((o) => words.includes(o.toLowerCase())).join(' ') };
    }
    case 'gtin': {
      const gtin = gtin14(text.replace(/[\s-]/g, ''));
      return gtin ? { value: gtin } : { expected: 'a-gtin' };
    }
  }
}

/** One mark with three digits behind it: one and a bit, or a thousand and more. */
const EITHER = /^[+-]?[1-9]\d{0,2}[.,]\d{3}$/;

function within(
  cell: Cell,
  limits: { least?: number; most?: number },
  scale: number,
  decimals: DecimalMark,
): CellResult {
  const text = cellText(cell);
  // Of a whole number the mark divides thousands, unless somebody writes decimals that are nought: ask, do not guess.
  if (scale === 1 && decimals === 'unknown' && typeof cell === 'string' && EITHER.test(text))
    return { expected: 'one-number-only' };
  const number = typeof cell === 'number' ? cell : readNumber(text, decimals);
  if (number === undefined || !Number.isFinite(number))
    return { expected: scale === 1 ? 'a-whole-number' : 'a-number' };
  const scaled = Math.round(number * scale);
  // 0.1 + 0.2 is no reason to refuse; a part of the smallest unit is.
  if (Math.abs(number * scale - scaled) > 1e-6) return { expected: scale === 1 ? 'a-whole-number' : 'a-number' };
  const { least = 0, most = 1_000_000_000 } = limits;
  if (scaled < least || scaled > most)
    return { expected: 'a-number-from', facts: { least: least / scale, most: most / scale } };
  return { value: scaled };
}

/** The spaces and apostrophes between thousands, which mean nothing else. */
const ungrouped = (text: string) => text.replace(/[\s\u00a0\u202f']/g, '');

/**
 * A number as people write it: 1234, 1,234.5, 1.234,5, 1 234,5 or 1'234.5. Of two marks the last is the decimal one; a
 * single mark is the decimal one, whichever it is, unless the decimal mark is known: 1,234 is a little more than one.
 *
 * @returns undefined when it is no number
 */
export function readNumber(text: string, mark: DecimalMark = 'unknown'): number | undefined {
  const plain = ungrouped(text);
  if (!/^[+-]?[\d.,]+$/.test(plain) || !/\d/.test(plain)) return undefined;
  const commas = plain.split(',').length - 1;
  const points = plain.split('.').length - 1;
  const known = { point: '.', comma: ',', unknown: undefined }[mark];
  const decimal =
    known !== undefined
      ? plain.includes(known)
        ? known
        : null
      : commas > 0 && points > 0
        ? plain.lastIndexOf(',') > plain.lastIndexOf('.')
          ? ','
          : '.'
        : commas === 1
          ? ','
          : points === 1
            ? '.'
            : null;
  const group =
    known !== undefined
      ? known === ','
        ? '.'
        : ','
      : decimal === ','
        ? '.'
        : decimal === '.'
          ? ','
          : commas > 1
            ? ','
            : '.';
  const [whole, fraction = ''] = decimal ? splitLast(plain, decimal) : [plain];
  if (decimal && (whole.includes(decimal) || fraction.includes(group))) return undefined;
  const parts = whole.replace(/^[+-]/, '').split(group);
  if (parts.length > 1 && (parts[0]!.length > 3 || parts.slice(1).some((p) => p.length !== 3))) return undefined;
  const value = Number(`${whole.startsWith('-') ? '-' : ''}${parts.join('') || '0'}.${fraction || '0'}`);
  return Number.isNaN(value) ? undefined : value;
}

function splitLast(text: string, mark: string): [string, string] {
  const at = text.lastIndexOf(mark);
  return [text.slice(0, at), text.slice(at + 1)];
}

/** The decimal mark of a column's numbers, as far as any of them shows it; of two that disagree the first. */
function decimalMark(texts: Iterable<string>): DecimalMark {
  for (const text of texts) {
    const plain = ungrouped(text);
    if (!/^[+-]?[\d.,]+$/.test(plain) || EITHER.test(plain)) continue;
    const marks = plain.replace(/[^.,]/g, '');
    if (marks === '') continue;
    const last = marks.at(-1) === '.' ? 'point' : 'comma';
    // The same mark twice divides thousands: the other one is for decimals.
    const repeated = marks.length > 1 && !(marks.includes('.') && marks.includes(','));
    return repeated ? (last === 'point' ? 'comma' : 'point') : last;
  }
  return 'unknown';
}

/** How a column of texts is written. */
export const writtenAs = (texts: readonly string[]): Written => ({
  dates: dateOrder(texts),
  decimals: decimalMark(texts),
});

const WRITTEN = /^(\d{1,2})[./-](\d{1,2})[./-](\d{4}|\d{2})$/;

/** In which order the dates of a column name day and month, as far as any of them shows it. */
export function dateOrder(texts: Iterable<string>): DateOrder {
  let order: DateOrder = 'unknown';
  for (const text of texts) {
    const m = text.match(WRITTEN);
    if (!m) continue;
    // A point between is written day first wherever it is written at all.
    if (text.includes('.') || Number(m[1]) > 12) return 'day-first';
    if (Number(m[2]) > 12) order = 'month-first';
  }
  return order;
}

/**
 * A date in one of the forms people write.
 *
 * @returns ISO date; `unknown` when day and month could be either way round; undefined when it is no date
 */
export function readDate(written: string, order: DateOrder): string | undefined {
  const text = written.replace(WEEKDAY, '').replace(TIME, '').trim();
  const named = namedDate(text);
  if (named) return named;
  const iso = text.match(/^(\d{4})[-/.]?(\d{2})[-/.]?(\d{2})(?:[T ].*)?$/);
  if (iso) return real(Number(iso[1]), Number(iso[2]), Number(iso[3]));
  const m = text.match(WRITTEN);
  if (!m) return undefined;
  const [first, second] = [Number(m[1]), Number(m[2])];
  const year = fullYear(m[3]!);
  if (order === 'unknown' && first <= 12 && second <= 12 && first !== second) return 'unknown';
  return order === 'month-first' ? real(year, first, second) : real(year, second, first);
}

/** Mon, Monday, Mo or Montag before a date. */
const WEEKDAY = /^(?:mo|tu|we|th|fr|sa|su|di|mi|do|so)\p{L}*[.,]*\s+(?=\d|\p{L}+\.?\s+\d)/iu;
/** A time of day behind a date. */
const TIME = /[T\s,]+\d{1,2}:\d{2}.*$/;
const DAY_NAMED = /^(\d{1,2})(?:st|nd|rd|th)?[.\s/-]*(\p{L}{3,})[.\s/,-]*(\d{4}|\d{2})$/u;
const NAMED_DAY = /^(\p{L}{3,})[.\s]*(\d{1,2})(?:st|nd|rd|th)?[,\s]+(\d{4}|\d{2})$/u;
/** First three letters of the months in English and German. */
const MONTHS = [
  'jan',
  'feb',
  'mar mär mae mrz',
  'apr',
  'may mai',
  'jun',
  'jul',
  'aug',
  'sep',
  'oct okt',
  'nov',
  'dec dez',
];

/** A date with its month in letters: 3 Dec 2026, 3. Dezember 2026, Dec 3, 2026. */
function namedDate(text: string): string | undefined {
  const dayFirst = text.match(DAY_NAMED);
  const m = dayFirst ?? text.match(NAMED_DAY);
  if (!m) return undefined;
  const [day, name] = dayFirst ? [m[1]!, m[2]!] : [m[2]!, m[1]!];
  const start = name.normalize('NFC').toLowerCase().slice(0, 3);
  const month = MONTHS.findIndex((names) => names.split(' ').includes(start)) + 1;
  return month === 0 ? undefined : real(fullYear(m[3]!), month, Number(day));
}

const fullYear = (text: string) => (text.length === 2 ? 2000 + Number(text) : Number(text));

function real(year: number, month: number, day: number): string | undefined {
  const at = new Date(Date.UTC(year, month - 1, day));
  const same = at.getUTCFullYear() === year && at.getUTCMonth() === month - 1 && at.getUTCDate() === day;
  return same ? at.toISOString().slice(0, 10) : undefined;
}
