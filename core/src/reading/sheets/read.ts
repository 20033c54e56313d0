import { cellText, quoted, readCell, writtenAs, type Written } from './cell.ts';
import { keyOf, type Column, type Row, type Sheet, type SheetError } from './column.ts';
import type { Table } from './table.ts';

/** Which heading of the file holds a column; null leaves the column out. */
export type Matching = Record<string, string | null>;

const plain = (text: string) =>
  text
    .normalize('NFKD')
    .toLowerCase()
    .replace(/[^\p{L}\p{N}]/gu, '');

/**
 * Finds the heading of every column by its name or another that it is known by, as they are most often written. A
 * heading goes to one column: to the one of that name before those that are also called so.
 *
 * @param saved what a person chose before: it stays, as far as the file has that heading
 */
export function matchColumns(sheet: Sheet, heading: readonly string[], saved: Matching = {}): Matching {
  const matching: Matching = {};
  for (const { name } of sheet.columns) {
    const chosen = saved[name];
    if (chosen === null || (chosen !== undefined && heading.includes(chosen))) matching[name] = chosen;
  }
  const free = new Map(heading.map((h) => [plain(h), h]));
  for (const chosen of Object.values(matching)) if (chosen !== null) free.delete(plain(chosen));
  const ways: ((column: Column) => readonly string[])[] = [(c) => [c.name], (c) => c.also ?? [], (c) => c.maybe ?? []];
  for (const namesOf of ways)
    for (const column of sheet.columns) {
      if (matching[column.name] !== undefined) continue;
      const found = namesOf(column).find((name) => free.has(plain(name)));
      if (found === undefined) continue;
      matching[column.name] = free.get(plain(found))!;
      free.delete(plain(found));
    }
  return Object.fromEntries(sheet.columns.map(({ name }) => [name, matching[name] ?? null]));
}

/** Rows at which a guess is tried. */
const TRIED = 200;

/**
 * Columns whose heading is a guess that a person should look at: the heading often means something else, another
 * heading means the column as well, or less than half of its cells can be read.
 *
 * @param saved what a person chose: no guess any more
 */
export function guessedColumns(sheet: Sheet, table: Table, matching: Matching, saved: Matching = {}): string[] {
  return sheet.columns
    .filter((column) => {
      const heading = matching[column.name];
      if (typeof heading !== 'string' || saved[column.name] === heading) return false;
      if (plain(heading) === plain(column.name)) return false;
      if (column.maybe?.some((name) => plain(name) === plain(heading))) return true;
      const names = new Set([column.name, ...(column.also ?? [])].map(plain));
      if (table.heading.filter((h) => names.has(plain(h))).length > 1) return true;
      const index = table.heading.indexOf(heading);
      const filled = table.rows
        .slice(0, TRIED)
        .map((r) => r.cells[index] ?? null)
        .filter((cell) => cellText(cell) !== '');
      const written = writtenAs(filled.map(cellText));
      return 2 * filled.filter((cell) => 'value' in readCell(cell, column, written)).length < filled.length;
    })
    .map((column) => column.name);
}

/** Up to three different values of each heading, by which people know what a column holds. */
export function samplesOf(table: Table): Record<string, string[]> {
  const samples: Record<string, string[]> = {};
  table.heading.forEach((heading, index) => {
    const some = new Set<string>();
    for (const { cells } of table.rows.slice(0, TRIED)) {
      const text = cellText(cells[index] ?? null);
      if (text !== '') some.add(quoted(text));
      if (some.size === 3) break;
    }
    samples[heading] = [...some];
  });
  return samples;
}

/** Kinds of columns whose cells are written one way or another. */
const WRITTEN_KINDS: ReadonlySet<string> = new Set(['date', 'whole', 'decimal']);
const UNKNOWN: Written = { dates: 'unknown', decimals: 'unknown' };

/**
 * How many columns a row of a file would be the heading of, by which the heading is found below titles.
 *
 * @param saved headings that were chosen before count too
 */
export const headingScore =
  (sheet: Sheet, saved: readonly Matching[] = []) =>
  (cells: readonly string[]): number => {
    const found = (matching: Matching) => Object.values(matching).filter((h) => h !== null).length;
    return Math.max(...[{}, ...saved].map((chosen) => found(matchColumns(sheet, cells, chosen))));
  };

export interface ReadRow {
  row: number;
  values: Row;
}

/**
 * Reads a table's rows as a sheet wants them. A row with anything wrong stays out, each fault at its row and column;
 * of rows with the same key the first stays.
 *
 * @param matching the heading of each column, as `matchColumns` gives or a person chose
 */
export function readSheet(sheet: Sheet, table: Table, matching: Matching): { rows: ReadRow[]; errors: SheetError[] } {
  const errors: SheetError[] = [];
  const at = new Map<Column, number>();
  for (const column of sheet.columns) {
    const heading = matching[column.name];
    const index = heading === null || heading === undefined ? -1 : table.heading.indexOf(heading);
    if (index >= 0) at.set(column, index);
    else if (column.needed) errors.push({ row: 1, column: column.name, value: '', expected: 'a-column' });
  }
  if (errors.length > 0) return { rows: [], errors };
  const written = new Map<Column, Written>();
  for (const [column, index] of at)
    if (WRITTEN_KINDS.has(column.type.kind))
      written.set(column, writtenAs(table.rows.map((r) => cellText(r.cells[index] ?? null))));
  const seen = new Map<string, number>();
  const rows: ReadRow[] = [];
  for (const { row, cells } of table.rows) {
    const before = errors.length;
    const values: Row = {};
    for (const [column, index] of at) {
      const cell = cells[index] ?? null;
      const result = readCell(cell, column, written.get(column) ?? UNKNOWN);
      if ('value' in result) values[column.name] = result.value;
      else errors.push({ row, column: column.name, value: quoted(cellText(cell)), ...result });
    }
    if (errors.length > before) continue;
    const key = keyOf(sheet, values);
    const first = seen.get(key);
    if (first !== undefined) {
      const column = sheet.key[0]!;
      errors.push({ row, column, value: String(values[column] ?? ''), expected: 'once', facts: { first } });
      continue;
    }
    seen.set(key, row);
    rows.push({ row, values });
  }
  return { rows, errors };
}
