import { sql } from 'drizzle-orm';
import { existsSync } from 'node:fs';
import { mkdtemp, readFile, rename, rm, writeFile } from 'node:fs/promises';
import { tmpdir } from 'node:os';
import { basename, join } from 'node:path';
import { promisify } from 'node:util';
import { gunzip } from 'node:zlib';
import { lockFolder, migrateUp, openDatabase, rows, type Database } from '../platform/index.ts';

const unsqueeze = promisify(gunzip);

/** What a backup holds, to be told to whoever restores it. */
export interface Restored {
  /** Names of its sites. */
  site: string;
  orders: number;
  lastAt: string | null;
  /** Where what was there before was put aside; null where nothing was. */
  aside: string | null;
}

/** A file that cannot be restored, with why. */
export class BadBackup extends Error {}

async function look({ db }: Database): Promise<Omit<Restored, 'aside'>> {
  const [found] = await rows<Omit<Restored, 'aside'>>(
    db,
    sql`select (select string_agg(name, ', ' order by name) from site) as site, (select count(*) from customer_order)::int as orders,
               (select max(at)::text from journal) as "lastAt"`,
  );
  return found!;
}

/**
 * Restores a backup into a data folder that no server uses. The file is opened and looked at first; what the folder
 * held is put aside, never deleted.
 *
 * @throws BadBackup when the file is no backup, or of a newer version
 * @throws FolderInUse when a server runs on the folder
 */
export async function restore(file: string, folder: string, now: Date): Promise<Restored> {
  const lock = await lockFolder(folder, now);
  const work = await mkdtemp(join(tmpdir(), 'hand-relay-restore-'));
  try {
    const from = await unpack(file, work);
    await tryOut(file, from);
    const place = join(folder, 'cluster');
    const aside = existsSync(place) ? `${place}-before-${now.toISOString().replace(/[:.]/g, '-')}` : null;
    if (aside) await rename(place, aside);
    const database = await openDatabase({ folder, from, lock });
    try {
      return { ...(await look(database)), aside };
    } finally {
      await database.close();
    }
  } finally {
    await lock.release();
    await rm(work, { recursive: true, force: true });
  }
}

/** Writes a backup's cluster into a folder, and answers with its file. */
async function unpack(file: string, folder: string): Promise<string> {
  const cluster = await unsqueeze(await readFile(file)).catch((error: Error) => {
    throw new BadBackup(`${basename(file)} is no backup of Hand Relay: ${error.message}.`);
  });
  const from = join(folder, 'cluster.tar');
  await writeFile(from, cluster);
  return from;
}

/**
 * Looks at a backup without restoring it.
 *
 * @throws BadBackup when it could not be restored
 */
export async function lookAtBackup(file: string): Promise<Omit<Restored, 'aside'>> {
  const work = await mkdtemp(join(tmpdir(), 'hand-relay-look-'));
  try {
    return await tryOut(file, await unpack(file, work));
  } finally {
    await rm(work, { recursive: true, force: true });
  }
}

/** Opens the file in memory: what does not open there is not put in anybody's place. */
async function tryOut(file: string, from: string): Promise<Omit<Restored, 'aside'>> {
  const database = await openDatabase({ folder: null, from }).catch((error: Error) => {
    throw new BadBackup(`${basename(file)} cannot be opened: ${error.message}.`);
  });
  try {
    await migrateUp(database.db);
    const found = await look(database);
    if (!found.site) throw new BadBackup(`${basename(file)} holds no site.`);
    return found;
  } finally {
    await database.close();
  }
}
