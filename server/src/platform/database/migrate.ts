import { sql } from 'drizzle-orm';
import { migrate } from 'drizzle-orm/node-postgres/migrator';
import { cpSync, mkdtempSync, readFileSync, rmSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { productFolder } from '../modules.ts';
import { OperatorError } from '../operatorError.ts';
import type { Db } from './database.ts';

/** A database written by a newer version than this one. */
export class NewerDatabase extends OperatorError {}

interface MigrationList {
  entries: { when: number; tag: string }[];
}

const folderOfMigrations = () => productFolder('server', 'drizzle');
const journalIn = (folder: string) => join(folder, 'meta', '_journal.json');
const listOf = (folder: string) => JSON.parse(readFileSync(journalIn(folder), 'utf8')) as MigrationList;

/** Number of the last migration that this version knows. */
export const newestMigration = (): number => Math.max(...listOf(folderOfMigrations()).entries.map((e) => e.when));

/**
 * Brings the schema up to this version.
 *
 * @param upTo number of the last migration that is wanted: the schema of an earlier version
 * @throws NewerDatabase when the database holds migrations that this version does not know; nothing is changed
 */
export async function migrateUp(db: Db, upTo = Infinity): Promise<void> {
  const newest = newestMigration();
  const there = await db.execute<{ found: boolean }>(
    sql`select to_regclass('drizzle.__drizzle_migrations') is not null as found`,
  );
  if (there.rows[0]?.found) {
    const last = await db.execute<{ last: string | null }>(
      sql`select max(created_at)::text as last from drizzle.__drizzle_migrations`,
    );
    if (Number(last.rows[0]?.last ?? 0) > newest)
      throw new NewerDatabase(
        'This database was written by a newer version of Hand Relay. Start that version, or restore a backup made with this one. Nothing was changed.',
      );
  }
  if (upTo >= newest) return migrate(db, { migrationsFolder: folderOfMigrations() });
  const part = mkdtempSync(join(tmpdir(), 'hand-relay-migrations-'));
  try {
    cpSync(folderOfMigrations(), part, { recursive: true });
    const list = listOf(part);
    writeFileSync(journalIn(part), JSON.stringify({ ...list, entries: list.entries.filter((e) => e.when <= upTo) }));
    await migrate(db, { migrationsFolder: part });
  } finally {
    rmSync(part, { recursive: true, force: true });
  }
}
