import { spawn } from 'node:child_process';
import { join } from 'node:path';
import { installed, quiet, root } from './lib.mjs';

/** Server on 4600 from the sources, restarted when they change; the app by Metro on 8081, its /api passed on. */
installed();
const env = { ...process.env, ...quiet, DATA_DIR: process.env.DATA_DIR ?? join(root, '.data', 'dev') };
const children = [
  spawn('npx', ['tsx', 'watch', 'demo/src/start.ts'], { cwd: root, stdio: 'inherit', env }),
  spawn('npx', ['expo', 'start', '--web', '--port', '8081', 'app'], { cwd: root, stdio: 'inherit', env }),
];
for (const signal of ['SIGINT', 'SIGTERM']) process.on(signal, () => children.forEach((c) => c.kill(signal)));
