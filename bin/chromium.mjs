import { existsSync } from 'node:fs';
import { spawnSync } from 'node:child_process';

/** Gets Chromium from Debian's packages where it is missing: the browser tests drive that one. */
export function needChromium() {
  if (existsSync('/usr/bin/chromium')) return;
  console.log("Getting Chromium from Debian's packages …");
  const sudo = process.getuid?.() === 0 ? [] : ['sudo', '-n'];
  for (const step of [
    ['apt-get', 'update', '-q'],
    ['apt-get', 'install', '-y', '-q', '--no-install-recommends', 'chromium'],
  ]) {
    const [command, ...args] = [...sudo, ...step];
    const done = spawnSync(command, args, {
      stdio: ['ignore', 'ignore', 'inherit'],
      env: { ...process.env, DEBIAN_FRONTEND: 'noninteractive' },
    });
    if (done.status !== 0) {
      console.error('Chromium could not be installed. Install the package "chromium" by hand and run the tests again.');
      process.exit(2);
    }
  }
}
