import { spawn, type ChildProcess } from 'node:child_process';
import { cpSync, existsSync, mkdtempSync, readFileSync, rmSync, statSync, utimesSync, writeFileSync } from 'node:fs';
import { pathToFileURL } from 'node:url';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { sql } from 'drizzle-orm';
import { migrate } from 'drizzle-orm/node-postgres/migrator';
import {
  FolderInUse,
  lockFolder,
  migrateUp,
  NewerDatabase,
  openDatabase,
  productFolder,
} from '../src/platform/index.ts';
import { house } from '@hand-relay/demo';
import { firstRoleNames, type RunDetail } from '@hand-relay/contract';

/** A process that takes the lock of a folder, says whether it has it, and stays. */
function holder(folder: string): ChildProcess {
  const lock = pathToFileURL(productFolder('server', 'src', 'platform', 'database', 'lock.ts')).href;
  const program = `
    const { lockFolder } = await import(${JSON.stringify(lock)});
    await lockFolder(${JSON.stringify(folder)}, new Date()).then(
      () => console.log('held'), (error) => console.log(error.constructor.name));
    setInterval(() => {}, 1000);`;
  return spawn(process.execPath, ['--import', 'tsx', '--input-type=module', '-e', program], {
    cwd: productFolder(),
    env: { ...process.env, NODE_OPTIONS: '' },
    stdio: ['ignore', 'pipe', 'inherit'],
  });
}
const said = (process: ChildProcess) =>
  new Promise<string>((resolve) => process.stdout!.once('data', (data: Buffer) => resolve(String(data).trim())));
async function held(folder: string): Promise<ChildProcess> {
  const process = holder(folder);
  await said(process);
  return process;
}
function killed(process: ChildProcess): Promise<unknown> {
  const gone = new Promise((resolve) => process.once('exit', resolve));
  process.kill('SIGKILL');
  return gone;
}

