import { createHash } from 'node:crypto';
import { existsSync, mkdirSync, readFileSync, readdirSync, renameSync, writeFileSync } from 'node:fs';
import { join } from 'node:path';
import pg from 'pg';
import { loadScenario } from '@hand-relay/demo';
import { startPostgres, type Postgres } from '../../bin/postgres.mjs';
import { openDatabase, migrateUp, productFolder } from '../src/platform/index.ts';
import { ADDRESS, TEMPLATES } from './clusters.ts';

/** The server that all files of tests share. */
let server: Postgres | undefined;

/**
 * Makes what test files begin with: on a PostgreSQL server and for the embedded database one with empty tables, and one
 * that holds today's demo. Making either costs seconds, a copy far less.
 */
export default async function setup(): Promise<void> {
  const day = new Date();
  process.env['HOUSE_DAY'] = day.toISOString();
  try {
    await Promise.all([serverDatabases(day), embeddedClusters(day)]);
  } catch (error) {
    // The runner ends nothing that a setup began and did not finish.
    await stopServer();
    throw error;
  }
}

/** Ends the server. */
export async function stopServer(): Promise<void> {
  await server?.stop();
}

async function serverDatabases(day: Date): Promise<void> {
  server = await startPostgres({
    fsync: 'off',
    synchronous_commit: 'off',
    full_page_writes: 'off',
    autovacuum: 'off',
    max_connections: 200,
  });
  process.env[ADDRESS] = server.address(TEMPLATES.house);
  const client = new pg.Client({ connectionString: server.address('postgres') });
  await client.connect();
  await client.query(`create database "${TEMPLATES.tables}"`);
  const tables = await openDatabase({ url: server.address(TEMPLATES.tables) });
  await migrateUp(tables.db);
  await tables.close();
  await client.query(`create database "${TEMPLATES.house}" template "${TEMPLATES.tables}"`);
  const house = await openDatabase({ url: server.address(TEMPLATES.house) });
  await loadScenario(house.db, day);
  await house.db.execute('analyze');
  await house.close();
  await client.end();
}

async function embeddedClusters(day: Date): Promise<void> {
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
  const database = await openDatabase({ folder: null, from: dump });
  await loadScenario(database.db, day);
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
