import Papa from 'papaparse';
import type { Column, Row, Sheet } from './column.ts';
import { guard } from './guard.ts';

/** A value as the file has it: decimals with a point, yes and no, dates as they are kept. */
export function cellOf(column: Column, row: Row): string | number {
  const value = row[column.name];
  if (value === null || value === undefined || column.secret) return '';
  if (typeof value === 'boolean') return value ? 'yes' : 'no';
  if (column.type.kind === 'decimal') {
    const { scale } = column.type;
    return (Number(value) / scale).toFixed(Math.round(Math.log10(scale)));
  }
  return value;
}

/** Rows as the CSV file that reads back the same (RFC 4180, with byte order mark for spreadsheets). */
export function csvOf(sheet: Sheet, rows: readonly Row[]): string {
  const columns = sheet.columns.filter((c) => !c.secret);
  const data = rows.map((row) => columns.map((c) => guard(cellOf(c, row))));
  return `\uFEFF${Papa.unparse({ fields: columns.map((c) => c.name), data }, { newline: '\r\n' })}\r\n`;
}
