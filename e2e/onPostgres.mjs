import { spawn } from 'node:child_process';
import { once } from 'node:events';
import { startPostgres } from '../bin/postgres.mjs';

/** Runs a server of the product, given as the only argument, on a PostgreSQL server of its own. */
const postgres = await startPostgres({ fsync: 'off', synchronous_commit: 'off', full_page_writes: 'off' });
const server = spawn(process.execPath, [process.argv[2]], {
  stdio: 'inherit',
  env: { ...process.env, DATABASE_URL: postgres.address('postgres') },
});
for (const signal of ['SIGTERM', 'SIGINT']) process.on(signal, () => server.kill('SIGTERM'));
const [code] = await once(server, 'exit');
await postgres.stop();
process.exit(code ?? 1);
