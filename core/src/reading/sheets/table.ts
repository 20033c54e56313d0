import Papa from 'papaparse';
import type { Cell } from './cell.ts';
import type { SheetError } from './column.ts';
import { unguard } from './guard.ts';

/** A file's cells: a heading, and rows with the number that each has in the file. */
export interface Table {
  heading: string[];
  rows: { row: number; cells: Cell[] }[];
}

/** Rows of one file; more are refused, so that nobody waits for a file that cannot be meant. */
export const MOST_ROWS = 200_000;

/**
 * Cuts the text of a CSV file into cells (RFC 4180; comma, semicolon or tab, found by looking).
 *
 * @returns the table, or what is wrong with the whole file
 */
export function tableOfCsv(text: string): Table | SheetError {
  const parsed = Papa.parse<string[]>(text, {
    delimiter: delimiterOf(text),
    preview: MOST_ROWS + 2,
  });
  const broken = parsed.errors.find((e) => e.type === 'Quotes');
  if (broken) return { row: (broken.row ?? 0) + 1, column: '', value: broken.message, expected: 'a-file' };
  return tableOf(parsed.data.map((cells, i) => ({ row: i + 1, cells: cells.map(unguard) })));
}

/** The mark that divides the heading into most fields; marks between quotes divide nothing. */
function delimiterOf(text: string): string {
  const heading = text
    .replace(/^\s*[\r\n]+/, '')
    .split(/\r\n|\n|\r/, 1)[0]!
    .replace(/"[^"]*"/g, '');
  const marks = [',', ';', '\t', '|'].map((mark) => ({ mark, count: heading.split(mark).length }));
  return marks.reduce((most, next) => (next.count > most.count ? next : most)).mark;
}

/** A table of numbered rows of cells, the first that is not empty being the heading; empty rows are left out. */
export function tableOf(rows: Table['rows']): Table | SheetError {
  const filled = rows.filter(({ cells }) => cells.some((c) => c !== null && String(c).trim() !== ''));
  const [head, ...rest] = filled;
  if (!head) return { row: 0, column: '', value: '', expected: 'a-file' };
  if (rest.length > MOST_ROWS)
    return { row: 0, column: '', value: String(rows.length), expected: 'fewer-rows', facts: { most: MOST_ROWS } };
  return { heading: head.cells.map((c) => String(c ?? '').trim()), rows: rest };
}
