import { SaxesParser, type SaxesTagPlain } from 'saxes';
import { fromBufferPromise, type Entry, type ZipFile } from 'yauzl';
import type { Cell } from '@hand-relay/core/reading/sheets';

/** Limits of one workbook. What is larger is refused with the limit, before it can exhaust anything. */
export interface WorkbookLimits {
  /** Bytes of all parts that are read, unpacked. */
  bytes: number;
  /** Cells of the sheet, gaps within its rows included. */
  cells: number;
  /** Columns of the sheet. */
  columns: number;
  /** Characters of all cells together: a text that cells share counts once for each of them, as it is sent on. */
  text: number;
}

export const workbookLimits: WorkbookLimits = {
  bytes: 300_000_000,
  cells: 6_000_000,
  columns: 1_000,
  text: 100_000_000,
};

/** A workbook beyond a limit: which one, and what it is. */
export class WorkbookTooLarge extends Error {
  readonly what: keyof WorkbookLimits;
  readonly most: number;

  constructor(what: keyof WorkbookLimits, most: number) {
    super(`more than ${most} ${what}`);
    this.what = what;
    this.most = most;
  }
}

/** A row that holds anything, by its number in the sheet. */
export interface WorkbookRow {
  row: number;
  cells: Cell[];
}

/**
 * Cells of a workbook's first sheet that holds any, as they are shown: a formula its result, a date a date.
 *
 * Read in one pass over each part as it unpacks (Office Open XML, ECMA-376 part 1): rows and cells that say where they
 * stand (`r="A1"`), and those that leave it out and follow one another.
 *
 * @param bytes the file
 * @returns rows in order, without the empty ones
 * @throws WorkbookTooLarge beyond a limit; another error when it is no workbook
 */
export async function readWorkbook(bytes: Uint8Array, limits: WorkbookLimits = workbookLimits): Promise<WorkbookRow[]> {
  const parts = await Parts.open(bytes, limits);
  const book = await bookOf(parts);
  const dated = await datedStyles(parts, book.styles);
  const shared = book.strings ? await sharedStrings(parts, book.strings) : [];
  for (const sheet of book.sheets) {
    const rows = await sheetRows(parts, sheet, { shared, dated, from1904: book.from1904 }, limits);
    if (rows.length > 0) return rows;
  }
  return [];
}

/** Parts of the archive, unpacked as they are read and measured together. */
class Parts {
  private read = 0;
  private readonly zip: ZipFile;
  private readonly entries: ReadonlyMap<string, Entry>;
  private readonly most: number;

  private constructor(zip: ZipFile, entries: ReadonlyMap<string, Entry>, most: number) {
    this.zip = zip;
    this.entries = entries;
    this.most = most;
  }

  static async open(bytes: Uint8Array, limits: WorkbookLimits): Promise<Parts> {
    const zip = await fromBufferPromise(Buffer.from(bytes.buffer, bytes.byteOffset, bytes.byteLength), {
      lazyEntries: true,
    });
    const entries = new Map<string, Entry>();
    for await (const entry of zip.eachEntry()) {
      entries.set(entry.fileName, entry);
      if (entries.size > MOST_PARTS) throw new Error('too many parts');
    }
    return new Parts(zip, entries, limits.bytes);
  }

  has(name: string): boolean {
    return this.entries.has(name);
  }

  /** Parses a part as it unpacks; tags are told by their names without prefix. */
  async parse(name: string, on: PartReader): Promise<void> {
    const entry = this.entries.get(name);
    if (!entry) throw new Error(`no part ${name}`);
    const parser = new SaxesParser({ position: false });
    const local = (tag: string) => tag.slice(tag.indexOf(':') + 1);
    parser.on('error', (error) => {
      throw error;
    });
    parser.on('opentag', (tag) => on.open?.(local(tag.name), tag.attributes as SaxesTagPlain['attributes']));
    parser.on('closetag', (tag) => on.close?.(local(tag.name)));
    if (on.text) parser.on('text', on.text);
    if (on.text) parser.on('cdata', on.text);
    const decoder = new TextDecoder();
    for await (const chunk of (await this.zip.openReadStreamPromise(entry)) as AsyncIterable<Buffer>) {
      this.read += chunk.length;
      if (this.read > this.most) throw new WorkbookTooLarge('bytes', this.most);
      parser.write(decoder.decode(chunk, { stream: true }));
    }
    parser.write(decoder.decode()).close();
  }
}

const MOST_PARTS = 5_000;

interface PartReader {
  open?: (name: string, attributes: SaxesTagPlain['attributes']) => void;
  close?: (name: string) => void;
  text?: (text: string) => void;
}

