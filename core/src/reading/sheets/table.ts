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

/** How well a row would do as the heading; by it the heading is found below titles. */
export type HeadingScore = (cells: readonly string[]) => number;

/** Rows among which the heading is looked for. */
const TITLES = 20;

/**
 * Cuts the text of a CSV file into cells (RFC 4180; comma, semicolon, tab or bar, found by looking).
 *
 * @param score how well a row would do as the heading; without it the first that is not empty is the heading
 * @returns the table, or what is wrong with the whole file
 */
export function tableOfCsv(text: string, score?: HeadingScore): Table | SheetError {
  const parsed = Papa.parse<string[]>(text, {
    delimiter: delimiterOf(text, score),
    preview: MOST_ROWS + 2,
  });
  const broken = parsed.errors.find((e) => e.type === 'Quotes');
  if (broken) return { row: (broken.row ?? 0) + 1, column: '', value: broken.message, expected: 'a-file' };
  return tableOf(
    parsed.data.map((cells, i) => ({ row: i + 1, cells: cells.map(unguard) })),
    score,
  );
}

/**
 * The mark that makes the best heading, and of marks that make equal ones that which divides it into most fields; marks
 * between quotes divide nothing.
 */
function delimiterOf(text: string, score: HeadingScore = () => 0): string {
  const body = text.replace(/^\s*[\r\n]+/, '');
  const marks = [',', ';', '\t', '|'].map((mark) => {
    const { data } = Papa.parse<string[]>(body, { delimiter: mark, preview: TITLES });
    return { mark, score: Math.max(0, ...data.map(score)), fields: data[0]?.length ?? 0 };
  });
  return marks.sort((a, b) => b.score - a.score || b.fields - a.fields)[0]!.mark;
}

/** A table of numbered rows of cells below their heading; empty rows, and those above the heading, are left out. */
export function tableOf(rows: Table['rows'], score?: HeadingScore): Table | SheetError {
  const filled = rows.filter(({ cells }) => cells.some((c) => c !== null && String(c).trim() !== ''));
  const at = score ? headingAt(filled, score) : 0;
  const head = filled[at];
  const rest = filled.slice(at + 1);
  if (!head) return { row: 0, column: '', value: '', expected: 'a-file' };
  if (rest.length > MOST_ROWS)
    return { row: 0, column: '', value: String(rows.length), expected: 'fewer-rows', facts: { most: MOST_ROWS } };
  return { heading: textsOf(head.cells), rows: rest };
}

const textsOf = (cells: readonly Cell[]) => cells.map((c) => String(c ?? '').trim());

/** Which of the first rows is the heading: the first of those that do best, and at least two columns must be known. */
function headingAt(rows: Table['rows'], score: HeadingScore): number {
  const scores = rows.slice(0, TITLES).map(({ cells }) => score(textsOf(cells)));
  const best = Math.max(0, ...scores);
  return best < 2 ? 0 : scores.indexOf(best);
}
