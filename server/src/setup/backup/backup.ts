import { promisify } from 'node:util';
import { gzip } from 'node:zlib';
import type { Database } from '../../platform/index.ts';

const gzipped = promisify(gzip);

/**
 * Everything as one file: the embedded cluster between two statements, so that what was committed is in it and
 * nothing else. Null where a PostgreSQL server keeps the data.
 */
export async function backupOf(database: Database): Promise<Uint8Array | null> {
  const cluster = await database.dump();
  return cluster && gzipped(cluster, { level: 6 });
}

/** A name that sorts by time: hand-relay-20261125-020000.backup. */
export function backupName(at: Date): string {
  const digits = at.toISOString().replace(/[-:]/g, '').slice(0, 15).replace('T', '-');
  return `hand-relay-${digits}.backup`;
}
