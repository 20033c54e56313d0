import { PGlite } from '@electric-sql/pglite';
import { pg_trgm } from '@electric-sql/pglite/contrib/pg_trgm';
import { readFileSync } from 'node:fs';
import { setFlagsFromString } from 'node:v8';
import { runInNewContext } from 'node:vm';
import { parentPort, workerData, type MessagePort } from 'node:worker_threads';

/** The thread in which the embedded database lives: bytes of the wire protocol in, bytes out. */
const { folder, dump, wire } = workerData as { folder: string | null; dump: string | null; wire: MessagePort };

/** What the thread is asked beside queries. */
export type ThreadAsked = { kind: 'close' } | { kind: 'dump' } | { kind: 'heap' };
/** What it answers; `failed` is an answer too, and the thread goes on. */
export type ThreadAnswer =
  | { kind: 'ready' }
  | { kind: 'closed' }
  | { kind: 'dumped'; bytes: Uint8Array }
  | { kind: 'heap'; used: number }
  | { kind: 'failed'; message: string };

const extensions = { pg_trgm };
const options = dump ? { extensions, loadDataDir: new Blob([readFileSync(dump)]) } : { extensions };
const database = await PGlite.create(folder ?? 'memory://', options);
const answer = (what: ThreadAnswer) => parentPort!.postMessage(what);

let last: Promise<void> = Promise.resolve();
/** One after the other. What throws inside the database leaves it in no known state: the thread ends with it. */
function queue(work: () => Promise<void>): void {
  last = last.then(work).catch((error: unknown) => {
    setImmediate(() => {
      throw error;
    });
  });
}

wire.on('message', (bytes: Uint8Array) =>
  queue(async () => {
    const parts: Uint8Array[] = [];
    // Streamed, because `execProtocolRaw` keeps a parsed copy of every result for ever. What comes is a window on the
    // database's own memory: it is copied, and sent when all of it is written.
    await database.execProtocolRawStream(bytes, { onRawData: (data) => void parts.push(data.slice()) });
    for (const part of parts) wire.postMessage(part, [part.buffer as ArrayBuffer]);
  }),
);

parentPort!.on('message', ({ kind }: ThreadAsked) =>
  queue(async () => {
    if (kind === 'heap') return answer({ kind, used: usedHeap() });
    if (kind === 'dump') {
      // A copy needs memory as large as the database: without it there is no copy, and nothing else is lost.
      return answer(
        await database
          .dumpDataDir('none')
          .then(async (file) => ({ kind: 'dumped' as const, bytes: new Uint8Array(await file.arrayBuffer()) }))
          .catch((error: Error) => ({ kind: 'failed' as const, message: error.message })),
      );
    }
    await database.close();
    answer({ kind: 'closed' });
    process.exit(0);
  }),
);
answer({ kind: 'ready' });

/** Bytes of this thread's heap that are in use after a collection. */
function usedHeap(): number {
  setFlagsFromString('--expose-gc');
  (runInNewContext('gc') as () => void)();
  return process.memoryUsage().heapUsed;
}