interface Book {
  /** Parts of the sheets, in the order of the book. */
  sheets: string[];
  strings: string | null;
  styles: string | null;
  /** Whether days are counted from 1904 on. */
  from1904: boolean;
}

/** A target of a relationship as the name of its part: absolute, or beside the part that names it. */
function partName(target: string, beside: string): string {
  const path = target.startsWith('/') ? target.slice(1) : `${beside}${target}`;
  const steps: string[] = [];
  for (const step of path.split('/')) {
    if (step === '..') steps.pop();
    else if (step !== '.') steps.push(step);
  }
  return steps.join('/');
}

/** Relationships of a part: what each points to, by id. */
async function relationsOf(parts: Parts, part: string): Promise<{ id: string; type: string; target: string }[]> {
  const at = part.lastIndexOf('/') + 1;
  const folder = part.slice(0, at);
  const name = `${folder}_rels/${part.slice(at)}.rels`;
  const found: { id: string; type: string; target: string }[] = [];
  if (!parts.has(name)) return found;
  await parts.parse(name, {
    open: (tag, { Id = '', Type = '', Target = '' }) => {
      if (tag === 'Relationship')
        found.push({ id: Id, type: Type.slice(Type.lastIndexOf('/') + 1), target: partName(Target, folder) });
    },
  });
  return found;
}

async function bookOf(parts: Parts): Promise<Book> {
  const root = (await relationsOf(parts, '')).find((r) => r.type === 'officeDocument')?.target ?? 'xl/workbook.xml';
  const relations = await relationsOf(parts, root);
  const book: Book = { sheets: [], strings: null, styles: null, from1904: false };
  await parts.parse(root, {
    open: (tag, attributes) => {
      if (tag === 'workbookPr') book.from1904 = ['1', 'true'].includes(attributes['date1904'] ?? '');
      if (tag !== 'sheet') return;
      const id = attributes['r:id'] ?? Object.entries(attributes).find(([name]) => name.endsWith(':id'))?.[1];
      const target = relations.find((r) => r.id === id && r.type === 'worksheet')?.target;
      if (target) book.sheets.push(target);
    },
  });
  const only = (type: string) => relations.find((r) => r.type === type && parts.has(r.target))?.target ?? null;
  return { ...book, strings: only('sharedStrings'), styles: only('styles') };
}

/** Texts that cells share, by number. Phonetic guides (`rPh`) are no part of them. */
async function sharedStrings(parts: Parts, name: string): Promise<string[]> {
  const strings: string[] = [];
  let now = '';
  let inText = false;
  let guide = 0;
  await parts.parse(name, {
    open: (tag) => {
      if (tag === 'si') now = '';
      else if (tag === 'rPh') guide += 1;
      else if (tag === 't') inText = guide === 0;
    },
    text: (text) => {
      if (inText) now += text;
    },
    close: (tag) => {
      if (tag === 'si') strings.push(unescaped(now));
      else if (tag === 'rPh') guide -= 1;
      else if (tag === 't') inText = false;
    },
  });
  return strings;
}

/** Characters that XML cannot hold are written `_x000D_` (ECMA-376 part 1, 22.4.2.4). */
const unescaped = (text: string) =>
  text.includes('_x')
    ? text.replace(/_x([0-9A-Fa-f]{4})_/g, (_, code: string) => String.fromCharCode(parseInt(code, 16)))
    : text;

/** How a style shows a number: as a day, as a time of day, or as it is. */
type Dated = 'day' | 'time' | null;

/** Number formats that every workbook knows (ECMA-376 part 1, 18.8.30), as far as they show days or times. */
function builtIn(format: number): Dated {
  if ((format >= 18 && format <= 21) || (format >= 45 && format <= 47)) return 'time';
  if ((format >= 14 && format <= 22) || (format >= 27 && format <= 36) || (format >= 50 && format <= 58)) return 'day';
  return null;
}

/** What a number format of the workbook's own shows, by its letters outside of quotes and brackets. */
function formatShows(code: string): Dated {
  const letters = code
    .replace(/"[^"]*"|\\.|_.|\*./g, '')
    .replace(/\[(?!h+\]|m+\]|s+\])[^\]]*\]/gi, '')
    .split(';', 1)[0]!
    .toLowerCase();
  if (/general/.test(letters)) return null;
  if (/[dy]/.test(letters) || /m/.test(letters.replace(/\[?h+\]?[^a-z]*m+|m+[^a-z]*s/g, ''))) return 'day';
  return /[hs]/.test(letters) ? 'time' : null;
}

