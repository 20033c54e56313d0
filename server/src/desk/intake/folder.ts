import { existsSync, mkdirSync, readdirSync, readFileSync, renameSync, statSync, writeFileSync } from 'node:fs';
import { basename, extname, join } from 'node:path';
import { sql } from 'drizzle-orm';
import Papa from 'papaparse';
import { LARGEST_ORDER_FILE, type IntakeResult } from '@hand-relay/contract';
import { change, rows, runTurns, unattended, type Platform } from '../../platform/index.ts';
import { takeFile } from './imports.ts';
import { readSent } from './intake.ts';

const TURN_MS = 10_000;
/** A file that grew less than this ago may still be being written. */
const SETTLED_MS = 3_000;
const KINDS = new Set(['.csv', '.txt', '.tsv', '.xlsx', '.json', '.xml']);

/** The folder in which files of a site are put. */
export const folderOf = (base: string, site: string): string => join(base, site);

/** Watches a folder with one folder in it for each site: of several servers that see it, one reads it. */
export const runOrderFolder = (platform: Platform, base: string): (() => Promise<void>) =>
  runTurns(platform, 'order folder', TURN_MS, () => turnOrderFolder(platform, base));

/**
 * Takes what was put into the folders since: files go to `imported`, or to `refused` with their errors beside them
 * where anything in them was wrong. What was wrong keeps only its own order out.
 *
 * @returns how many files were read
 */
export async function turnOrderFolder(platform: Platform, base: string): Promise<number | null> {
  return platform.alone(
    'order-folder',
    async () => {
      let read = 0;
      for (const site of await rows<{ id: string; code: string }>(
        platform.db,
        sql`select id, code from site order by code`,
      )) {
        const folder = folderOf(base, site.code);
        for (const name of ['', 'imported', 'refused']) mkdirSync(join(folder, name), { recursive: true });
        for (const file of waiting(folder, platform.clock())) {
          await takeFrom(platform, site.id, folder, file);
          read += 1;
        }
      }
      return read;
    },
    { wait: false },
  );
}

/** Files of a folder that nobody is writing any more, the oldest first. */
function waiting(folder: string, now: Date): string[] {
  return readdirSync(folder, { withFileTypes: true })
    .filter((e) => e.isFile() && KINDS.has(extname(e.name).toLowerCase()))
    .map((e) => ({ name: e.name, at: statSync(join(folder, e.name)).mtimeMs }))
    .filter(({ at }) => now.getTime() - at >= SETTLED_MS)
    .sort((a, b) => a.at - b.at || a.name.localeCompare(b.name))
    .map(({ name }) => name);
}

async function takeFrom(platform: Platform, siteId: string, folder: string, name: string): Promise<void> {
  const actor = await unattended(platform, siteId, 'order-folder', 'Order folder');
  const path = join(folder, name);
  const file = statSync(path).size > LARGEST_ORDER_FILE ? '' : readFileSync(path).toString('base64');
  const read =
    file === ''
      ? { orders: [], errors: [{ row: 0, column: '', value: '', expected: 'a-smaller-file' as const, order: '' }] }
      : await readSent(platform, siteId, { file });
  // Read again after a stop in between, its orders are there already: nothing changes twice.
  const result = await change(platform, actor, null, (current) =>
    takeFile(current, read, { document: name, sender: '', source: 'folder' }),
  );
  if (result.errors.length === 0) return moveTo(join(folder, 'imported'), path);
  writeErrors(free(join(folder, 'refused'), `${name}.errors.csv`), result);
  moveTo(join(folder, 'refused'), path);
}

const moveTo = (folder: string, path: string) => renameSync(path, free(folder, basename(path)));

/** A path that no other file has: a second file of a name is numbered. */
function free(folder: string, name: string): string {
  const end = extname(name);
  for (let n = 1; ; n++) {
    const path = join(folder, n === 1 ? name : `${name.slice(0, name.length - end.length)} (${n})${end}`);
    if (!existsSync(path)) return path;
  }
}

function writeErrors(path: string, { errors }: IntakeResult): void {
  const data = errors.map(({ row, column, value, expected, order }) => ({ row, column, value, expected, order }));
  writeFileSync(path, Papa.unparse(data, { newline: '\r\n', escapeFormulae: true }));
}
