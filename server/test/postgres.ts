import { randomUUID } from 'node:crypto';
import pg from 'pg';
import { ADDRESS, TEMPLATES } from './clusters.ts';

export { freePort } from '../../bin/postgres.mjs';

/** Databases that this file of tests made: they go with it. */
const made: string[] = [];

async function asked(statement: string): Promise<void> {
  const client = new pg.Client({ connectionString: addressOf('postgres') });
  await client.connect();
  await client.query(statement);
  await client.end();
}

afterAll(async () => {
  for (const name of made) await asked(`drop database if exists "${name}" with (force)`);
});

const addressOf = (database: string): string => process.env[ADDRESS]!.replace(/[^/]*$/, database);

/**
 * The address of a database of its own on the PostgreSQL server of the tests, which many connections can use at once.
 *
 * @param from what it begins with: nothing at all, the tables of today, or today's demo in them
 */
export async function postgresServer(name: string, from?: keyof typeof TEMPLATES): Promise<string> {
  const database = `${name}-${randomUUID().slice(0, 8)}`;
  await asked(`create database "${database}"${from ? ` template "${TEMPLATES[from]}"` : ''}`);
  made.push(database);
  return addressOf(database);
}
