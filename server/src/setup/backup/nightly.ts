import { copyFile, mkdir, readdir, rename, rm, stat, writeFile } from 'node:fs/promises';
import { join } from 'node:path';
import type { BackupsAnswer } from '@hand-relay/contract';
import type { Platform } from '../../platform/index.ts';
import { backupName } from './backup.ts';

/** What makes a backup: the running server. */
type Source = () => Promise<Uint8Array | null>;

/** How often and where backups are kept. */
export interface BackupPlan {
  /** How many stay; 0 makes none by night. */
  keep: number;
  /** A folder on another disk or machine that has each of them too. */
  second?: string;
}

type Failure = NonNullable<BackupsAnswer['failed']>;

/** Hour of the machine's clock at which nobody picks. */
const HOUR = 2;
const HOUR_MS = 3_600_000;
/** A night's backup is late when the next day's work is under way without it. */
const LATE_AFTER_MS = 26 * HOUR_MS;
/** A machine that was off at night makes up for it soon after its start, when people have signed in. */
const CATCH_UP_MS = 60_000;
const AGAIN_MS = HOUR_MS;

function untilNext(now: Date): number {
  const next = new Date(now);
  next.setHours(HOUR, 0, 0, 0);
  if (next <= now) next.setDate(next.getDate() + 1);
  return next.getTime() - now.getTime();
}

/**
 * Writes a backup into a folder, has it in the second one too, and keeps the newest in both. A file appears whole or
 * not at all.
 *
 * @returns the file's path in the first folder, and why the second does not have it
 * @throws what the file system says of the first folder
 */
export async function writeBackup(
  source: Source,
  folder: string,
  { keep, second }: BackupPlan,
  now: Date,
): Promise<{ path: string; secondFailed: unknown }> {
  const bytes = await source();
  if (!bytes) throw new Error('There is nothing embedded to back up.');
  const name = backupName(now);
  const path = join(folder, name);
  await mkdir(folder, { recursive: true });
  await writeFile(`${path}.part`, bytes);
  await rename(`${path}.part`, path);
  await clear(folder, keep);
  let secondFailed: unknown = null;
  if (second !== undefined)
    try {
      // Not made here: a folder that is not there is a disk that is not connected, and this one would fill instead.
      await copyFile(path, join(second, `${name}.part`));
      await rename(join(second, `${name}.part`), join(second, name));
      await clear(second, keep);
    } catch (error) {
      secondFailed = error;
    }
  return { path, secondFailed };
}

async function clear(folder: string, keep: number): Promise<void> {
  const all = (await readdir(folder)).filter((f) => f.endsWith('.backup')).sort();
  for (const old of all.slice(0, Math.max(0, all.length - keep))) await rm(join(folder, old));
}

/**
 * The backups of a data folder: one each night, one whenever the process is sent SIGUSR2, as the backup command does,
 * and what is to be said of them.
 */
export class Backups {
  private timer: ReturnType<typeof setTimeout> | undefined;
  private failed: Failure | null = null;
  private readonly folder: string;
  private readonly asked = () => void this.write();

  constructor(
    private readonly platform: Platform,
    private readonly source: Source,
    private readonly data: string,
    private readonly plan: BackupPlan,
  ) {
    this.folder = join(data, 'backups');
    process.on('SIGUSR2', this.asked);
    if (plan.keep > 0)
      void this.status().then(
        ({ state }) => this.next(state === 'late' ? CATCH_UP_MS : untilNext(platform.clock())),
        () => this.next(AGAIN_MS),
      );
  }

  /** Makes one now. @returns whether every place has it */
  async write(): Promise<boolean> {
    const { log, clock } = this.platform;
    const plan = { ...this.plan, keep: Math.max(1, this.plan.keep) };
    try {
      const { path, secondFailed } = await writeBackup(this.source, this.folder, plan, clock());
      log.info({ path }, 'backup written');
      if (secondFailed) log.error({ err: secondFailed }, 'the second place has no backup');
      this.failed = secondFailed ? { at: clock().toISOString(), place: 'second', why: whyOf(secondFailed) } : null;
    } catch (error) {
      log.error({ err: error }, 'backup failed');
      this.failed = { at: clock().toISOString(), place: 'first', why: whyOf(error) };
    }
    return this.failed === null;
  }

  /** What there is, the newest first, and whether somebody should look after it. */
  async status(): Promise<BackupsAnswer> {
    const { keep, second } = this.plan;
    const [first, copies] = await Promise.all([filesIn(this.folder), second === undefined ? [] : filesIn(second)]);
    const copied = new Set(copies.map((f) => f.name));
    const files = first.map((file) => ({ ...file, second: copied.has(file.name) }));
    // A house that was begun today has no night behind it.
    const since = files[0] ? Date.parse(files[0].at) : (await stat(this.data)).birthtimeMs;
    const late = this.platform.clock().getTime() - since > LATE_AFTER_MS;
    return {
      state: keep === 0 ? 'off' : this.failed ? 'failed' : late ? 'late' : 'fresh',
      keep,
      hasSecond: second !== undefined,
      files,
      failed: this.failed,
    };
  }

  close(): void {
    clearTimeout(this.timer);
    this.timer = undefined;
    process.off('SIGUSR2', this.asked);
    this.next = () => undefined;
  }

  private next = (ms: number): void => {
    this.timer = setTimeout(() => {
      void this.write().then((done) => this.next(done ? untilNext(this.platform.clock()) : AGAIN_MS));
    }, ms);
    this.timer.unref();
  };
}

async function filesIn(folder: string): Promise<{ name: string; at: string; bytes: number }[]> {
  const names = await readdir(folder).catch(() => []);
  const found = await Promise.all(
    names
      .filter((name) => name.endsWith('.backup'))
      .map(async (name) => {
        const { mtime, size } = await stat(join(folder, name));
        return { name, at: mtime.toISOString(), bytes: size };
      }),
  );
  return found.sort((a, b) => b.name.localeCompare(a.name));
}

/** The file system's code, in the few words a supervisor can do something about. */
function whyOf(error: unknown): Failure['why'] {
  const { code } = error as NodeJS.ErrnoException;
  if (code === 'ENOSPC' || code === 'EDQUOT') return 'disk-full';
  if (code === 'ENOENT' || code === 'ENOTDIR') return 'not-there';
  if (code === 'EACCES' || code === 'EPERM' || code === 'EROFS') return 'not-writable';
  return 'other';
}
