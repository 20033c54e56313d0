import {
  decodeText,
  guessedColumns,
  headingScore,
  matchColumns,
  readSheet,
  samplesOf,
  sheets,
  tableOf,
  tableOfCsv,
  type Column,
  type HeadingScore,
  type Matching,
  type ReadRow,
  type SheetError,
  type SheetName,
  type Table,
} from '@hand-relay/core/reading/sheets';
import { readWorkbook, WorkbookTooLarge } from './workbook.ts';

/** A file as it came. */
export interface SentFile {
  name: string;
  bytes: Uint8Array;
  /** What its rows are. */
  sheet: SheetName;
  /** Headings that a person chose for columns. */
  matching: Matching;
}

/** A file as rows of its sheet, and what is wrong with others; a file that is no table has no heading. */
export interface ReadFile {
  heading: string[];
  encoding: string;
  matching: Matching;
  /** Columns whose heading is a guess; those that may be empty are not read until a person says so. */
  guesses: string[];
  /** Up to three values of each heading. */
  samples: Record<string, string[]>;
  rows: ReadRow[];
  errors: SheetError[];
}

/** An XLSX file is a ZIP archive: it begins with these bytes, whatever its name. */
export const isZip = (bytes: Uint8Array) => bytes[0] === 0x50 && bytes[1] === 0x4b;
/** A workbook of the old binary form. */
const isOldWorkbook = (bytes: Uint8Array) => bytes[0] === 0xd0 && bytes[1] === 0xcf;

/** Reads a CSV or XLSX file as rows of a sheet. Slow for large files: called in a thread of its own. */
export async function readFile({ bytes, sheet, matching }: SentFile): Promise<ReadFile> {
  const cut = await tableOfFile(bytes, headingScore(sheets[sheet], [matching]));
  if ('error' in cut) return notRead(cut.error);
  const { table, encoding } = cut;
  const matched = matchColumns(sheets[sheet], table.heading, matching);
  const guesses = guessedColumns(sheets[sheet], table, matched, matching);
  const unsure = new Set(guesses);
  const used = { ...matched };
  for (const { name, needed } of sheets[sheet].columns as readonly Column[])
    if (unsure.has(name) && !needed) used[name] = null;
  return {
    heading: table.heading,
    encoding,
    matching: matched,
    guesses,
    samples: samplesOf(table),
    ...readSheet(sheets[sheet], table, used),
  };
}

/** A file of which nothing was read, and why. */
export function notRead(error: SheetError): ReadFile {
  return { heading: [], encoding: '', matching: {}, guesses: [], samples: {}, rows: [], errors: [error] };
}

type Cut = { table: Table; encoding: string } | { error: SheetError };

async function tableOfFile(bytes: Uint8Array, score: HeadingScore): Promise<Cut> {
  const wrong = (value: string, expected: SheetError['expected'] = 'a-file'): Cut => ({
    error: { row: 0, column: '', value, expected },
  });
  if (isOldWorkbook(bytes)) return wrong('XLS');
  if (isZip(bytes)) {
    try {
      return cutOf(tableOf(await readWorkbook(bytes), score), 'XLSX');
    } catch (error) {
      if (error instanceof WorkbookTooLarge) return wrong('XLSX', 'a-smaller-file');
      // Whatever the archive is, it is no workbook: the person is told so.
      return wrong('ZIP');
    }
  }
  const decoded = decodeText(bytes);
  return decoded ? cutOf(tableOfCsv(decoded.text, score), decoded.encoding) : wrong('binary');
}

function cutOf(table: Table | SheetError, encoding: string): Cut {
  return 'expected' in table ? { error: table } : { table, encoding };
}

/** Writes rows of cells as a workbook with one sheet, its first row a heading that stays in view. */
export async function writeWorkbook(cells: (string | number)[][]): Promise<Uint8Array> {
  const { default: write } = await import('write-excel-file/node');
  const [heading = [], ...rest] = cells;
  const bold = heading.map((value) => ({ value: String(value), fontWeight: 'bold' as const }));
  const book = write([bold, ...rest], { sheet: 'Data', stickyRowsCount: 1 });
  return new Uint8Array(await book.toBuffer());
}
