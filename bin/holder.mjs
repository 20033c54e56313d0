import { existsSync, readFileSync, statSync } from 'node:fs';
import { connect } from 'node:net';
import { join } from 'node:path';

/** A holder that showed no sign of life for so long is gone, where the system cannot tell. */
const DEAD_AFTER_MS = 30_000;

/**
 * Finds the process that holds a data folder: by the system's lock, which no other process can have, or, where there is
 * none, by the lock file while its heartbeat is fresh.
 *
 * @returns its process id; null when nobody holds the folder
 */
export async function holderOf(folder) {
  const file = join(folder, 'in-use.json');
  if (!existsSync(file)) return null;
  if (process.platform === 'linux') return systemHolder(folder);
  const fresh = Date.now() - statSync(file).mtimeMs < DEAD_AFTER_MS;
  return fresh ? JSON.parse(readFileSync(file, 'utf8')).pid : null;
}

function systemHolder(folder) {
  const { dev, ino } = statSync(folder);
  return new Promise((resolve) => {
    let said = '';
    const socket = connect(`\0hand-relay:${dev}:${ino}`);
    socket.on('data', (bytes) => (said += bytes));
    socket.on('error', () => resolve(null));
    socket.on('end', () => resolve(/^\d+$/.test(said) ? Number(said) : null));
  });
}
