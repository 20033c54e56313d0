import { spawnSync } from 'node:child_process';
import { mkdtempSync, rmSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { sheets } from '@hand-relay/core/reading/sheets';
import exceljs from 'exceljs';
import type { Note } from './note.ts';

/** Reads one workbook in a process of its own, and says how long that took and how much memory it had at most. */
const READER = `
  import { readFileSync } from 'node:fs';
  const { readFile } = await import(process.argv[1]);
  const bytes = new Uint8Array(readFileSync(process.argv[2]));
  const begun = performance.now();
  const { rows, errors } = await readFile({ name: 'x.xlsx', bytes, sheet: 'items', matching: {} });
  const seconds = (performance.now() - begun) / 1000;
  console.log(JSON.stringify({ seconds, rows: rows.length, errors: errors.length, mb: process.resourceUsage().maxRSS / 1024 }));`;

/** Workbooks of items with every column, eight and fifty thousand rows. */
export async function benchSpreadsheets(note: Note): Promise<void> {
  const folder = mkdtempSync(join(tmpdir(), 'hand-relay-sheets-'));
  try {
    for (const rows of [8_000, 50_000]) {
      const { columns } = sheets.items;
      const book = new exceljs.Workbook();
      const sheet = book.addWorksheet('Items');
      sheet.addRow(columns.map((c) => c.name));
      for (let i = 0; i < rows; i++)
        sheet.addRow(
          columns.map(({ name, example }) => (name === 'item' ? `IT-${i}` : name.endsWith('gtin') ? '' : example)),
        );
      const file = join(folder, `${rows}.xlsx`);
      writeFileSync(file, new Uint8Array(await book.xlsx.writeBuffer()));
      const module = new URL('../../server/src/platform/file.ts', import.meta.url).href;
      const read = spawnSync(process.execPath, ['--import', 'tsx', '--input-type=module', '-e', READER, module, file], {
        encoding: 'utf8',
      });
      if (read.status !== 0) throw new Error(read.stderr);
      const told = JSON.parse(read.stdout) as { seconds: number; rows: number; errors: number; mb: number };
      const what = `workbook of ${rows} rows × ${columns.length} columns`;
      note(`${what}: read`, told.seconds, 's', rows === 50_000 ? 'under 10' : '');
      note(`${what}: rows`, told.rows, '', String(rows));
      note(`${what}: memory of its process at most`, told.mb, 'MB', rows === 50_000 ? 'under 300' : '');
    }
  } finally {
    rmSync(folder, { recursive: true, force: true });
  }
}
