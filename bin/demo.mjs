import { existsSync, rmSync } from 'node:fs';
import { join } from 'node:path';
import { build } from './build.mjs';
import { holderOf } from './holder.mjs';
import { become, root } from './lib.mjs';

const wishes = process.argv.slice(2);
const unknown = wishes.find((w) => w !== '--fresh' && w !== '--tls');
if (unknown) {
  console.error(`"${unknown}" is not understood. There are: --fresh, to start over; --tls, for a secure address.`);
  process.exit(2);
}
const folder = process.env.DATA_DIR ?? join(root, '.data', 'demo');

if (wishes.includes('--fresh') && existsSync(folder)) {
  const holder = await holderOf(folder);
  if (holder !== null) {
    console.error(`The demo's data folder is in use by process ${holder}. Stop that one first.`);
    process.exit(2);
  }
  rmSync(folder, { recursive: true, force: true });
}
await build();
become(join(root, 'dist', 'server', 'demo.js'), wishes, {
  DATA_DIR: folder,
  LOG_LEVEL: process.env.LOG_LEVEL ?? 'warn',
});
