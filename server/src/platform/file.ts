export type { Cell } from '@hand-relay/core/sheets';
import {
  decodeText,
  matchColumns,
  readSheet,
  sheets,
  tableOf,
  tableOfCsv,
  type Cell,
  type Matching,
  type ReadRow,
  type SheetError,
  type SheetName,
  type Table,
} from '@hand-relay/core/sheets';

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
  rows: ReadRow[];
  errors: SheetError[];
}

/** An XLSX file is a ZIP archive: it begins with these bytes, whatever its name. */
export const isZip = (bytes: Uint8Array) => bytes[0] === 0x50 && bytes[1] === 0x4b;
/** A workbook of the old binary form. */
const isOldWorkbook = (bytes: Uint8Array) => bytes[0] === 0xd0 && bytes[1] === 0xcf;

/** Reads a CSV or XLSX file as rows of a sheet. Slow for large files: called in a thread of its own. */
export async function readFile({ bytes, sheet, matching }: SentFile): Promise<ReadFile> {
  const cut = await tableOfFile(bytes);
  if ('error' in cut) return { heading: [], encoding: '', matching: {}, rows: [], errors: [cut.error] };
  const { table, encoding } = cut;
  const matched = matchColumns(sheets[sheet], table.heading, matching);
  return { heading: table.heading, encoding, matching: matched, ...readSheet(sheets[sheet], table, matched) };
}

type Cut = { table: Table; encoding: string } | { error: SheetError };

async function tableOfFile(bytes: Uint8Array): Promise<Cut> {
  const wrong = (value: string): Cut => ({ error: { row: 0, column: '', value, expected: 'a-file' } });
  if (isOldWorkbook(bytes)) return wrong('XLS');
  if (isZip(bytes)) {
    try {
      return told(tableOf(await cellsOfWorkbook(bytes)), 'XLSX');
    } catch {
      // Whatever the archive is, it is no workbook: the person is told so.
      return wrong('ZIP');
    }
  }
  const decoded = decodeText(bytes);
  return decoded ? told(tableOfCsv(decoded.text), decoded.encoding) : wrong('binary');
}

function told(table: Table | SheetError, encoding: string): Cut {
  return 'expected' in table ? { error: table } : { table, encoding };
}

/** Cells of a workbook's first sheet that holds any, as they are shown. */
export async function cellsOfWorkbook(bytes: Uint8Array): Promise<Cell[][]> {
  const { default: exceljs } = await import('exceljs');
  const book = new exceljs.Workbook();
  await book.xlsx.load(bytes.buffer.slice(bytes.byteOffset, bytes.byteOffset + bytes.byteLength) as ArrayBuffer);
  const sheet = book.worksheets.find((s) => s.actualRowCount > 0);
  if (!sheet) return [];
  const rows: Cell[][] = [];
  sheet.eachRow({ includeEmpty: true }, (row) => {
    const cells: Cell[] = [];
    for (let c = 1; c <= sheet.columnCount; c++) cells.push(cellValue(row.getCell(c).value));
    rows.push(cells);
  });
  return rows;
}

/** What a spreadsheet's cell shows: a formula its result, rich text its letters. */
function cellValue(value: unknown): Cell {
  if (value === null || value === undefined) return null;
  if (typeof value === 'string' || typeof value === 'number' || typeof value === 'boolean' || value instanceof Date)
    return value;
  const of = value as { result?: unknown; text?: unknown; richText?: { text: string }[]; error?: string };
  if (of.richText) return of.richText.map((r) => r.text).join('');
  if (of.result !== undefined) return cellValue(of.result);
  if (of.text !== undefined) return cellValue(of.text);
  return of.error ?? null;
}

/** Writes rows of cells as a workbook with one sheet, its first row a heading that stays in view. */
export async function writeWorkbook(cells: (string | number)[][]): Promise<Uint8Array> {
  const { default: exceljs } = await import('exceljs');
  const book = new exceljs.Workbook();
  const sheet = book.addWorksheet('Data', { views: [{ state: 'frozen', ySplit: 1 }] });
  sheet.addRows(cells);
  sheet.getRow(1).font = { bold: true };
  return new Uint8Array(await book.xlsx.writeBuffer());
}
