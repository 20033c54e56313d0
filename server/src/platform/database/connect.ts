import { drizzle } from 'drizzle-orm/node-postgres';
import type { NodePgDatabase } from 'drizzle-orm/node-postgres';
import { MessageChannel } from 'node:worker_threads';
import pg from 'pg';
import { startThread } from '../modules.ts';
import * as schema from '../../tables/index.ts';
import { lockFolder, type FolderLock } from './lock.ts';
import { mustBeReadable } from './major.ts';
import { DatabaseThread } from './thread.ts';
import { PortStream } from './wire.ts';

// Money and sums are 64 bits wide there; none of ours comes near the 53 that a number holds exactly.
pg.types.setTypeParser(pg.types.builtins.INT8, Number);

export type Db = NodePgDatabase<typeof schema>;
export type Tx = Parameters<Parameters<Db['transaction']>[0]>[0];

export interface Database {
  db: Db;
  /**
   * Hears each NOTIFY on the channel `relay`, after commit. `gap` is called when some may have been missed, because
   * the connection to a server was lost and is there again.
   */
  listen(hear: (payload: string) => void, gap: () => void): Promise<void>;
  /**
   * The embedded cluster as a file that `dump` takes; null on a server.
   *
   * @throws Error when there is not enough memory for a copy; the database goes on
   */
  dump(): Promise<Uint8Array | null>;
  /** Lets one server at a time do something, of all on this database. */
  alone: Alone;
  /** Bytes of heap that the embedded database's thread uses after a collection; null on a server. */
  heap(): Promise<number | null>;
  close(): Promise<void>;
}

/**
 * Does work while no other server does work of the same name.
 *
 * @param options `wait`: until it is this one's turn; else, where another is at it, nothing is done
 * @returns what the work returns; null where another was at it
 */
export type Alone = <T>(name: string, work: () => Promise<T>, options: { wait: boolean }) => Promise<T | null>;

export interface DatabaseOptions {
  /** Address of a PostgreSQL server; without it the database is embedded. */
  url?: string | undefined;
  /** Folder of the embedded database; null keeps it in memory. */
  folder?: string | null;
  /** The folder's lock, where the caller holds it; it goes over to the database and is given back with it. */
  lock?: FolderLock;
  /** A cluster to begin with, made by `dump`. Used only where the folder is empty. */
  from?: string | null;
  /** Told of a connection that was lost; it is opened again by itself. */
  onLost?: (error: Error) => void;
  /**
   * Told when the embedded database is gone for good: its thread died, or another machine took its folder. Nothing is
   * answered any more; the process should end.
   */
  onDead?: (error: Error) => void;
}

/**
 * Opens the database. A server and the embedded one are reached by the same client over the same protocol; the
 * embedded one has a thread of its own and one connection, so that its transactions queue.
 */
export async function openDatabase(options: DatabaseOptions): Promise<Database> {
  return options.url ? openServer(options.url, options.onLost ?? (() => {})) : openEmbedded(options);
}

/**
 * Lets the database keep the plan of every statement it has seen: planning costs more than running one of ours. Works
 * alike for the embedded database and a server.
 */
function keepPlans(pool: pg.Pool): void {
  pool.on('connect', (client) => {
    const names = new Map<string, string>();
    const query = client.query.bind(client) as (...given: unknown[]) => unknown;
    client.query = ((first: unknown, ...rest: unknown[]) => {
      const statement = first as pg.QueryConfig;
      if (typeof first !== 'object' || !statement.text || statement.name || !Array.isArray(rest[0]))
        return query(first, ...rest);
      const name = names.get(statement.text) ?? `s${names.size}`;
      names.set(statement.text, name);
      return query({ ...statement, name }, ...rest);
    }) as typeof client.query;
  });
}

/**
 * Keeps a connection whose statement was refused. The pool would close it: the embedded database has only the one,
 * with its plans and its ear for notifications, and a server's is as good as before.
 */
function keepAfterRefusal(pool: pg.Pool): void {
  pool.query = (async (...given: unknown[]) => {
    const client = await pool.connect();
    try {
      return await (client.query as (...g: unknown[]) => Promise<unknown>)(...given);
    } finally {
      client.release();
    }
  }) as typeof pool.query;
}

const EAR_PAUSE_MS = 1000;

/** An advisory lock held by a transaction, which a pooler that hands out transactions keeps on one connection. */
function aloneOn(pool: pg.Pool): Alone {
  return async (name, work, { wait }) => {
    const client = await pool.connect();
    try {
      await client.query('begin');
      const lock = wait ? 'pg_advisory_xact_lock' : 'pg_try_advisory_xact_lock';
      const { rows } = await client.query<{ got: unknown }>(`select ${lock}(hashtextextended($1, 0)) as got`, [name]);
      return rows[0]!.got === false ? null : await work();
    } finally {
      await client.query('commit').catch(() => undefined);
      client.release();
    }
  };
}

async function openServer(url: string, onLost: (error: Error) => void): Promise<Database> {
  const pool = new pg.Pool({ connectionString: url, max: 10 });
  pool.on('error', onLost);
  keepPlans(pool);
  keepAfterRefusal(pool);
  await pool.query('select 1');
  let ear: pg.Client | undefined;
  let closing = false;
  const openEar = async (hear: (payload: string) => void, gap: () => void): Promise<void> => {
    const client = new pg.Client({ connectionString: url, keepAlive: true });
    client.on('error', onLost);
    client.on('notification', (n) => hear(n.payload ?? ''));
    await client.connect();
    await client.query('listen relay');
    ear = client;
    client.on('end', () => !closing && openAgain(hear, gap));
  };
  const openAgain = (hear: (payload: string) => void, gap: () => void): void => {
    setTimeout(() => {
      if (closing) return;
      openEar(hear, gap).then(gap, (error: Error) => {
        onLost(error);
        openAgain(hear, gap);
      });
    }, EAR_PAUSE_MS);
  };
  return {
    db: drizzle({ client: pool, schema, casing: 'snake_case' }),
    listen: openEar,
    dump: () => Promise.resolve(null),
    heap: () => Promise.resolve(null),
    alone: aloneOn(pool),
    async close() {
      closing = true;
      await ear?.end();
      await pool.end();
    },
  };
}

async function openEmbedded({ folder, from, lock: held, onDead = () => {} }: DatabaseOptions): Promise<Database> {
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
      await lock?.release();
    },
  };
}
