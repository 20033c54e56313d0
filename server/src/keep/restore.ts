import { sql } from 'drizzle-orm';
import { existsSync } from 'node:fs';
import { mkdtemp, readFile, rename, rm, writeFile } from 'node:fs/promises';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { promisify } from 'node:util';
import { gunzip } from 'node:zlib';
import { lockFolder, migrateUp, openDatabase, rows, type Database } from '../platform/index.ts';

const unsqueeze = promisify(gunzip);

/** What a backup holds, to be told to whoever restores it. */
export interface Restored {
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
    sql`select (select min(name) from site) as site, (select count(*) from customer_order)::int as orders,
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
  const unlock = lockFolder(folder, now);
  const work = await mkdtemp(join(tmpdir(), 'hand-relay-restore-'));
  try {
    const cluster = await unsqueeze(await readFile(file)).catch((error: Error) => {
      throw new BadBackup(`${file} is no backup of Hand Relay: ${error.message}.`);
    });
    const from = join(work, 'cluster.tar');
    await writeFile(from, cluster);
    await tryOut(file, from);
    const place = join(folder, 'cluster');
    const aside = existsSync(place) ? `${place}-before-${now.toISOString().replace(/[:.]/g, '-')}` : null;
    if (aside) await rename(place, aside);
    unlock();
    const database = await openDatabase({ folder, from });
    try {
      return { ...(await look(database)), aside };
    } finally {
      await database.close();
    }
  } finally {
    unlock();
    await rm(work, { recursive: true, force: true });
  }
}

/** Opens the file in memory: what does not open there is not put in anybody's place. */
async function tryOut(file: string, from: string): Promise<void> {
  const database = await openDatabase({ folder: null, from }).catch((error: Error) => {
    throw new BadBackup(`${file} cannot be opened: ${error.message}.`);
  });
  try {
    await migrateUp(database.db);
    if (!(await look(database)).site) throw new BadBackup(`${file} holds no site.`);
  } finally {
    await database.close();
  }
}
