import { createHash } from 'node:crypto';
import { existsSync, mkdirSync, readFileSync, readdirSync, renameSync, writeFileSync } from 'node:fs';
import { join } from 'node:path';
import { loadScenario } from '@hand-relay/demo';
import { openDatabase, migrateUp, productFolder } from '../src/platform/index.ts';

/**
 * Makes the clusters that test files begin with: an empty one, once for each state of the migrations, and one that
 * holds today's demo. Making either costs seconds, a copy far less.
 */
export default async function setup(): Promise<void> {
  const migrations = productFolder('server', 'drizzle');
  const hash = createHash('sha256');
  for (const file of readdirSync(migrations).sort())
    if (file.endsWith('.sql')) hash.update(readFileSync(join(migrations, file)));
  const folder = productFolder('node_modules', '.cache', 'hand-relay');
  const dump = join(folder, `cluster-${hash.digest('hex').slice(0, 16)}.tar`);
  process.env['CLUSTER_DUMP'] = dump;
  mkdirSync(folder, { recursive: true });
  if (!existsSync(dump)) await makeCluster(dump);
  const house = join(folder, 'house.tar');
  process.env['HOUSE_DUMP'] = house;
  process.env['HOUSE_DAY'] = new Date().toISOString();
  const database = await openDatabase({ folder: null, from: dump });
  await loadScenario(database.db, new Date(process.env['HOUSE_DAY']));
  writeFileSync(house, (await database.dump())!);
  await database.close();
}

async function makeCluster(dump: string): Promise<void> {
  const database = await openDatabase({ folder: null });
  await migrateUp(database.db);
  writeFileSync(`${dump}.new`, (await database.dump())!);
  renameSync(`${dump}.new`, dump);
  await database.close();
}
