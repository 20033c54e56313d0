import { mkdir, readdir, rename, rm, writeFile } from 'node:fs/promises';
import { join } from 'node:path';
import type { Platform } from '../platform/index.ts';
import { backupName } from './backup.ts';

/** What makes a backup: the running server. */
interface Source {
  backup(): Promise<Uint8Array | null>;
}

/** Hour of the machine's clock at which nobody picks. */
const HOUR = 2;

function untilNext(now: Date): number {
  const next = new Date(now);
  next.setHours(HOUR, 0, 0, 0);
  if (next <= now) next.setDate(next.getDate() + 1);
  return next.getTime() - now.getTime();
}

/**
 * Writes a backup into a folder and keeps the newest ones. The file appears whole or not at all.
 *
 * @returns the file's path
 */
export async function writeBackup(source: Source, folder: string, keep: number, now: Date): Promise<string> {
  const bytes = await source.backup();
  if (!bytes) throw new Error('There is nothing embedded to back up.');
  await mkdir(folder, { recursive: true });
  const path = join(folder, backupName(now));
  await writeFile(`${path}.part`, bytes);
  await rename(`${path}.part`, path);
  const all = (await readdir(folder)).filter((f) => f.endsWith('.backup')).sort();
  for (const old of all.slice(0, Math.max(0, all.length - keep))) await rm(join(folder, old));
  return path;
}

/**
 * A backup each night, and one whenever the process is sent SIGUSR2, as the backup command does.
 *
 * @param keep how many stay; 0 makes none by night
 * @returns a function that ends it
 */
export function keepBackups(source: Source & { platform: Platform }, folder: string, keep: number): () => void {
  const { log, clock } = source.platform;
  const write = async (): Promise<void> =>
    writeBackup(source, folder, Math.max(1, keep), clock()).then(
      (path) => log.info({ path }, 'backup written'),
      (error: unknown) => log.error({ err: error }, 'backup failed'),
    );
  let timer: ReturnType<typeof setTimeout> | undefined;
  const again = () => {
    timer = setTimeout(() => void write().then(again), untilNext(clock()));
    timer.unref();
  };
  if (keep > 0) again();
  const asked = () => void write();
  process.on('SIGUSR2', asked);
  return () => {
    clearTimeout(timer);
    process.off('SIGUSR2', asked);
  };
}
