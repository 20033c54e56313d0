import { PGlite } from '@electric-sql/pglite';
import { readFileSync } from 'node:fs';
import { parentPort, workerData, type MessagePort } from 'node:worker_threads';

/** The thread in which the embedded database lives: bytes of the wire protocol in, bytes out. */
const { folder, dump, wire } = workerData as { folder: string | null; dump: string | null; wire: MessagePort };

const options = dump ? { loadDataDir: new Blob([readFileSync(dump)]) } : {};
const database = await PGlite.create(folder ?? 'memory://', options);

let last: Promise<void> = Promise.resolve();
wire.on('message', (bytes: Uint8Array) => {
  last = last.then(async () => {
    const answer = await database.execProtocolRaw(bytes);
    if (answer.length > 0) wire.postMessage(answer);
  });
});

parentPort!.on('message', (message: { kind: 'close' } | { kind: 'dump' }) => {
  last = last.then(async () => {
    if (message.kind === 'dump') {
      const file = await database.dumpDataDir('none');
      parentPort!.postMessage({ kind: 'dumped', bytes: new Uint8Array(await file.arrayBuffer()) });
      return;
    }
    await database.close();
    parentPort!.postMessage({ kind: 'closed' });
    process.exit(0);
  });
});
parentPort!.postMessage({ kind: 'ready' });
