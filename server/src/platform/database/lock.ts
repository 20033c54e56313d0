import { randomUUID } from 'node:crypto';
import { chmodSync, mkdirSync, readFileSync, readlinkSync, renameSync, rmSync, statSync, writeFileSync } from 'node:fs';
import { createServer, type Server } from 'node:net';
import { hostname } from 'node:os';
import { join } from 'node:path';
import { OperatorError } from '../operatorError.ts';

/** What the lock file says of the process that holds the folder. */
interface Holder {
  id: string;
  pid: number;
  host: string;
  since: string;
  /** This start of this machine and its network: processes of one machine see one another's system locks. */
  machine: string;
}

/** How often the holder shows that it is alive. */
const HEARTBEAT_MS = 5_000;
/** A lock of another machine that has shown no sign of life for so long is taken over. */
const DEAD_AFTER_MS = 30_000;
/** How long a take-over from another machine waits, to see whether a second one wrote its name over it. */
const SETTLE_MS = 1_500;

/** A data folder that another running process holds. Its message is for the person who started the second one. */
export class FolderInUse extends OperatorError {}

/** A taken data folder. */
export interface FolderLock {
  /** Gives the folder back. */
  release(): Promise<void>;
}

const readLink = (path: string): string => {
  try {
    return readlinkSync(path);
  } catch {
    return '';
  }
};
const readText = (path: string): string => {
  try {
    return readFileSync(path, 'utf8').trim();
  } catch {
    return '';
  }
};

/** Names this start of this machine; empty where the system does not tell. */
const thisMachine = (): string => {
  const boot = readText('/proc/sys/kernel/random/boot_id');
  return boot ? `${boot} ${readLink('/proc/self/ns/net')}` : '';
};

/** The system's own name for a folder's lock: an abstract socket, gone with its process however that ends. */
function lockName(folder: string): string {
  const { dev, ino } = statSync(folder);
  return `\0hand-relay:${dev}:${ino}`;
}

/** Takes the system's lock; null where another process has it, undefined where this system has none. */
function systemLock(folder: string): Promise<Server | null | undefined> {
  if (process.platform !== 'linux') return Promise.resolve(undefined);
  return new Promise((resolve, reject) => {
    // Whoever connects learns who holds the folder: a process id alone may be somebody else's by now.
    const server = createServer((socket) => socket.on('error', () => {}).end(String(process.pid)));
    server.once('error', (error: NodeJS.ErrnoException) =>
      error.code === 'EADDRINUSE' ? resolve(null) : reject(error),
    );
    server.listen(lockName(folder), () => {
      server.unref();
      resolve(server);
    });
  });
}

function holderIn(file: string): (Holder & { beat: number }) | null {
  try {
    return { ...(JSON.parse(readFileSync(file, 'utf8')) as Holder), beat: statSync(file).mtimeMs };
  } catch {
    return null;
  }
}

function runs(pid: number): boolean {
  try {
    process.kill(pid, 0);
    return true;
  } catch (error) {
    return (error as NodeJS.ErrnoException).code === 'EPERM';
  }
}

/**
 * Takes a data folder for this process: the embedded database has no lock of its own, and a second process would
 * corrupt what the first one sees. The folder is made where it is missing, and closed to other users of the machine.
 *
 * Among processes of one machine the system's own lock decides. Between machines that share a folder a file with a
 * heartbeat does: it is taken over when it was silent for half a minute.
 *
 * @param onLost called when another machine took the folder over, because this one did not show that it lives
 * @returns the lock
 * @throws FolderInUse saying who holds it, and in which file that stands
 */
export async function lockFolder(folder: string, now: Date, onLost: () => void = () => {}): Promise<FolderLock> {
  mkdirSync(folder, { recursive: true, mode: 0o700 });
  try {
    chmodSync(folder, 0o700);
  } catch (error) {
    // Somebody else's folder that we may write to: its owner decides who reads it.
    if ((error as NodeJS.ErrnoException).code !== 'EPERM') throw error;
  }
  const file = join(folder, 'in-use.json');
  const system = await systemLock(folder);
  const there = holderIn(file);
  const inUse = () =>
    new FolderInUse(
      `The data folder ${folder} is in use by ${there ? `process ${there.pid} on ${there.host} since ${there.since}` : 'another process'} (see ${file}). Stop that one first, or choose another folder with DATA_DIR.`,
    );
  if (system === null) throw inUse();
  try {
    const machine = thisMachine();
    const ours = there !== null && machine !== '' && there.machine === machine;
    // The system's lock is ours, so what another process of this machine left is over.
    const elsewhere = there !== null && !(ours && system);
    const alive =
      elsewhere &&
      there.host === hostname() &&
      there.machine === machine &&
      there.pid !== process.pid &&
      runs(there.pid);
    if (elsewhere && (alive || (there.machine !== machine && Date.now() - there.beat < DEAD_AFTER_MS))) throw inUse();
    const holder: Holder = { id: randomUUID(), pid: process.pid, host: hostname(), since: now.toISOString(), machine };
    const write = () => {
      writeFileSync(`${file}.${holder.id}`, JSON.stringify(holder), { mode: 0o600 });
      renameSync(`${file}.${holder.id}`, file);
    };
    const isOurs = () => holderIn(file)?.id === holder.id;
    write();
    if (elsewhere) {
      await new Promise((resolve) => setTimeout(resolve, SETTLE_MS));
      if (!isOurs()) throw inUse();
    }
    return hold({ file, write, isOurs, system, onLost });
  } catch (error) {
    system?.close();
    throw error;
  }
}

interface Held {
  file: string;
  write: () => void;
  isOurs: () => boolean;
  system: Server | undefined;
  onLost: () => void;
}

/** Shows that the holder lives until the lock is given back. */
function hold({ file, write, isOurs, system, onLost }: Held): FolderLock {
  const beat = setInterval(() => {
    if (holderIn(file) !== null && !isOurs()) {
      clearInterval(beat);
      onLost();
      return;
    }
    try {
      write();
    } catch {
      // A full disk keeps no heartbeat; the system's lock holds in the meantime.
    }
  }, HEARTBEAT_MS);
  beat.unref();
  let released: Promise<void> | undefined;
  const release = async (): Promise<void> => {
    clearInterval(beat);
    if (isOurs()) rmSync(file, { force: true });
    if (system) await new Promise((resolve) => system.close(resolve));
  };
  return { release: () => (released ??= release()) };
}
