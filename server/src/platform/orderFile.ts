import {
  readOrdersCsv,
  readOrdersJson,
  readOrderTable,
  readOrderUbl,
  unreadable,
  type ReadOrders,
} from '@hand-relay/core/reading/intake';
import { decodeText, type Cell } from '@hand-relay/core/reading/sheets';
import { isZip } from './file.ts';
import { readWorkbook, WorkbookTooLarge } from './workbook.ts';

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
      const rows = (await readWorkbook(bytes)).filter(({ cells }) => cells.some((c) => c !== null));
      // A workbook says nothing of empty cells at a row's end.
      const width = Math.max(0, ...rows.slice(0, 1).map((r) => r.cells.length));
      const filled = rows.map(({ cells }) =>
        Array.from({ length: Math.max(width, cells.length) }, (_, i) => typed(cells[i] ?? null)),
      );
      return readOrderTable(filled);
    } catch (error) {
      if (error instanceof WorkbookTooLarge) return unreadable(0, '', 'XLSX', 'a-smaller-file');
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
