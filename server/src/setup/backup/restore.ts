import { sql } from 'drizzle-orm';
import { existsSync } from 'node:fs';
import { mkdtemp, readdir, readFile, rename, rm, writeFile } from 'node:fs/promises';
import { tmpdir } from 'node:os';
import { basename, join } from 'node:path';
import { promisify } from 'node:util';
import { gunzip } from 'node:zlib';
import {
  iso,
  lockFolder,
  migrateUp,
  mustBeOurs,
  NewerDatabase,
  openDatabase,
  OperatorError,
  recordset,
  rows,
  type Database,
} from '../../platform/index.ts';

const gunzipped = promisify(gunzip);

/** What a backup holds, to be told to whoever restores it. */
export interface Restored {
  /** Names of its sites. */
  site: string;
  orders: number;
  lastAt: string | null;
  /** Where what was there before was put aside; null where nothing was. */
  aside: string | null;
}

/** A running number of a site: what was drawn last. */
export interface Drawn {
  site: string;
  name: string;
  last: number;
}

/** Numbers that are skipped after a restore: more may be on labels than the backup knows. */
const SKIPPED = { sscc: 10_000, others: 1_000 };
/** Folders of what a restore put aside that stay, the newest. */
const ASIDE_KEPT = 2;

/** A file that cannot be restored, with why. */
export class BadBackup extends OperatorError {}

async function contentsOf({ db }: Database): Promise<Omit<Restored, 'aside'>> {
  const [found] = await rows<Omit<Restored, 'aside'>>(
    db,
    sql`select (select string_agg(name, ', ' order by name) from site) as site, (select count(*) from customer_order)::int as orders,
               (select ${iso(sql`max(at)`)} from journal) as "lastAt"`,
  );
  return found!;
}

/**
 * Restores a backup into a data folder that no server uses. The file is opened and looked at first; what the folder
 * held is put aside, and older ones of those end. Everybody signs in again, and numbers go on beyond what may have been
 * printed since the backup was made.
 *
 * @param drawn what the running server had drawn last, where one was
 *
 * @throws BadBackup when the file is no backup; NewerDatabase, OtherDatabaseVersion when another version made it
 * @throws FolderInUse when a server runs on the folder
 */
export async function restore(
  file: string,
  folder: string,
  now: Date,
  drawn: readonly Drawn[] = [],
): Promise<Restored> {
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
      await migrateUp(database.db);
      await endSessions(database, drawn);
      await endOldFolders(folder);
      const found = await contentsOf(database);
      const restored = { at: now.toISOString(), of: found.lastAt };
      await database.db.execute(sql`
        insert into house (id, restored) values (1, ${JSON.stringify(restored)}::jsonb)
        on conflict (id) do update set restored = excluded.restored`);
      return { ...found, aside };
    } finally {
      await database.close();
    }
  } finally {
    await lock.release();
    await rm(work, { recursive: true, force: true });
  }
}

/** What numbers were drawn last, to be told to a restore. */
export function drawnIn({ db }: Database): Promise<Drawn[]> {
  return rows<Drawn>(db, sql`select site_id as site, name, last from counter`);
}

/**
 * Nobody stays signed in with what they had then, and no number is given twice: also of those whose first was drawn
 * after the backup.
 */
async function endSessions({ db }: Database, drawn: readonly Drawn[]): Promise<void> {
  await db.execute(sql`delete from session`);
  await db.execute(sql`
    insert into counter (site_id, name, last)
    select s.id, coalesce(c.name, d.name), greatest(c.last, d.last)
      + case coalesce(c.name, d.name) when 'sscc' then ${SKIPPED.sscc}::int else ${SKIPPED.others}::int end
    from counter c
      full join jsonb_to_recordset(${recordset(drawn)}) as d(site text, name text, last bigint)
        on d.site = c.site_id and d.name = c.name
      join site s on s.id = coalesce(c.site_id, d.site)
    on conflict (site_id, name) do update set last = excluded.last`);
}

/** What earlier restores put aside does not stay for ever. */
async function endOldFolders(folder: string): Promise<void> {
  const old = (await readdir(folder)).filter((name) => name.startsWith('cluster-before-')).sort();
  for (const name of old.slice(0, Math.max(0, old.length - ASIDE_KEPT)))
    await rm(join(folder, name), { recursive: true, force: true });
}

/** Writes a backup's cluster into a folder, and answers with its file. */
async function unpack(file: string, folder: string): Promise<string> {
  const cluster = await gunzipped(await readFile(file)).catch((error: Error) => {
    throw new BadBackup(`${basename(file)} is no backup of Hand Relay: ${error.message}.`);
  });
  const version = fileInTar(cluster, 'PG_VERSION');
  if (version === null) throw new BadBackup(`${basename(file)} is no backup of Hand Relay: it holds no database.`);
  mustBeOurs(basename(file), version);
  const from = join(folder, 'cluster.tar');
  await writeFile(from, cluster);
  return from;
}

/** Text of a small file in a tar archive (POSIX ustar: blocks of 512 bytes, the name first, the size in octal at 124). */
function fileInTar(archive: Buffer, wanted: string): string | null {
  const text = (from: number, length: number) => archive.toString('latin1', from, from + length).split('\0')[0]!;
  for (let at = 0; at + 512 <= archive.length;) {
    const size = parseInt(text(at + 124, 12), 8) || 0;
    if (text(at, 100).replace(/^(\.?\/)+/, '') === wanted) return text(at + 512, size);
    at += 512 * (1 + Math.ceil(size / 512));
  }
  return null;
}

/**
 * Looks at a backup without restoring it.
 *
 * @throws BadBackup, NewerDatabase, OtherDatabaseVersion when it could not be restored
 */
export async function previewBackup(file: string): Promise<Omit<Restored, 'aside'>> {
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
    await migrateUp(database.db).catch((error: unknown) => {
      if (!(error instanceof NewerDatabase)) throw error;
      throw new NewerDatabase(
        `${basename(file)} was made by a newer version of Hand Relay. Restore it with that version. Nothing was changed.`,
      );
    });
    const found = await contentsOf(database);
    if (!found.site) throw new BadBackup(`${basename(file)} holds no site.`);
    return found;
  } finally {
    await database.close();
  }
}
