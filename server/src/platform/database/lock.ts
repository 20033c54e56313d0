import { closeSync, mkdirSync, openSync, readFileSync, rmSync, writeSync } from 'node:fs';
import { hostname } from 'node:os';
import { join } from 'node:path';

interface Holder {
  pid: number;
  host: string;
  since: string;
}

/** A data folder that another running process holds. Its message is for the person who started the second one. */
export class FolderInUse extends Error {}

function alive(pid: number): boolean {
  try {
    process.kill(pid, 0);
    return true;
  } catch (error) {
    return (error as NodeJS.ErrnoException).code === 'EPERM';
  }
}

/**
 * Takes a data folder for this process: the embedded database has no lock of its own, and a second process would
 * corrupt what the first one sees.
 *
 * A lock left by a process that is gone is taken over.
 *
 * @returns a function that gives the folder back
 * @throws FolderInUse saying who holds it
 */
export function lockFolder(folder: string, now: Date): () => void {
  mkdirSync(folder, { recursive: true });
  const file = join(folder, 'in-use.json');
  for (let attempt = 0; attempt < 2; attempt++) {
    try {
      const handle = openSync(file, 'wx');
      writeSync(
        handle,
        JSON.stringify({ pid: process.pid, host: hostname(), since: now.toISOString() } satisfies Holder),
      );
      closeSync(handle);
      return () => rmSync(file, { force: true });
    } catch (error) {
      if ((error as NodeJS.ErrnoException).code !== 'EEXIST') throw error;
      let holder: Holder | undefined;
      try {
        holder = JSON.parse(readFileSync(file, 'utf8')) as Holder;
      } catch {
        holder = undefined;
      }
      if (holder && (holder.host !== hostname() || (holder.pid !== process.pid && alive(holder.pid))))
        throw new FolderInUse(
          `The data folder ${folder} is in use by process ${holder.pid} on ${holder.host} since ${holder.since}. Stop that one first, or choose another folder with DATA_DIR.`,
        );
      rmSync(file, { force: true });
    }
  }
  throw new FolderInUse(`The data folder ${folder} was taken by another process just now.`);
}
