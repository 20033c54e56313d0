import { readFile, writeWorkbook } from './file.ts';
import { readOrderFile } from './orderFile.ts';

/** What a thread for files does: it reads what people send, and writes workbooks. */
export const readFileTask = readFile;
export const readOrderFileTask = readOrderFile;
export const writeWorkbookTask = writeWorkbook;
