import { sql } from 'drizzle-orm';
import { once } from 'node:events';
import { createWriteStream } from 'node:fs';
import { rename } from 'node:fs/promises';
import { pipeline } from 'node:stream/promises';
import { PassThrough } from 'node:stream';
import { createGzip } from 'node:zlib';
import { productVersion, rows, type Db } from '../../platform/index.ts';
import { inTextForm, quoted, type DumpEnd, type DumpHead, type DumpTable } from './format.ts';

/** Rows that are fetched and written at a time. */
const PAGE = 500;

/**
 * Writes everything to a file that `load` reads into an empty database of any version, embedded or a server. All of it
 * is of one moment. The file appears whole or not at all.
 *
 * @returns how many rows were written
 */
export async function dumpTo(db: Db, file: string, now: Date): Promise<number> {
  const lines = new PassThrough({ highWaterMark: 1 << 20 });
  const written = pipeline(lines, createGzip({ level: 6 }), createWriteStream(`${file}.part`, { mode: 0o600 }));
  const write = async (line: unknown) => {
    if (!lines.write(`${typeof line === 'string' ? line : JSON.stringify(line)}\n`)) await once(lines, 'drain');
  };
  const count = await Promise.race([
    writeAll(db, write, now),
    // What the disk says ends the reading too.
    written.then(() => 0),
  ]);
  lines.end();
  await written;
  await rename(`${file}.part`, file);
  return count;
}

function writeAll(db: Db, write: (line: unknown) => Promise<void>, now: Date): Promise<number> {
  return db.transaction(
    async (tx) => {
      await inTextForm(tx);
      const [head] = await rows<{ database: string; migration: string }>(
        tx,
        sql`select current_setting('server_version') as database,
                   (select max(created_at)::text from drizzle.__drizzle_migrations) as migration`,
      );
      await write({
        handRelay: 1,
        product: productVersion(),
        database: head!.database,
        at: now.toISOString(),
        migration: Number(head!.migration),
      } satisfies DumpHead);
      let count = 0;
      for (const table of await tablesOf(tx)) {
        await write(table satisfies DumpTable);
        const columns = table.columns.map((c) => `${quoted(c)}::text`).join(', ');
        await tx.execute(
          sql.raw(
            `declare dump no scroll cursor for select json_build_array(${columns})::text as row from ${quoted(table.table)}`,
          ),
        );
        for (;;) {
          const page = await rows<{ row: string }>(tx, sql.raw(`fetch ${PAGE} from dump`));
          for (const { row } of page) await write(row);
          count += page.length;
          if (page.length < PAGE) break;
        }
        await tx.execute(sql`close dump`);
      }
      const end: DumpEnd = { sequences: await sequencesOf(tx), rows: count };
      await write(end);
      return count;
    },
    { isolationLevel: 'repeatable read', accessMode: 'read only' },
  );
}

type On = Parameters<typeof rows>[0];

/** Our tables with the columns that can be written. */
export const tablesOf = (on: On): Promise<DumpTable[]> =>
  rows<DumpTable>(
    on,
    sql`select c.relname as table, jsonb_agg(a.attname order by a.attnum) as columns
        from pg_class c join pg_namespace n on n.oid = c.relnamespace and n.nspname = 'public'
        join pg_attribute a on a.attrelid = c.oid and a.attnum > 0 and not a.attisdropped and a.attgenerated = ''
        where c.relkind = 'r' group by c.relname order by c.relname`,
  );

const sequencesOf = (on: On): Promise<DumpEnd['sequences']> =>
  rows<DumpEnd['sequences'][number]>(
    on,
    sql`select sequencename as name, coalesce(last_value, start_value)::text as last, last_value is not null as called
        from pg_sequences where schemaname = 'public' order by 1`,
  );
