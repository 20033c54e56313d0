import { drizzle } from 'drizzle-orm/pglite';
import { sql } from 'drizzle-orm';
import { mkdirSync, mkdtempSync, readFileSync, rmSync, truncateSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { gunzipSync, gzipSync } from 'node:zlib';
import { PGlite as PGlite17 } from 'pglite-17';
import { pg_trgm } from 'pglite-17/contrib/pg_trgm';
import { loadScenario } from '@hand-relay/demo';
import { CannotCarry, dumpTo, loadFrom } from '../src/setup/dump/index.ts';
import { restore } from '../src/setup/backup/restore.ts';
import {
  migrateUp,
  NewerDatabase,
  openDatabase,
  OtherDatabaseVersion,
  type Database,
  type Db,
} from '../src/platform/index.ts';
import { openRelay } from '../src/index.ts';
import * as schema from '../src/tables/index.ts';
import { checkBooks } from './books.ts';
import { postgresServer } from './postgres.ts';
import { openTest, type TestRelay } from './relay.ts';
import { takeIn } from './steps.ts';

/** Lines of a dump without its head, which names the version that wrote it. */
const contents = (file: string) => gunzipSync(readFileSync(file)).toString('utf8').split('\n').slice(1);

describe('everything is carried to another database', () => {
  let folder: string;
  let file: string;
  beforeEach(() => {
    folder = mkdtempSync(join(tmpdir(), 'hand-relay-carry-'));
    file = join(folder, 'all.dump');
  });
  afterEach(() => rmSync(folder, { recursive: true, force: true }));

  /** What is loaded is what was dumped, to the last value, and works: numbers go on, the books hold. */
  async function mustBeTheSame(database: Database): Promise<void> {
    const again = join(folder, 'again.dump');
    await dumpTo(database.db, again, new Date());
    expect(contents(again)).toEqual(contents(file));
  }

  it('across a major version of the embedded database: from one of before, that this version does not open', async () => {
    const data = join(folder, 'data');
    mkdirSync(data);
    const old = await PGlite17.create(join(data, 'cluster'), { extensions: { pg_trgm } });
    const db = drizzle({ client: old as never, schema, casing: 'snake_case' }) as unknown as Db;
    await migrateUp(db);
    await loadScenario(db, new Date());
    // What a text could get wrong: nulls inside JSON, bytes, line breaks, quotes, the finest instant.
    await db.execute(
      sql`update customer_order set reference = ${'a "b"\n\tc \\ é 🐝'} where id = (select min(id) from customer_order)`,
    );
    await db.execute(sql`update site set settings = settings || '{"none": null, "deep": [1, null, "\\u2028"]}'`);
    const version = await db.execute<{ v: string }>(sql`select current_setting('server_version') as v`);
    expect(version.rows[0]!.v).toMatch(/^17/);
    const rows = await dumpTo(db, file, new Date());
    expect(rows).toBeGreaterThan(5_000);
    await old.close();
    const opened = openRelay({ database: { folder: data }, logLevel: 'silent' });
    await expect(opened).rejects.toThrow(OtherDatabaseVersion);
    await expect(opened).rejects.toThrow(/npm run dump .* npm run load/);

    const database = await openDatabase({ folder: join(folder, 'new') });
    try {
      expect(await loadFrom(file, database.db)).toBe(rows);
      await mustBeTheSame(database);
      await expect(loadFrom(file, database.db)).rejects.toThrow('holds Fennock Depot already');
    } finally {
      await database.close();
    }
    const relay = await openTest({}, { database: { folder: join(folder, 'new') }, filled: true });
    await works(relay);
  });

  it('from the embedded database to a PostgreSQL server and back', async () => {
    const from = await openDatabase({ folder: null, from: process.env['HOUSE_DUMP']! });
    await dumpTo(from.db, file, new Date());
    await from.close();
    const url = await postgresServer('carry');
    const server = await openDatabase({ url });
    await loadFrom(file, server.db);
    await mustBeTheSame(server);
    await server.close();
    await works(await openTest({}, { database: { url }, filled: true }));
  });

  async function works(relay: TestRelay): Promise<void> {
    try {
      const desk = await relay.as('maren');
      const order = await takeIn(desk, { number: 'CARRIED', lines: [['HT-001', 1]] });
      await desk.get('release', { body: { orders: [order] } });
      await checkBooks(relay, 'carried');
    } finally {
      await relay.close();
    }
  }

  it('refuses what is no dump, was cut short or comes from a newer version, and leaves the database empty', async () => {
    const from = await openDatabase({ folder: null, from: process.env['HOUSE_DUMP']! });
    await dumpTo(from.db, file, new Date());
    await from.close();
    const whole = readFileSync(file);
    const lines = gunzipSync(whole).toString('utf8').split('\n');
    // One with its tables and nothing in them is empty too.
    const database = await openDatabase({ folder: null, from: process.env['CLUSTER_DUMP']! });
    const load = () => loadFrom(file, database.db);
    try {
      await expect(loadFrom(join(folder, 'gone'), database.db)).rejects.toThrow(CannotCarry);
      for (const bytes of [Buffer.from('nothing'), gzipSync('a text'), gzipSync('{"handRelay": 0}')]) {
        writeFileSync(file, bytes);
        await expect(load()).rejects.toThrow(/is no dump/);
      }
      writeFileSync(file, whole);
      truncateSync(file, Math.floor(whole.length * 0.7));
      await expect(load()).rejects.toThrow(CannotCarry);
      for (const gone of [lines.length - 2, Math.floor(lines.length / 2)]) {
        writeFileSync(file, gzipSync(lines.filter((_, i) => i !== gone).join('\n')));
        await expect(load()).rejects.toThrow('ends too soon');
      }
      const head = { ...(JSON.parse(lines[0]!) as object), migration: 9e15, product: '9.0.0' };
      writeFileSync(file, gzipSync([JSON.stringify(head), ...lines.slice(1)].join('\n')));
      await expect(load()).rejects.toThrow(NewerDatabase);
      const { rows } = await database.db.execute(sql`select * from site`);
      expect(rows).toEqual([]);
      // After all that it takes the good one.
      writeFileSync(file, whole);
      await load();
      await mustBeTheSame(database);
    } finally {
      await database.close();
    }
  });

  it('a backup of another major version is refused in words', async () => {
    // A tar of one file, as the first block of a cluster's archive is.
    const header = Buffer.alloc(1024);
    header.write('PG_VERSION', 0);
    header.write('00000000003', 124);
    header.write('17\n', 512);
    writeFileSync(file, gzipSync(header));
    await expect(restore(file, join(folder, 'data'), new Date())).rejects.toThrow(OtherDatabaseVersion);
  });
});
