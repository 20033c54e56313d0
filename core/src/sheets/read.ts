import { cellText, dateOrder, quoted, readCell, type DateOrder } from './cell.ts';
import { keyOf, type Column, type Row, type Sheet, type SheetError } from './column.ts';
import type { Table } from './table.ts';

/** Which heading of the file holds a column; null leaves the column out. */
export type Matching = Record<string, string | null>;

const plain = (text: string) =>
  text
    .normalize('NFKD')
    .toLowerCase()
    .replace(/[^\p{L}\p{N}]/gu, '');

/** Finds the heading of every column by its name or another that it is known by, as they are most often written. */
export function matchColumns(sheet: Sheet, heading: readonly string[], kept: Matching = {}): Matching {
  const free = new Map(heading.map((h) => [plain(h), h]));
  return Object.fromEntries(
    sheet.columns.map((column) => {
      const chosen = kept[column.name];
      if (chosen === null || (chosen !== undefined && heading.includes(chosen))) return [column.name, chosen];
      const found = [column.name, ...(column.also ?? [])].map((name) => free.get(plain(name))).find(Boolean);
      return [column.name, found ?? null];
    }),
  );
}

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
  const orders = new Map<Column, DateOrder>();
  for (const [column, index] of at)
    if (column.type.kind === 'date')
      orders.set(column, dateOrder(table.rows.map((r) => cellText(r.cells[index] ?? null))));
  const seen = new Map<string, number>();
  const rows: ReadRow[] = [];
  for (const { row, cells } of table.rows) {
    const before = errors.length;
    const values: Row = {};
    for (const [column, index] of at) {
      const cell = cells[index] ?? null;
      const result = readCell(cell, column, orders.get(column) ?? 'unknown');
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
