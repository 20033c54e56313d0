import { join } from 'node:path';
import { build } from './build.mjs';
import { become, root } from './lib.mjs';

/** Restores a backup into a data folder that no server uses. */
await build();
become(join(root, 'dist', 'server', 'restore.js'), process.argv.slice(2));