async function datedStyles(parts: Parts, name: string | null): Promise<Dated[]> {
  if (!name) return [];
  const own = new Map<number, Dated>();
  const styles: Dated[] = [];
  let inCells = false;
  await parts.parse(name, {
    open: (tag, attributes) => {
      if (tag === 'numFmt') own.set(Number(attributes['numFmtId']), formatShows(attributes['formatCode'] ?? ''));
      else if (tag === 'cellXfs') inCells = true;
      else if (tag === 'xf' && inCells) {
        const format = Number(attributes['numFmtId'] ?? 0);
        styles.push(own.has(format) ? own.get(format)! : builtIn(format));
      }
    },
    close: (tag) => {
      if (tag === 'cellXfs') inCells = false;
    },
  });
  return styles;
}

const DAY_MS = 86_400_000;
/** 1970-01-01 in days since the last day of 1899, by which spreadsheets count. */
const UNIX_DAY = 25_569;
/** Days between the two ways of counting. */
const DAYS_TO_1904 = 1_462;

function dateOf(serial: number, from1904: boolean): Date | null {
  // The day 1900-02-29 is counted though it never was: what lies before it is a day later than it says.
  const day = from1904 ? serial + DAYS_TO_1904 : serial < 60 ? serial + 1 : serial;
  const at = new Date(Math.round((day - UNIX_DAY) * DAY_MS));
  return Number.isNaN(at.getTime()) ? null : at;
}

function timeOf(serial: number): string {
  const minutes = Math.round((serial % 1) * 1440) % 1440;
  return `${String(Math.floor(minutes / 60)).padStart(2, '0')}:${String(minutes % 60).padStart(2, '0')}`;
}

/** The column of a reference as `AB12`, from 0; -1 where there is none. */
function columnOf(reference: string): number {
  let column = 0;
  for (let i = 0; i < reference.length; i++) {
    const letter = reference.charCodeAt(i) & 0xdf;
    if (letter < 65 || letter > 90) break;
    column = column * 26 + letter - 64;
  }
  return column - 1;
}

interface Looks {
  shared: readonly string[];
  dated: readonly Dated[];
  from1904: boolean;
}

async function sheetRows(parts: Parts, name: string, looks: Looks, limits: WorkbookLimits): Promise<WorkbookRow[]> {
  const rows: WorkbookRow[] = [];
  let count = 0;
  let characters = 0;
  let row = 0;
  let cells: Cell[] = [];
  let column = -1;
  let type = '';
  let style = 0;
  let text = '';
  let reading = false;
  let guide = 0;
  await parts.parse(name, {
    open: (tag, attributes) => {
      if (tag === 'row') {
        row = attributes['r'] === undefined ? row + 1 : Number(attributes['r']);
        cells = [];
        column = -1;
      } else if (tag === 'c') {
        const reference = attributes['r'];
        column = reference === undefined ? column + 1 : columnOf(reference);
        if (column >= limits.columns) throw new WorkbookTooLarge('columns', limits.columns);
        type = attributes['t'] ?? 'n';
        style = Number(attributes['s'] ?? 0);
        text = '';
      } else if (tag === 'rPh') guide += 1;
      else if (tag === 'v' || tag === 't') reading = guide === 0;
    },
    text: (more) => {
      if (reading) text += more;
    },
    close: (tag) => {
      if (tag === 'v' || tag === 't') reading = false;
      else if (tag === 'rPh') guide -= 1;
      else if (tag === 'c') {
        const value = cellValue(text, type, style, looks);
        if (value === null || value === '') return;
        if (typeof value === 'string' && (characters += value.length) > limits.text)
          throw new WorkbookTooLarge('text', limits.text);
        while (cells.length < column) cells.push(null);
        cells[column] = value;
      } else if (tag === 'row' && cells.length > 0) {
        count += cells.length;
        if (count > limits.cells) throw new WorkbookTooLarge('cells', limits.cells);
        rows.push({ row, cells });
        cells = [];
      }
    },
  });
  return rows;
}

function cellValue(text: string, type: string, style: number, { shared, dated, from1904 }: Looks): Cell {
  switch (type) {
    case 's':
      return shared[Number(text)] ?? null;
    case 'inlineStr':
    case 'str':
      return unescaped(text);
    case 'b':
      return text === '1' || text === 'true';
    case 'e':
      return text;
    case 'd': {
      const at = new Date(/[zZ]|[+-]\d\d:?\d\d$/.test(text) ? text : `${text.includes('T') ? text : `${text}T00:00`}Z`);
      return Number.isNaN(at.getTime()) ? text : at;
    }
    default: {
      if (text === '') return null;
      const number = Number(text);
      if (Number.isNaN(number)) return text;
      const shows = dated[style];
      if (shows === 'time' && number < 1) return timeOf(number);
      return shows ? (dateOf(number, from1904) ?? number) : number;
    }
  }
}
