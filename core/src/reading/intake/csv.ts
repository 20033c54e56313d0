import { tableOfCsv } from '../sheets/index.ts';
import { orderHeadingScore, readOrderTable, type OrderFileLayout, type OrderTableOptions } from './layout.ts';
import { unreadable, type ReadOrders } from './read.ts';

/**
 * Reads an order file (CSV after RFC 4180; comma, semicolon, tab or bar), its heading wherever it stands among the
 * first rows.
 *
 * @param text the decoded file
 * @returns the orders whose every row is well formed, every error at its row and column, and how the file was read
 */
export function readOrdersCsv(text: string, options: OrderTableOptions): ReadOrders & { layout?: OrderFileLayout } {
  const table = tableOfCsv(text.replace(/^\uFEFF/, ''), orderHeadingScore(options.senders, options.layout));
  if ('expected' in table) return unreadable(table.row, table.column, table.value, 'csv');
  return readOrderTable(table, { ...options, strict: true });
}