describe('the database', () => {
  let folder: string;
  beforeEach(() => {
    folder = mkdtempSync(join(tmpdir(), 'hand-relay-'));
  });
  afterEach(() => rmSync(folder, { recursive: true, force: true }));

  it('keeps a data folder to one process, and says who has it', async () => {
    const data = join(folder, 'data');
    const lock = await lockFolder(data, new Date());
    expect(statSync(data).mode & 0o777).toBe(0o700);
    await expect(lockFolder(data, new Date())).rejects.toThrow(`process ${process.pid}`);
    await lock.release();
    const other = holder(data);
    expect(await said(other)).toBe('held');
    const refused = lockFolder(data, new Date());
    await expect(refused).rejects.toThrow(FolderInUse);
    await expect(refused).rejects.toThrow(`process ${other.pid} on`);
    await expect(refused).rejects.toThrow(join(data, 'in-use.json'));
    await killed(other);
    await (await lockFolder(data, new Date())).release();
  });

  it('gives a folder whose holder was killed to exactly one of those that start at once', async () => {
    await killed(await held(folder));
    const starters = Array.from({ length: 6 }, () => holder(folder));
    const answers = await Promise.all(starters.map(said));
    expect(answers.filter((a) => a === 'held')).toHaveLength(1);
    expect(answers.filter((a) => a === 'FolderInUse')).toHaveLength(5);
    await Promise.all(starters.map(killed));
  });

  it('takes a lock of another start of this machine or of another machine only when nobody shows life', async () => {
    const file = join(folder, 'in-use.json');
    const left = { id: 'x', pid: process.ppid, host: 'elsewhere', since: 'yesterday', machine: 'of another start' };
    writeFileSync(file, JSON.stringify(left));
    // Shown to live a moment ago, elsewhere: it may well.
    await expect(lockFolder(folder, new Date())).rejects.toThrow(`process ${process.ppid} on elsewhere`);
    // After a power cut the process id is somebody else's, the host may have a new name, and nobody shows life.
    const long = new Date(Date.now() - 3_600_000);
    utimesSync(file, long, long);
    await (await lockFolder(folder, new Date())).release();
    expect(existsSync(file)).toBe(false);
  });

  it('of a newer version is refused and left alone', async () => {
    const database = await openDatabase({ folder: null, from: process.env['CLUSTER_DUMP']! });
    await database.db.execute(
      sql`insert into drizzle.__drizzle_migrations (hash, created_at) values ('of tomorrow', 9999999999999)`,
    );
    await expect(migrateUp(database.db)).rejects.toThrow(NewerDatabase);
    await database.close();
  });

  it('holds no result for longer than it is asked for', async () => {
    const database = await openDatabase({ folder: null, from: process.env['CLUSTER_DUMP']! });
    const read = async (times: number) => {
      for (let i = 0; i < times; i++)
        await database.db.execute(sql`select n, repeat('x', 40) as text from generate_series(1, 300) n`);
    };
    await read(100);
    const before = (await database.heap())!;
    await read(1500);
    // Kept copies of these results are some 90 MB.
    expect((await database.heap())! - before).toBeLessThan(8_000_000);
    await database.close();
  });

  it('forbids what must not be, whatever code asks for it', async () => {
    const database = await openDatabase({ folder: null, from: process.env['CLUSTER_DUMP']! });
    const { db } = database;
    const run = async (statement: string) => db.execute(sql.raw(statement));
    const constraint = (statement: string) =>
      run(statement).then(
        () => 'taken',
        (e: { cause: { constraint?: string; message: string } }) => e.cause.constraint ?? e.cause.message,
      );
    await run(
      `insert into site (id, code, name, street, city, time_zone, currency, gs1_prefix, floor, start) values ('s', 's', 's', 's', 's', 'UTC', 'EUR', '9521234', '{}', '{}')`,
    );
    await run(
      `insert into place (id, site_id, kind, code) values ('out', 's', 'outside', 'out'), ('a', 's', 'bin', 'a'), ('b', 's', 'bin', 'b')`,
    );
    await run(
      `insert into item (id, sku, name, unit, length_mm, width_mm, height_mm, weight_g, handling, temperature, tracks_lot, tracks_serial, value_minor, picture) values ('i', 'i', 'i', 'piece', 1, 1, 1, 1, 'easy', 'ambient', false, false, 1, '')`,
    );
    const move = (from: string, to: string, units: number, serial = '') =>
      constraint(
        `insert into movement (at, site_id, from_place, to_place, item_id, serial, units, reason) values (now(), 's', '${from}', '${to}', 'i', '${serial}', ${units}, 'test')`,
      );
    expect(await move('out', 'a', 5)).toBe('taken');
    expect(await move('a', 'b', 6)).toBe('balance_not_negative');
    expect(await move('b', 'a', 1)).toBe('balance_not_negative');
    expect(await move('a', 'a', 1)).toBe('movement_goes_somewhere');
    expect(await move('out', 'a', 1, 'S1')).toBe('taken');
    expect(await move('out', 'b', 1, 'S1')).toBe('balance_serial_once');
    expect(await move('a', 'b', 1, 'S1')).toBe('taken');
    expect(await constraint(`update movement set units = 1`)).toContain('only added to');
    expect(await constraint(`update stock_total set reserved = 7`)).toBe('stock_reserved_within');
    await database.close();
  });

  it('takes over what an earlier version wrote: roles, sessions and promises as they were', async () => {
    const earlier = mkdtempSync(join(tmpdir(), 'hand-relay-earlier-'));
    cpSync(productFolder('server', 'drizzle'), earlier, { recursive: true });
    const file = join(earlier, 'meta', '_journal.json');
    const list = JSON.parse(readFileSync(file, 'utf8')) as { entries: { tag: string }[] };
    writeFileSync(file, JSON.stringify({ ...list, entries: list.entries.filter((e) => e.tag < '0004') }));
    const database = await openDatabase({ folder: null });
    const run = (statement: string) => database.db.execute(sql.raw(statement));
    try {
      await migrate(database.db, { migrationsFolder: earlier });
      await run(
        `insert into site (id, code, name, street, city, time_zone, currency, gs1_prefix, floor, start) values ('s', 's', 's', 's', 's', 'UTC', 'EUR', '9521234', '{}', '{}')`,
      );
      await run(
        `insert into person (id, site_id, name, roles, active) values ('p', 's', 'P', '{picker,loader}', true), ('q', 's', 'Q', '{supervisor}', false)`,
      );
      await run(
        `insert into session (id, person_id, device, created_at, expires_at) values ('x', 'p', 'd', now(), now() + '1 h')`,
      );
      await run(
        `insert into item (id, sku, name, unit, length_mm, width_mm, height_mm, weight_g, handling, temperature, tracks_lot, tracks_serial, value_minor, picture) values ('i', 'i', 'i', 'piece', 1, 1, 1, 1, 'easy', 'ambient', false, false, 1, '')`,
      );
      await run(
        `insert into place (id, site_id, kind, code) values ('out', 's', 'outside', 'out'), ('a', 's', 'bin', 'a')`,
      );
      await run(
        `insert into movement (at, site_id, from_place, to_place, item_id, units, reason) values (now(), 's', 'out', 'a', 'i', 9, 'test')`,
      );
      await run(
        `insert into customer (id, number, name, class, street, postcode, city, country) values ('c', 'c', 'C', 'A', '', '', '', '')`,
      );
      await run(
        `insert into customer_order (id, site_id, number, channel, customer_id, reference, due, priority, ship_complete, ship_name, ship_street, ship_postcode, ship_city, ship_country, note, document, created_at) values ('o', 's', 'O', 'web', 'c', '', '2026-01-01', 5, false, '', '', '', '', '', '', '', now())`,
      );
      await run(
        `insert into order_line (id, order_id, line, item_id, quantity, pack, note, asked, released) values ('l', 'o', 1, 'i', 4, 'unit', '', 4, 4)`,
      );
      await run(
        `insert into wave (id, site_id, number, state, created_at, created_by) values ('w', 's', 1, 'gathering', now(), 'p')`,
      );
      await run(
        `insert into reservation (wave_id, line_id, site_id, item_id, lot, units) values ('w', 'l', 's', 'i', '', 4)`,
      );

      await migrateUp(database.db);

      const all = async (statement: string) => (await run(statement)).rows;
      expect(await all('select person_id, site_id, roles, active from membership order by 1')).toEqual([
        { person_id: 'p', site_id: 's', roles: ['picker', 'loader'], active: true },
        { person_id: 'q', site_id: 's', roles: ['supervisor'], active: false },
      ]);
      expect(await all('select site_id from session')).toEqual([{ site_id: 's' }]);
      expect(await all(`select rights from role where name = 'loader'`)).toEqual([{ rights: ['shipments.confirm'] }]);
      expect(await all(`select name from role order by 1`)).toHaveLength(firstRoleNames.length);
      // Promised then is promised still, and counts once.
      expect(await all('select units, hard_allocated from reservation')).toEqual([{ units: 4, hard_allocated: 4 }]);
      expect(await all('select on_hand, reserved from stock_total')).toEqual([{ on_hand: 9, reserved: 4 }]);
      await run('update reservation set units = 3, hard_allocated = 3');
      expect(await all('select reserved from stock_total')).toEqual([{ reserved: 3 }]);
    } finally {
      await database.close();
      rmSync(earlier, { recursive: true, force: true });
    }
  });

  describe('killed in the middle of a stream of scans', () => {
    const port = 4871;
    const base = `http://localhost:${port}`;
    let server: ChildProcess | undefined;
    const start = async () => {
      server = spawn(process.execPath, ['--import', 'tsx', 'demo/src/start.ts'], {
        cwd: productFolder(),
        env: {
          ...process.env,
          DATA_DIR: folder,
          PORT: String(port),
          LOG_LEVEL: 'silent',
          DEMO_SHIFT: 'off',
          NODE_OPTIONS: '',
        },
        stdio: 'ignore',
      });
      for (let i = 0; i < 600; i++) {
        if (
          await fetch(`${base}/ready`).then(
            (r) => r.ok,
            () => false,
          )
        )
          return;
        await new Promise((resolve) => setTimeout(resolve, 100));
      }
      throw new Error('The server did not start.');
    };
    afterEach(() => server?.kill('SIGKILL'));
    let cookie = '';
    const call = async <T>(method: string, path: string, body?: object, key = `k${Math.random()}`): Promise<T> => {
      const response = await fetch(base + path, {
        method,
        headers: { 'content-type': 'application/json', 'idempotency-key': key, cookie },
        ...(body ? { body: JSON.stringify(body) } : {}),
      });
      const set = response.headers.get('set-cookie');
      if (set) cookie = set.split(';')[0]!;
      if (!response.ok) throw new Error(`${path}: ${response.status} ${await response.text()}`);
      return (await response.json()) as T;
    };

    it('has every acknowledged scan after a restart, once', async () => {
      await start();
      await call('POST', '/api/session', { name: 'maren', password: house.PASSWORD });
      const { rows } = await call<{ rows: string[][] }>('GET', '/api/orders');
      const { wave } = await call<{ wave: string }>('POST', '/api/waves', {
        orders: rows.slice(0, 10).map((r) => r[0]),
      });
      await call('POST', `/api/waves/${wave}/plan`, {});
      await call('POST', `/api/waves/${wave}/start`, {});
      await call('POST', '/api/session', { badge: 'BADGE-2001', pin: house.PIN });
      const { waiting } = await call<{ waiting: { id: string }[] }>('GET', '/api/runs');
      const run = waiting[0]!.id;
      const detail = await call<RunDetail>('POST', `/api/runs/${run}/take`, { cart: 'CART-01' });
      const picks = detail.picks.filter((p) => !p.step.item.tracksSerial);
      const acknowledged: string[] = [];
      const sent: { path: string; body: object; key: string; pick: string }[] = [];
      try {
        for (const pick of picks) {
          const inputs = [
            { kind: 'touch', what: 'bin' },
            { kind: 'count', units: pick.step.units },
            ...(pick.step.lot ? [{ kind: 'touch', what: 'lot' }] : []),
            { kind: 'touch', what: 'position' },
          ];
          for (const input of inputs) {
            const one = {
              path: `/api/runs/${run}/inputs`,
              body: { pick: pick.step.id, input },
              key: `scan-${sent.length}`,
              pick: pick.step.id,
            };
            sent.push(one);
            // In the middle of the stream, while a scan is on its way.
            if (sent.length === picks.length) setTimeout(() => server!.kill('SIGKILL'), 5);
            const { verdict } = await call<{ verdict: string }>('POST', one.path, one.body, one.key);
            if (verdict === 'done') acknowledged.push(pick.step.id);
          }
        }
        throw new Error('All was sent before the server was killed.');
      } catch (error) {
        if ((error as Error).name !== 'TypeError') throw error;
      }
      expect(acknowledged.length).toBeGreaterThan(0);
      await new Promise((resolve) => setTimeout(resolve, 200));
      await start();
      const kept = await call<RunDetail>('GET', `/api/runs/${run}`);
      for (const id of acknowledged) expect(kept.picks.find((p) => p.step.id === id)).toMatchObject({ state: 'done' });
      // The device does not know about its last scan: it sends it again with its key, and it counts once.
      const last = sent.at(-1)!;
      await call('POST', last.path, last.body, last.key);
      await call('POST', last.path, last.body, last.key);
      const again = await call<RunDetail>('GET', `/api/runs/${run}`);
      const done = again.picks.filter((p) => p.state === 'done').map((p) => p.step.id);
      expect(new Set([...acknowledged, last.pick]).size).toBeGreaterThanOrEqual(done.length);
      for (const p of again.picks) expect(p.picked).toBe(p.state === 'done' ? p.step.units : 0);
      server!.kill('SIGTERM');
      expect(await new Promise((resolve) => server!.on('exit', resolve))).toBe(0);
    }, 120_000);
  });
});
