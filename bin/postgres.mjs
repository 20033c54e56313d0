import { spawn, spawnSync } from 'node:child_process';
import { chmodSync, chownSync, mkdtempSync, rmSync } from 'node:fs';
import { createServer } from 'node:net';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { postgresPrograms } from './debian.mjs';

/** The server refuses to run as root: then it runs as the package's own user. */
function unprivileged() {
  if (process.getuid?.() !== 0) return {};
  const id = (flag) => Number(spawnSync('id', [flag, 'postgres'], { encoding: 'utf8' }).stdout.trim());
  return { uid: id('-u'), gid: id('-g') };
}

/** A port of this machine that nobody listens on. */
export const freePort = () =>
  new Promise((resolve) => {
    const probe = createServer().listen(0, '127.0.0.1', () => {
      const { port } = probe.address();
      probe.close(() => resolve(port));
    });
  });

/**
 * Starts a PostgreSQL server of Debian's packages in a folder of its own, for tests and measurements: what it holds is
 * gone when it ends.
 *
 * @param settings of the server, beside those that every one has
 * @returns its port, and `stop`, which ends it and deletes the folder
 */
export async function startPostgres(settings = {}) {
  const programs = postgresPrograms();
  if (!programs) throw new Error('There is no PostgreSQL server. Install the package "postgresql", as npm test does.');
  const folder = mkdtempSync(join(tmpdir(), 'hand-relay-postgres-'));
  const who = unprivileged();
  if (who.uid !== undefined) chownSync(folder, who.uid, who.gid);
  chmodSync(folder, 0o700);
  const data = join(folder, 'data');
  const made = spawnSync(
    join(programs, 'initdb'),
    ['-D', data, '-U', 'relay', '--auth=trust', '--encoding=UTF8', '--locale=C.UTF-8', '--no-sync'],
    { ...who, cwd: folder, encoding: 'utf8' },
  );
  if (made.status !== 0) throw new Error(made.stderr);
  const port = await freePort();
  const all = {
    port,
    listen_addresses: '127.0.0.1',
    unix_socket_directories: folder,
    max_connections: 60,
    ...settings,
  };
  const server = spawn(
    join(programs, 'postgres'),
    ['-D', data, ...Object.entries(all).flatMap(([name, value]) => ['-c', `${name}=${value}`])],
    { ...who, cwd: folder, stdio: ['ignore', 'ignore', 'pipe'] },
  );
  await new Promise((resolve, reject) => {
    let said = '';
    server.stderr.on('data', (bytes) => {
      said += String(bytes);
      if (said.includes('ready to accept connections')) resolve();
    });
    server.once('exit', () => reject(new Error(said)));
  });
  return {
    port,
    address: (database) => `postgres://relay@127.0.0.1:${port}/${database}`,
    async stop() {
      const ended = new Promise((resolve) => server.once('exit', resolve));
      // Immediately: nothing in it is of use any more.
      server.kill('SIGQUIT');
      await ended;
      rmSync(folder, { recursive: true, force: true });
    },
  };
}
