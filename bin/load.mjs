import { join } from 'node:path';
import { build } from './build.mjs';
import { become, root } from './lib.mjs';

/** Loads a dump into an empty database, embedded or a PostgreSQL server. */
await build();
become(join(root, 'dist', 'server', 'carry.js'), ['load', ...process.argv.slice(2)]);
