import {
  readOrdersCsv,
  readOrdersJson,
  readOrderTable,
  readOrderUbl,
  unreadable,
  type ReadOrders,
} from '@hand-relay/core/intake';
import { decodeText } from '@hand-relay/core/sheets';
import { cellsOfWorkbook, isZip, type Cell } from './file.ts';

/** A cell as a person would type it into a text file: dates as ISO dates, yes and no as words. */
function typed(cell: Cell): string {
  if (cell === null) return '';
  if (cell instanceof Date) return cell.toISOString().slice(0, 10);
  return typeof cell === 'boolean' ? (cell ? 'yes' : 'no') : String(cell);
}

/** Reads orders from a file of any form that is taken, told apart by what it holds. Slow for large ones. */
export async function readOrderFile(bytes: Uint8Array): Promise<ReadOrders> {
  if (isZip(bytes)) {
    try {
      const cells = await cellsOfWorkbook(bytes);
      return readOrderTable(cells.filter((row) => row.some((c) => c !== null)).map((row) => row.map(typed)));
    } catch {
      // Whatever the archive is, it is no workbook: the person is told so.
      return unreadable(0, '', 'ZIP', 'a-readable-file');
    }
  }
  const text = decodeText(bytes)?.text;
  if (text === undefined) return unreadable(0, '', '', 'a-readable-file');
  const first = text.replace(/^\uFEFF/, '').trimStart()[0];
  if (first === '<') return readOrderUbl(text);
  return first === '{' || first === '[' ? readOrdersJson(text) : readOrdersCsv(text);
}
