import { drizzle } from 'drizzle-orm/node-postgres';
import pg from 'pg';
import * as schema from '../../tables/index.ts';
import type { Alone, Database, ServerSettings } from './database.ts';
import { keepAfterRefusal, keepPlans } from './pool.ts';

const RELISTEN_MS = 1000;

/** An advisory lock held by a transaction, which a pooler that hands out transactions keeps on one connection. */
function aloneOn(pool: pg.Pool): Alone {
  return async (name, work, { wait }) => {
    const client = await pool.connect();
    try {
      await client.query('begin');
      // A turn may be long: waiting for it is no fault.
      await client.query('set local lock_timeout = 0');
      await client.query('set local statement_timeout = 0');
      const lock = wait ? 'pg_advisory_xact_lock' : 'pg_try_advisory_xact_lock';
      const { rows } = await client.query<{ got: unknown }>(`select ${lock}(hashtextextended($1, 0)) as got`, [name]);
      return rows[0]!.got === false ? null : await work();
    } finally {
      await client.query('commit').catch(() => undefined);
      client.release();
    }
  };
}

/** Opens a PostgreSQL server: a pool, and one connection besides that hears notifications. */
export async function openServer(
  url: string,
  {
    pool: max = 10,
    connectMs = 10_000,
    lockMs = 20_000,
    statementMs = 120_000,
    pooler = false,
    listenUrl = url,
  }: ServerSettings,
  onLost: (error: Error) => void,
): Promise<Database> {
  // A pooler refuses settings that come with the connection, and would hand them on to others.
  const timeouts = pooler ? {} : { lock_timeout: lockMs, statement_timeout: statementMs };
  const pool = new pg.Pool({
    connectionString: url,
    max,
    connectionTimeoutMillis: connectMs,
    keepAlive: true,
    ...timeouts,
  });
  pool.on('error', onLost);
  if (!pooler) keepPlans(pool);
  keepAfterRefusal(pool);
  await pool.query('select 1');
  let listener: pg.Client | undefined;
  let closing = false;
  const openListener = async (onNotice: (payload: string) => void, gap: () => void): Promise<void> => {
    const client = new pg.Client({ connectionString: listenUrl, keepAlive: true });
    client.on('error', onLost);
    client.on('notification', (n) => onNotice(n.payload ?? ''));
    await client.connect();
    await client.query('listen relay');
    listener = client;
    client.on('end', () => !closing && openAgain(onNotice, gap));
  };
  const openAgain = (hear: (payload: string) => void, gap: () => void): void => {
    setTimeout(() => {
      if (closing) return;
      openListener(hear, gap).then(gap, (error: Error) => {
        onLost(error);
        openAgain(hear, gap);
      });
    }, RELISTEN_MS);
  };
  return {
    db: drizzle({ client: pool, schema, casing: 'snake_case' }),
    listen: openListener,
    dump: () => Promise.resolve(null),
    heap: () => Promise.resolve(null),
    alone: aloneOn(pool),
    async close() {
      closing = true;
      await listener?.end();
      await pool.end();
    },
  };
}
