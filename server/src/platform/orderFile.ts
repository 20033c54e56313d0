import {
  orderHeadingScore,
  readOrdersCsv,
  readOrdersJson,
  readOrderTable,
  readOrderUbl,
  unreadable,
  type OrderFileLayout,
  type OrderLayout,
  type OrderSender,
  type ReadOrders,
} from '@hand-relay/core/reading/intake';
import { decodeText, tableOf } from '@hand-relay/core/reading/sheets';
import { isZip } from './file.ts';
import { readWorkbook, WorkbookTooLarge } from './workbook.ts';

/** A file of orders as it came. */
export interface SentOrderFile {
  bytes: Uint8Array;
  /** How a person says that it is to be read. */
  layout?: OrderLayout | undefined;
  /** Whose files are known. */
  senders: OrderSender[];
  /** ISO date of today at the site. */
  today: string;
}

/** Its orders, what is wrong in it, and how it was read where it is a table. */
export type ReadOrderFile = ReadOrders & { layout?: OrderFileLayout };

/** Reads orders from a file of any form that is taken, told apart by what it holds. Slow for large ones. */
export async function readOrderFile({ bytes, ...options }: SentOrderFile): Promise<ReadOrderFile> {
  if (isZip(bytes)) {
    try {
      const table = tableOf(await readWorkbook(bytes), orderHeadingScore(options.senders, options.layout));
      return 'expected' in table ? unreadable(0, '', 'XLSX', 'a-list') : readOrderTable(table, options);
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
  return first === '{' || first === '[' ? readOrdersJson(text) : readOrdersCsv(text, options);
}
