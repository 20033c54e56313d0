import { spawnSync } from 'node:child_process';
import { existsSync, readdirSync } from 'node:fs';
import { join } from 'node:path';

/** Gets a program from Debian's packages where it is missing; ends this process with 2 where that cannot be. */
function needPackage(name, isThere) {
  if (isThere()) return;
  console.log(`Getting ${name} from Debian's packages …`);
  const sudo = process.getuid?.() === 0 ? [] : ['sudo', '-n'];
  for (const step of [
    ['apt-get', 'update', '-q'],
    ['apt-get', 'install', '-y', '-q', '--no-install-recommends', name],
  ]) {
    const [command, ...args] = [...sudo, ...step];
    const done = spawnSync(command, args, {
      stdio: ['ignore', 'ignore', 'inherit'],
      // The tests start servers of their own: the package's must not start by itself.
      env: { ...process.env, DEBIAN_FRONTEND: 'noninteractive', RUNLEVEL: '1' },
    });
    if (done.status !== 0) {
      console.error(`${name} could not be installed. Install the package "${name}" by hand and run the tests again.`);
      process.exit(2);
    }
  }
}

/** The browser tests drive Debian's Chromium. */
export const needChromium = () => needPackage('chromium', () => existsSync('/usr/bin/chromium'));

const POSTGRES = '/usr/lib/postgresql';

/** Folder of the programs of the newest PostgreSQL server that is installed; null where none is. */
export function postgresPrograms() {
  const versions = existsSync(POSTGRES) ? readdirSync(POSTGRES) : [];
  const folders = versions.sort((a, b) => Number(b) - Number(a)).map((v) => join(POSTGRES, v, 'bin'));
  return folders.find((f) => existsSync(join(f, 'initdb')) && existsSync(join(f, 'postgres'))) ?? null;
}

/** Servers that share a PostgreSQL server through a pooler are tested with one. */
export const needPooler = () => needPackage('pgbouncer', () => existsSync('/usr/sbin/pgbouncer'));

/** The reverse proxy of the examples is tried with nginx. */
export const needProxy = () => needPackage('nginx-light', () => existsSync('/usr/sbin/nginx'));

/** What several people do at once is tested on a PostgreSQL server, where it can collide. */
export const needPostgres = () => needPackage('postgresql', () => postgresPrograms() !== null);
