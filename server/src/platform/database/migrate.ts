import { sql } from 'drizzle-orm';
import { migrate } from 'drizzle-orm/node-postgres/migrator';
import { readFileSync } from 'node:fs';
import { join } from 'node:path';
import { productFolder } from '../modules.ts';
import type { Db } from './connect.ts';

/** A database written by a newer version than this one. */
export class NewerDatabase extends Error {}

interface MigrationList {
  entries: { when: number; tag: string }[];
}

/**
 * Brings the schema up to this version.
 *
 * @throws NewerDatabase when the database holds migrations that this version does not know; nothing is changed
 */
export async function migrateUp(db: Db): Promise<void> {
  const migrationsFolder = productFolder('server', 'drizzle');
  const list = JSON.parse(readFileSync(join(migrationsFolder, 'meta', '_journal.json'), 'utf8')) as MigrationList;
  const newest = Math.max(...list.entries.map((e) => e.when));
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
  await migrate(db, { migrationsFolder });
}
