import { drizzle } from 'drizzle-orm/node-postgres';
import { MessageChannel } from 'node:worker_threads';
import pg from 'pg';
import { startThread } from '../modules.ts';
import * as schema from '../../tables/index.ts';
import type { Database, DatabaseOptions } from './database.ts';
import { flushNowAndThen } from './flush.ts';
import { lockFolder } from './lock.ts';
import { mustBeReadable } from './major.ts';
import { keepAfterRefusal, keepPlans } from './pool.ts';
import { openServer } from './postgres.ts';
import { DatabaseThread } from './thread.ts';
import { PortStream } from './wire.ts';

/**
 * Opens the database. A server and the embedded one are reached by the same client over the same protocol; the
 * embedded one has a thread of its own and one connection, so that its transactions queue.
 */
export async function openDatabase(options: DatabaseOptions): Promise<Database> {
  return options.url
    ? openServer(options.url, options.server ?? {}, options.onLost ?? (() => {}))
    : openEmbedded(options);
}

async function openEmbedded({
  folder,
  from,
  lock: held,
  flushSeconds = 5,
  onDead = () => {},
}: DatabaseOptions): Promise<Database> {
  const onTaken = () => onDead(new Error(`Another machine took the data folder ${folder}.`));
  if (folder) mustBeReadable(folder);
  const lock = held ?? (folder ? await lockFolder(folder, new Date(), onTaken) : null);
  const { port1, port2 } = new MessageChannel();
  let stream: PortStream | undefined;
  const thread = new DatabaseThread(
    startThread('platform/database/embedded.worker', {
      workerData: { folder: folder ? `${folder}/cluster` : null, dump: from ?? null, wire: port2 },
      transferList: [port2],
    }),
    (error) => {
      // Whoever waits for an answer learns that none comes.
      stream?.destroy(error);
      onDead(error);
    },
  );
  try {
    await thread.answer('ready');
  } catch (error) {
    await lock?.release();
    throw error;
  }
  const endFlushing = folder ? flushNowAndThen(folder, flushSeconds) : undefined;
  const pool = new pg.Pool({
    max: 1,
    idleTimeoutMillis: 0,
    user: 'postgres',
    database: 'postgres',
    stream: () => (stream = new PortStream(port1)),
  });
  pool.on('error', () => {});
  keepPlans(pool);
  keepAfterRefusal(pool);
  return {
    db: drizzle({ client: pool, schema, casing: 'snake_case' }),
    async listen(hear) {
      const client = await pool.connect();
      client.on('notification', (n) => hear(n.payload ?? ''));
      await client.query('listen relay');
      client.release();
    },
    async dump() {
      const answer = thread.answer('dumped');
      thread.ask('dump');
      return (await answer).bytes;
    },
    // The folder is this server's alone.
    alone: (_name, work) => work(),
    async heap() {
      const answer = thread.answer('heap');
      thread.ask('heap');
      return (await answer).used;
    },
    async close() {
      if (!thread.died) {
        await pool.end();
        const closed = thread.answer('closed');
        thread.ask('close');
        await closed.catch(() => undefined);
      }
      port1.close();
      await endFlushing?.();
      await lock?.release();
    },
  };
}
