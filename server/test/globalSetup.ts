import { createHash } from 'node:crypto';
import { existsSync, mkdirSync, readFileSync, readdirSync, renameSync, writeFileSync } from 'node:fs';
import { join } from 'node:path';
import { openDatabase, migrateUp, productFolder } from '../src/platform/index.ts';

/** Makes the cluster that every test file begins with, once for each state of the migrations: making one costs seconds. */
export default async function setup(): Promise<void> {
  const migrations = productFolder('server', 'drizzle');
  const hash = createHash('sha256');
  for (const file of readdirSync(migrations).sort())
    if (file.endsWith('.sql')) hash.update(readFileSync(join(migrations, file)));
  const folder = productFolder('node_modules', '.cache', 'hand-relay');
  const dump = join(folder, `cluster-${hash.digest('hex').slice(0, 16)}.tar`);
  process.env['CLUSTER_DUMP'] = dump;
  if (existsSync(dump)) return;
  mkdirSync(folder, { recursive: true });
  const database = await openDatabase({ folder: null });
  await migrateUp(database.db);
  writeFileSync(`${dump}.new`, (await database.dump())!);
  renameSync(`${dump}.new`, dump);
  await database.close();
}
