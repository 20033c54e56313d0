import { spawn, type ChildProcess } from 'node:child_process';
import { once } from 'node:events';
import { chmodSync, mkdtempSync, rmSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import pg from 'pg';
import { freePort } from '../../bin/postgres.mjs';

export interface Pooler {
  /** Address of the database through the pooler. */
  url: string;
  stop(): Promise<void>;
}

/** Connections that the pooler has to the database: fewer than those who ask through it. */
const CONNECTIONS = 4;

/**
 * Starts a pooler that hands a connection out for one transaction at a time, in front of a database of the tests.
 *
 * @param url of the database itself
 */
export async function startPooler(url: string): Promise<Pooler> {
  const to = new URL(url);
  const port = await freePort();
  const folder = mkdtempSync(join(tmpdir(), 'hand-relay-pooler-'));
  chmodSync(folder, 0o755);
  const settings = join(folder, 'pooler.ini');
  writeFileSync(
    settings,
    `[databases]
* = host=${to.hostname} port=${to.port} user=${to.username}
[pgbouncer]
listen_addr = 127.0.0.1
listen_port = ${port}
unix_socket_dir =
auth_type = any
pool_mode = transaction
default_pool_size = ${CONNECTIONS}
max_client_conn = 200
`,
  );
  // It refuses to run as root.
  const user = process.getuid?.() === 0 ? ['-u', 'postgres'] : [];
  const pooler = spawn('/usr/sbin/pgbouncer', ['-q', ...user, settings], { stdio: ['ignore', 'ignore', 'pipe'] });
  const address = Object.assign(new URL(url), { port: String(port) });
  try {
    await answers(address.href, pooler);
  } catch (error) {
    pooler.kill('SIGKILL');
    throw error;
  }
  return {
    url: address.href,
    async stop() {
      const ended = once(pooler, 'exit');
      pooler.kill('SIGKILL');
      await ended;
      rmSync(folder, { recursive: true, force: true });
    },
  };
}

/** Waits until something answers at an address; throws what the process said where it ended. */
async function answers(connectionString: string, pooler: ChildProcess): Promise<void> {
  let said = '';
  pooler.stderr?.on('data', (bytes) => (said += String(bytes)));
  for (let tries = 0; ; tries++) {
    const client = new pg.Client({ connectionString });
    try {
      await client.connect();
      return await client.end();
    } catch (error) {
      if (pooler.exitCode !== null || tries > 100)
        throw new Error(`The pooler does not answer. ${said}`, { cause: error });
      await new Promise((resolve) => setTimeout(resolve, 50));
    }
  }
}
