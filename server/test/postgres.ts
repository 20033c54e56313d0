import { spawn, spawnSync, type ChildProcess } from 'node:child_process';
import { chmodSync, chownSync, existsSync, mkdtempSync, readdirSync, rmSync } from 'node:fs';
import { createServer } from 'node:net';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import pg from 'pg';

/** A PostgreSQL server of Debian's packages, in a folder of its own, gone when the test file ends. */
let running: Promise<{ port: number; process: ChildProcess; folder: string }> | undefined;

afterAll(async () => {
  const server = await running?.catch(() => undefined);
  if (!server) return;
  const ended = new Promise((resolve) => server.process.once('exit', resolve));
  // Immediately: nothing in it is of use any more.
  server.process.kill('SIGQUIT');
  await ended;
  rmSync(server.folder, { recursive: true, force: true });
});

/** The server refuses to run as root: then it runs as the package's own user. */
function unprivileged(): { uid?: number; gid?: number } {
  if (process.getuid?.() !== 0) return {};
  const id = (flag: string) => Number(spawnSync('id', [flag, 'postgres'], { encoding: 'utf8' }).stdout.trim());
  return { uid: id('-u'), gid: id('-g') };
}

function programs(): string {
  const root = '/usr/lib/postgresql';
  const versions = existsSync(root) ? readdirSync(root).sort((a, b) => Number(b) - Number(a)) : [];
  const found = versions.map((v) => join(root, v, 'bin')).find((f) => existsSync(join(f, 'initdb')));
  if (!found) throw new Error('There is no PostgreSQL server. Install the package "postgresql", as npm test does.');
  return found;
}

/** A port of this machine that nobody listens on. */
export const freePort = () =>
  new Promise<number>((resolve) => {
    const probe = createServer().listen(0, '127.0.0.1', () => {
      const { port } = probe.address() as { port: number };
      probe.close(() => resolve(port));
    });
  });

async function start() {
  const folder = mkdtempSync(join(tmpdir(), 'hand-relay-postgres-'));
  const who = unprivileged();
  if (who.uid !== undefined) chownSync(folder, who.uid, who.gid!);
  chmodSync(folder, 0o700);
  const data = join(folder, 'data');
  const made = spawnSync(
    join(programs(), 'initdb'),
    ['-D', data, '-U', 'relay', '--auth=trust', '--encoding=UTF8', '--locale=C.UTF-8', '--no-sync'],
    { ...who, cwd: folder, encoding: 'utf8' },
  );
  if (made.status !== 0) throw new Error(made.stderr);
  const port = await freePort();
  const settings = {
    port,
    listen_addresses: '127.0.0.1',
    unix_socket_directories: folder,
    fsync: 'off',
    max_connections: 60,
  };
  const server = spawn(
    join(programs(), 'postgres'),
    ['-D', data, ...Object.entries(settings).flatMap(([name, value]) => ['-c', `${name}=${value}`])],
    { ...who, cwd: folder, stdio: ['ignore', 'ignore', 'pipe'] },
  );
  await new Promise<void>((resolve, reject) => {
    let said = '';
    server.stderr.on('data', (bytes: Buffer) => {
      said += String(bytes);
      if (said.includes('ready to accept connections')) resolve();
    });
    server.once('exit', () => reject(new Error(said)));
  });
  return { port, process: server, folder };
}

/** The address of an empty database on a server that many connections can use at once. */
export async function postgresServer(name: string): Promise<string> {
  const { port } = await (running ??= start());
  const address = (database: string) => `postgres://relay@127.0.0.1:${port}/${database}`;
  const client = new pg.Client({ connectionString: address('postgres') });
  await client.connect();
  await client.query(`create database "${name}"`);
  await client.end();
  return address(name);
}
