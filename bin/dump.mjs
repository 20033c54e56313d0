import { join } from 'node:path';
import { build } from './build.mjs';
import { become, root } from './lib.mjs';

/** Writes everything of a database as text that every later version reads. */
await build();
become(join(root, 'dist', 'server', 'carry.js'), ['dump', ...process.argv.slice(2)]);
