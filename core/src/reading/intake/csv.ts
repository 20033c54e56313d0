import Papa from 'papaparse';
import { unguard } from '../sheets/index.ts';
import type { IntakeError, IntakeExpectation } from './draft.ts';
import { orderColumns, readOrderRows, type DraftedOrder, type OrderRowCells } from './rows.ts';

export interface ReadOrders {
  orders: DraftedOrder[];
  errors: IntakeError[];
}

/** A file of which nothing can be read, and why. */
export function unreadable(row: number, column: string, value: string, expected: IntakeExpectation): ReadOrders {
  return { orders: [], errors: [{ row, column, value, expected, order: '' }] };
}

/**
 * Reads an order file (CSV after RFC 4180, comma or semicolon, with or without byte order mark).
 *
 * @param text the decoded file
 * @returns the orders whose every row is well formed, and every error at its row and column
 */
export function readOrdersCsv(text: string): ReadOrders {
  const body = text.replace(/^\uFEFF/, '');
  const parsed = Papa.parse<string[]>(body, { skipEmptyLines: 'greedy', delimitersToGuess: [',', ';', '\t'] });
  const broken = parsed.errors.find((e) => e.type === 'Quotes');
  return broken
    ? unreadable((broken.row ?? 0) + 1, '', broken.message, 'csv')
    : readOrderTable(parsed.data.map((cells) => cells.map(unguard)));
}

/** Reads orders from a table of cells, its heading first: what a CSV file or a workbook holds. */
export function readOrderTable([heading, ...rows]: string[][]): ReadOrders {
  if (!heading) return unreadable(0, '', '', 'csv');
  const names = heading.map((h) => h.trim().toLowerCase());
  const missing = Object.entries(orderColumns).filter(([column, needed]) => needed && !names.includes(column));
  if (missing.length > 0)
    return {
      orders: [],
      errors: missing.map(([column]) => ({ row: 1, column, value: '', expected: 'a-column', order: '' })),
    };
  const errors: IntakeError[] = [];
  const cut = new Set<string>();
  const whole = rows.flatMap((cells, i): OrderRowCells[] => {
    const row = i + 2;
    const named = Object.fromEntries(names.map((name, n) => [name, cells[n] ?? ''])) as OrderRowCells['cells'];
    if (cells.length === names.length) return [{ row, cells: named }];
    const order = (named.order ?? '').trim();
    errors.push({ row, column: '', value: String(cells.length), expected: 'as-many-fields-as-headings', order });
    cut.add(order);
    return [];
  });
  const read = readOrderRows(whole);
  return {
    orders: read.orders.filter((o) => !cut.has(o.draft.number)),
    errors: [...errors, ...read.errors].sort((a, b) => a.row - b.row),
  };
}
