import { join } from 'node:path';
import { build } from './build.mjs';
import { become, root } from './lib.mjs';

const wishes = process.argv.slice(2);
const unknown = wishes.find((w) => w !== '--tls');
if (unknown) {
  console.error(`"${unknown}" is not understood. The one wish there is: --tls, for a secure address.`);
  process.exit(2);
}
await build();
become(join(root, 'dist', 'server', 'start.js'), wishes);
