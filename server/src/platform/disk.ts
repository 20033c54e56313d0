import { statfsSync } from 'node:fs';

/** Below this the database could not finish what it began: changes are refused while reading goes on. */
const LEAST_FREE_BYTES = 64 * 1024 * 1024;
/** How long a look at the disk is good for. */
const LOOK_MS = 1_000;

/** The disk that holds the data folder. */
export interface Disk {
  /** Megabytes that are free; null where the data is on a server elsewhere, or the system does not tell. */
  freeMb(): number | null;
  /** Whether there is too little left to change anything. */
  full(): boolean;
}

/**
 * Watches the disk of a folder.
 *
 * @param folder null where nothing is kept on this machine
 * @param freeBytes asks the system; replaced in tests
 */
export function watchDisk(folder: string | null, freeBytes: (folder: string) => number | null = freeOn): Disk {
  let looked = -Infinity;
  let free: number | null = null;
  const look = (): number | null => {
    if (folder === null) return null;
    const now = performance.now();
    if (now - looked >= LOOK_MS) {
      free = freeBytes(folder);
      looked = now;
    }
    return free;
  };
  return {
    freeMb() {
      const bytes = look();
      return bytes === null ? null : Math.floor(bytes / 1_048_576);
    },
    full() {
      const bytes = look();
      return bytes !== null && bytes < LEAST_FREE_BYTES;
    },
  };
}

function freeOn(folder: string): number | null {
  try {
    const { bavail, bsize } = statfsSync(folder);
    return bavail * bsize;
  } catch {
    return null;
  }
}
