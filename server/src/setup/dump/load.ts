import { sql } from 'drizzle-orm';
import { createReadStream } from 'node:fs';
import { createInterface } from 'node:readline';
import { pipeline } from 'node:stream';
import { createGunzip } from 'node:zlib';
import { migrateUp, NewerDatabase, newestMigration, rows, type Db, type Tx } from '../../platform/index.ts';
import { tablesOf } from './dump.ts';
import { CannotCarry, inTextForm, quoted, type DumpEnd, type DumpHead, type DumpTable } from './format.ts';

/** Rows, and characters, that are written by one statement. */
const MOST_ROWS = 500;
const MOST_CHARACTERS = 4_000_000;

/**
 * Reads a dump into an empty database: first the schema as it was when the dump was written, then every row, then what
 * the schema has learned since. All of it or, after an error, nothing.
 *
 * @returns how many rows were read
 * @throws CannotCarry when the file is no dump or was cut short, or the database holds a site already
 * @throws NewerDatabase when a newer version wrote it
 */
export async function loadFrom(file: string, db: Db): Promise<number> {
  const lines = linesOf(file);
  try {
    return await loadLines(lines, file, db);
  } finally {
    await lines.return(undefined);
  }
}

async function loadLines(lines: AsyncGenerator<string, undefined>, file: string, db: Db): Promise<number> {
  const head = headOf((await lines.next()).value, file);
  if (head.migration > newestMigration())
    throw new NewerDatabase(
      `${file} was written by a newer version of Hand Relay (${head.product}). Load it with that version. Nothing was changed.`,
    );
  await mustBeEmpty(db);
  await migrateUp(db, head.migration);
  const count = await db.transaction((tx) => readAll(tx, lines, file));
  await migrateUp(db);
  return count;
}

async function mustBeEmpty(db: Db): Promise<void> {
  const [there] = await rows<{ found: boolean }>(db, sql`select to_regclass('public.site') is not null as found`);
  if (!there?.found) return;
  const [site] = await rows<{ name: string }>(db, sql`select name from site order by name limit 1`);
  if (site) throw new CannotCarry(`The database holds ${site.name} already. Load into an empty one.`);
}

async function* linesOf(file: string): AsyncGenerator<string, undefined> {
  const packed = createReadStream(file);
  const plain = createGunzip();
  // The reader hears of a fault when it asks for the next line.
  pipeline(packed, plain, () => undefined);
  try {
    for await (const line of createInterface({ input: plain, crlfDelay: Infinity })) yield line;
    const fault = plain.errored ?? packed.errored;
    if (fault) throw fault;
  } catch (error) {
    if ((error as NodeJS.ErrnoException).code === 'ENOENT') throw new CannotCarry(`There is no file ${file}.`);
    throw new CannotCarry(`${file} is no dump of Hand Relay, or is damaged: ${(error as Error).message}.`);
  }
  return undefined;
}

function parsed(line: string | undefined, file: string): unknown {
  try {
    return JSON.parse(line ?? '');
  } catch {
    throw new CannotCarry(`${file} is no dump of Hand Relay, or is damaged.`);
  }
}

function headOf(line: string | undefined, file: string): DumpHead {
  const head = parsed(line, file) as Partial<DumpHead> | null;
  if (head?.handRelay !== 1 || typeof head.migration !== 'number')
    throw new CannotCarry(
      Number(head?.handRelay) > 1
        ? `${file} was written by a newer version of Hand Relay. Load it with that version.`
        : `${file} is no dump of Hand Relay.`,
    );
  return head as DumpHead;
}

async function readAll(tx: Tx, lines: AsyncGenerator<string, undefined>, file: string): Promise<number> {
  await inTextForm(tx);
  // Rows come as they were: no trigger counts them again, and no order among tables is needed.
  await tx
    .execute(sql`set local session_replication_role = 'replica'`)
    .catch((error: { cause?: { code?: string } }) => {
      if (error.cause?.code !== '42501') throw error;
      throw new CannotCarry(
        'The load needs a database role that may set session_replication_role, as a superuser may.',
      );
    });
  const there = new Map((await tablesOf(tx)).map((t) => [t.table, new Set(t.columns)]));
  await tx.execute(sql.raw(`truncate ${[...there.keys()].map(quoted).join(', ')}`));
  let [count, waiting, characters] = [0, [] as string[], 0];
  let table: DumpTable | undefined;
  const flush = async () => {
    if (table && waiting.length > 0) await insert(tx, table, waiting);
    [waiting, characters] = [[], 0];
  };
  for await (const line of lines) {
    if (line.startsWith('[')) {
      waiting.push(line);
      characters += line.length;
      count += 1;
      if (waiting.length >= MOST_ROWS || characters > MOST_CHARACTERS) await flush();
      continue;
    }
    await flush();
    const next = parsed(line, file) as DumpTable | DumpEnd;
    if ('table' in next) {
      const known = there.get(next.table);
      if (!known || next.columns.some((c) => !known.has(c)))
        throw new CannotCarry(`${file} holds a table ${next.table} that this version does not know.`);
      table = next;
      continue;
    }
    if (next.rows !== count) break;
    for (const { name, last, called } of next.sequences)
      await tx.execute(sql`select setval(${`public.${quoted(name)}`}::regclass, ${last}::bigint, ${called})`);
    return count;
  }
  throw new CannotCarry(`${file} ends too soon: it was cut short or is damaged.`);
}

async function insert(tx: Tx, { table, columns }: DumpTable, lines: readonly string[]): Promise<void> {
  const types = await rows<{ name: string; type: string }>(
    tx,
    sql`select attname as name, format_type(atttypid, atttypmod) as type from pg_attribute
        where attrelid = ${quoted(table)}::regclass and attnum > 0 and not attisdropped`,
  );
  const typeOf = new Map(types.map((t) => [t.name, t.type]));
  const values = columns.map((c, i) => `(r.row->>${i})::${typeOf.get(c)!}`).join(', ');
  await tx.execute(
    sql`${sql.raw(`insert into ${quoted(table)} (${columns.map(quoted).join(', ')}) overriding system value select ${values}`)}
        from jsonb_array_elements(${`[${lines.join(',')}]`}::jsonb) r(row)`,
  );
}
