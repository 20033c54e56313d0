import { createWriteStream } from 'node:fs';
import { mkdtemp, rm } from 'node:fs/promises';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { Transform } from 'node:stream';
import { pipeline } from 'node:stream/promises';
import type { Request } from 'express';
import { endpoints } from '@hand-relay/contract';
import {
  NewerDatabase,
  OtherDatabaseVersion,
  Refusal,
  mountEndpoint,
  type Database,
  type Routes,
} from '../../platform/index.ts';
import { backupName, backupOf } from './backup.ts';
import type { Backups } from './nightly.ts';
import { BadBackup, previewBackup } from './restore.ts';

const MOST_BYTES = 4_000_000_000;

/**
 * @param backups those that the server makes by itself; absent where a PostgreSQL server keeps the data
 * @param restore puts a backup in place of everything and starts again; absent where a PostgreSQL server keeps the data
 */
export function backupRoutes(
  routes: Routes,
  database: Database,
  backups?: Backups,
  restore?: (file: string) => void,
): void {
  mountEndpoint(routes, endpoints.backup, async ({ platform, res }) => {
    const bytes = await backupOf(database);
    if (!bytes) throw new Refusal('no-backup');
    res.attachment(backupName(platform.clock())).type('application/gzip').send(Buffer.from(bytes));
  });
  mountEndpoint(routes, endpoints.backups, () => {
    if (!backups) throw new Refusal('no-backup');
    return backups.status();
  });
  mountEndpoint(routes, endpoints.backUpNow, async () => {
    if (!backups) throw new Refusal('no-backup');
    await backups.write();
    return backups.status();
  });
  mountEndpoint(routes, endpoints.previewBackup, async ({ req }) => {
    const file = await received(req);
    try {
      return await previewBackup(file);
    } catch (error) {
      throw asRefusal(error);
    } finally {
      await rm(join(file, '..'), { recursive: true, force: true });
    }
  });
  mountEndpoint(routes, endpoints.restore, async ({ req, res, platform, actor }) => {
    if (!restore) throw new Refusal('no-backup');
    const file = await received(req);
    try {
      const found = await previewBackup(file);
      platform.log.warn({ person: actor.personId, ...found }, 'a backup is restored in place of everything');
      // The answer goes out first: then this server closes and comes back with what the file holds.
      res.on('finish', () => restore(file));
      return found;
    } catch (error) {
      await rm(join(file, '..'), { recursive: true, force: true });
      throw asRefusal(error);
    }
  });
}

/** Says on the page what is wrong with a file: that it is none, or that another version made it. */
function asRefusal(error: unknown): unknown {
  if (error instanceof NewerDatabase) return new Refusal('newer-backup');
  if (error instanceof OtherDatabaseVersion) return new Refusal('other-database-version');
  if (error instanceof BadBackup) return new Refusal('not-a-backup', { why: error.message });
  return error;
}

/**
 * Writes what is sent to a file of its own, piece by piece: a backup may be larger than the memory. What did not come
 * whole is removed.
 *
 * @throws Refusal 413 `too-large`; 507 `disk-full`
 */
async function received(req: Request): Promise<string> {
  const folder = await mkdtemp(join(tmpdir(), 'hand-relay-sent-'));
  const file = join(folder, 'sent backup');
  let bytes = 0;
  const measured = new Transform({
    transform(part: Buffer, _encoding, done) {
      bytes += part.length;
      done(bytes > MOST_BYTES ? new Refusal('too-large') : null, part);
    },
  });
  try {
    await pipeline(req, measured, createWriteStream(file));
  } catch (error) {
    await rm(folder, { recursive: true, force: true });
    throw (error as NodeJS.ErrnoException).code === 'ENOSPC' ? new Refusal('disk-full') : error;
  }
  return file;
}
