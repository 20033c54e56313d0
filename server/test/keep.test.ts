import {
  existsSync,
  mkdirSync,
  mkdtempSync,
  readdirSync,
  readFileSync,
  rmSync,
  utimesSync,
  writeFileSync,
} from 'node:fs';
import { once } from 'node:events';
import { request } from 'node:http';
import type { AddressInfo } from 'node:net';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { gzipSync } from 'node:zlib';
import supertest from 'supertest';
import { endpoints } from '@hand-relay/contract';
import { house, loadScenario } from '@hand-relay/demo';
import { jest } from '@jest/globals';
import { pino } from 'pino';
import { Backups, writeBackup } from '../src/setup/backup/nightly.ts';
import { BadBackup, restore } from '../src/setup/backup/restore.ts';
import { FolderInUse } from '../src/platform/index.ts';
import { openRelay, type Relay } from '../src/index.ts';
import { personOf } from './relay.ts';
import { takeIn } from './steps.ts';

describe('backups', () => {
  let folder: string;
  beforeEach(() => {
    folder = mkdtempSync(join(tmpdir(), 'hand-relay-keep-'));
  });
  afterEach(() => rmSync(folder, { recursive: true, force: true }));
  const open = (data: string, from: string | null = null) =>
    openRelay({ database: { folder: data, from }, logLevel: 'silent', signInsPerMinute: 1000 });
  const signIn = async (relay: Relay, watched?: Relay) => {
    const agent = supertest.agent(relay.app);
    await agent.post('/api/session').send({ name: 'maren', password: house.PASSWORD }).expect(200);
    return { agent, desk: personOf(agent, watched) };
  };

  it('are made while others work, hold what was committed before, and are restored in place of what is there', async () => {
    const data = join(folder, 'data');
    const relay = await open(data, process.env['CLUSTER_DUMP']);
    await loadScenario(relay.platform.db, new Date());
    const { agent, desk } = await signIn(relay);
    await takeIn(desk, { number: 'BEFORE', lines: [['HT-001', 1]] });
    // Orders keep coming in while the backup is made.
    let busy = true;
    const taken: string[] = [];
    const work = (async () => {
      for (let n = 0; busy; n++) {
        await takeIn(desk, { number: `BUSY-${n}`, lines: [['HT-001', 1]] });
        taken.push(`BUSY-${n}`);
      }
    })();
    await new Promise((resolve) => setTimeout(resolve, 150));
    const known = taken.length;
    const { body, headers } = await agent.get('/api/setup/backup').responseType('blob');
    expect(headers['content-disposition']).toMatch(/hand-relay-\d{8}-\d{6}\.backup/);
    busy = false;
    await work;
    await takeIn(desk, { number: 'AFTER', lines: [['HT-001', 1]] });
    const file = join(folder, 'copy.backup');
    writeFileSync(file, body as Buffer);
    await relay.close();

    // What earlier restores put aside ends, but for the newest.
    for (const day of [1, 2, 3]) mkdirSync(join(data, `cluster-before-2026-01-0${day}T00-00-00-000Z`));
    const sscc = { site: 'larkmoor', name: 'sscc', last: 70_000 };
    const restored = await restore(file, data, new Date(), [sscc]);
    expect(readdirSync(data).filter((f) => f.startsWith('cluster-before-'))).toEqual([
      'cluster-before-2026-01-03T00-00-00-000Z',
      expect.stringContaining('cluster-before-'),
    ]);
    expect(restored).toMatchObject({ site: `Fennock Depot, ${house.site.name}` });
    expect(restored.orders).toBeGreaterThanOrEqual(261 + known);
    // What was there before is put aside, whole.
    expect(existsSync(join(restored.aside!, 'PG_VERSION'))).toBe(true);
    const again = await open(data);
    try {
      // Whoever was signed in then is not now, and numbers go on beyond what was printed since.
      const drawn = await again.platform.db.execute<{ last: number }>(
        "select last from counter where site_id = 'larkmoor' and name = 'sscc' union all select count(*) from session",
      );
      expect(drawn.rows.map((r) => r.last)).toEqual([80_000, 0]);
      const { desk: back } = await signIn(again);
      const find = async (number: string) => (await back.get('find', { query: { code: `ORDER-${number}` } })).kind;
      expect(await find('BEFORE')).toBe('order');
      for (const number of taken.slice(0, known)) expect([number, await find(number)]).toEqual([number, 'order']);
      expect(await find('AFTER')).toBe('nothing');
      // It is a database like any other: work goes on.
      await takeIn(back, { number: 'AGAIN', lines: [['HT-001', 1]] });
    } finally {
      await again.close();
    }
  });

  it('that break off on their way leave nothing on the disk', async () => {
    const relay = await open(join(folder, 'data'), process.env['HOUSE_DUMP']);
    const server = relay.app.listen(0);
    await once(server, 'listening');
    const { port } = server.address() as AddressInfo;
    const sent = () => readdirSync(tmpdir()).filter((name) => name.startsWith('hand-relay-sent-'));
    const before = new Set(sent());
    const signedIn = await fetch(`http://localhost:${port}/api/session`, {
      method: 'POST',
      headers: { 'Content-Type': 'application/json' },
      body: JSON.stringify({ name: 'maren', password: house.PASSWORD }),
    });
    const upload = request({
      port,
      method: 'POST',
      path: endpoints.previewBackup.path,
      headers: {
        Cookie: signedIn.headers
          .getSetCookie()
          .map((cookie) => cookie.split(';')[0])
          .join('; '),
        'Content-Type': 'application/octet-stream',
        'Content-Length': 1e8,
        'Idempotency-Key': 'broken-off',
      },
    });
    upload.on('error', () => {});
    upload.write(Buffer.alloc(100_000));
    const fresh = () => sent().filter((name) => !before.has(name));
    const until = async (there: boolean) => {
      for (let i = 0; i < 100 && fresh().length > 0 !== there; i++)
        await new Promise((resolve) => setTimeout(resolve, 50));
      expect(fresh().length > 0).toBe(there);
    };
    try {
      await until(true);
      upload.destroy();
      await until(false);
    } finally {
      upload.destroy();
      server.close();
      await relay.close();
    }
  });

  it('are refused when they are none, and nothing is touched', async () => {
    const data = join(folder, 'data');
    const bad = join(folder, 'bad.backup');
    for (const bytes of [Buffer.from('not at all'), gzipSync('a text'), gzipSync(Buffer.alloc(4096))]) {
      writeFileSync(bad, bytes);
      await expect(restore(bad, data, new Date())).rejects.toThrow(BadBackup);
      expect(readdirSync(data)).toEqual([]);
    }
    // A cluster without any site is somebody's mistake, not their warehouse.
    writeFileSync(bad, gzipSync(readFileSync(process.env['CLUSTER_DUMP']!)));
    await expect(restore(bad, data, new Date())).rejects.toThrow('holds no site');
    await expect(restore(join(folder, 'gone'), data, new Date())).rejects.toThrow('ENOENT');
  });

  it('are not restored under a server that runs', async () => {
    const holder = { pid: process.ppid, host: (await import('node:os')).hostname(), since: 'now' };
    writeFileSync(join(folder, 'in-use.json'), JSON.stringify(holder));
    await expect(restore(join(folder, 'any'), folder, new Date())).rejects.toThrow(FolderInUse);
  });

  it('are made at night, said to be late or failed, made up for, and kept in a second place too', async () => {
    const second = join(folder, 'second');
    let now = Date.now();
    const opened = () =>
      openRelay({
        database: {
          folder: join(folder, 'data'),
          from: existsSync(join(folder, 'data')) ? null : process.env['HOUSE_DUMP']!,
        },
        logLevel: 'silent',
        signInsPerMinute: 1000,
        clock: () => new Date(now),
        backups: { keep: 2, second },
      });
    const relay = await opened();
    const { desk } = await signIn(relay);
    expect(await desk.get('backups')).toEqual({ state: 'fresh', keep: 2, hasSecond: true, files: [], failed: null });
    now += 27 * 3_600_000;
    const { desk: next } = await signIn(relay, relay);
    expect((await next.get('backups')).state).toBe('late');
    // The second disk is not connected: the first place has it all the same, and somebody is told.
    const alone = await next.get('backUpNow');
    expect(alone).toMatchObject({ state: 'failed', failed: { place: 'second', why: 'not-there' } });
    expect(alone.files).toEqual([
      { name: expect.any(String), at: expect.any(String), bytes: expect.any(Number), second: false },
    ]);
    mkdirSync(second);
    now += 1000;
    const both = await next.get('backUpNow');
    expect(both.failed).toBeNull();
    expect(both.files.map((f) => f.second)).toEqual([true, false]);
    for (let i = 0; i < 2; i++) {
      now += 1000;
      await next.get('backUpNow');
    }
    expect(readdirSync(second).sort()).toEqual(readdirSync(join(folder, 'data', 'backups')).sort());
    expect(readdirSync(second)).toHaveLength(2);
    // The first place cannot be written.
    rmSync(join(folder, 'data', 'backups'), { recursive: true });
    writeFileSync(join(folder, 'data', 'backups'), 'in the way');
    expect(await next.get('backUpNow')).toMatchObject({ state: 'failed', failed: { place: 'first', why: 'other' } });
    await relay.close();
    const pico = await openRelay({
      database: { folder: null, from: process.env['HOUSE_DUMP']! },
      logLevel: 'silent',
      backups: { keep: 2 },
    });
    expect((await (await signIn(pico)).desk.refused('backups')).code).toBe('no-backup');
    await pico.close();
  });

  it("are made up for a minute after a start without the night's, and tried again an hour after one that failed", async () => {
    const made = join(folder, 'backups');
    const there = () => (existsSync(made) ? readdirSync(made).filter((f) => f.endsWith('.backup')).length : 0);
    // What the file system does takes its own time beside the clock of the test.
    const settled = async (done: () => boolean) => {
      const latest = performance.now() + 10_000;
      while (!done() && performance.now() < latest) await new Promise((resolve) => setImmediate(resolve));
    };
    jest.useFakeTimers({ doNotFake: ['setImmediate', 'nextTick', 'performance', 'queueMicrotask'] });
    try {
      const noon = new Date(2026, 10, 29, 12).getTime();
      jest.setSystemTime(noon);
      mkdirSync(made);
      writeFileSync(join(made, 'hand-relay-20261127-020000.backup'), 'old');
      const old = new Date(noon - 58 * 3_600_000);
      utimesSync(join(made, 'hand-relay-20261127-020000.backup'), old, old);
      let works = false;
      let asked = 0;
      const source = () => {
        asked += 1;
        return works ? Promise.resolve(new Uint8Array([1])) : Promise.reject(new Error('no memory'));
      };
      const platform = { log: pino({ level: 'silent' }), clock: () => new Date() };
      const backups = new Backups(platform as never, source, folder, { keep: 7 });
      await settled(() => jest.getTimerCount() > 0);
      await jest.advanceTimersByTimeAsync(59_000);
      expect(asked).toBe(0);
      await jest.advanceTimersByTimeAsync(1_000);
      await settled(() => jest.getTimerCount() > 0);
      expect([asked, there()]).toEqual([1, 1]);
      works = true;
      await jest.advanceTimersByTimeAsync(3_600_000);
      await settled(() => there() === 2 && jest.getTimerCount() > 0);
      expect([asked, there()]).toEqual([2, 2]);
      // Then every night at two.
      await jest.advanceTimersByTimeAsync(13 * 3_600_000 - 70_000);
      expect(asked).toBe(2);
      await jest.advanceTimersByTimeAsync(70_000);
      await settled(() => there() === 3);
      expect([asked, there()]).toEqual([3, 3]);
      backups.close();
    } finally {
      jest.useRealTimers();
    }
  });

  it('are kept as many as told, the newest', async () => {
    const source = () => Promise.resolve(new Uint8Array([1, 2, 3]));
    for (let day = 1; day <= 5; day++)
      await writeBackup(source, join(folder, 'backups'), { keep: 3 }, new Date(Date.UTC(2026, 2, day, 2)));
    expect(readdirSync(join(folder, 'backups')).sort()).toEqual([
      'hand-relay-20260303-020000.backup',
      'hand-relay-20260304-020000.backup',
      'hand-relay-20260305-020000.backup',
    ]);
  });
});
