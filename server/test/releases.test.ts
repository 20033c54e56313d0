import { spawnSync } from 'node:child_process';
import { mkdirSync, mkdtempSync, readdirSync, readFileSync, rmSync, statSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { brotliDecompressSync, gzipSync } from 'node:zlib';
import { sql } from 'drizzle-orm';
import supertest from 'supertest';
import { house } from '@hand-relay/demo';
import { restore } from '../src/setup/backup/restore.ts';
import { productFolder } from '../src/platform/index.ts';
import { openRelay, type Relay } from '../src/index.ts';
import { checkBooks } from './books.ts';
import { personOf } from './relay.ts';

/** What a picker's device of that release had saved offline, as far as the server sees it. */
interface LeftBehind {
  at: string;
  run: string;
  badge: string;
  entries: { seq: number; key: string; verdict: string | null; ask: { name: string; id: string; body?: object } }[];
}

const releases = productFolder('releases');

describe.each(readdirSync(releases).filter((name) => statSync(join(releases, name)).isDirectory()))(
  'release %s',
  (release) => {
    let folder: string;
    beforeEach(() => {
      folder = mkdtempSync(join(tmpdir(), 'hand-relay-release-'));
    });
    afterEach(() => rmSync(folder, { recursive: true, force: true }));
    const file = (name: string) => readFileSync(join(releases, release, name));
    const left = JSON.parse(file('outbox.json').toString('utf8')) as LeftBehind;
    const clusterTar = () => brotliDecompressSync(file('cluster.tar.br'));
    const open = (data: string) =>
      openRelay({ database: { folder: data }, logLevel: 'silent', clock: () => new Date(left.at), checkAnswers: true });
    const signIn = async (relay: Relay, body: object) => {
      const { headers } = await supertest(relay.app).post('/api/session').send(body).expect(200);
      // Sent by hand: a jar would drop what by the clock of this machine, not of the release, is over.
      const cookies = (headers['set-cookie'] as unknown as string[]).map((c) => c.split(';')[0]);
      return personOf(supertest.agent(relay.app).set('cookie', cookies.join('; ')));
    };

    it('left a data folder that this version opens, and a device whose unsent scans it takes, each once', async () => {
      const cluster = join(folder, 'cluster');
      mkdirSync(cluster);
      const unpacked = spawnSync('tar', ['-x', '-C', cluster], { input: clusterTar() });
      expect(unpacked.status).toBe(0);
      const relay = await open(folder);
      try {
        await supertest(relay.app).get('/ready').expect(200);
        const desk = await signIn(relay, { name: 'maren', password: house.PASSWORD });
        expect((await desk.get('orders')).rows.length).toBeGreaterThan(200);
        // How its sites work went along under its new name: the depot's own choice, and not the default.
        const sites = await relay.platform.db.execute(
          `select settings->'work'->>'reserve' as reserve, settings ? 'way' as old from site order by id`,
        );
        expect(sites.rows).toContainEqual({ reserve: 'intake', old: false });
        expect(sites.rows.every((row) => row['old'] === false)).toBe(true);
        const picker = await signIn(relay, { badge: left.badge, pin: house.PIN });
        const before = await desk.get('run', { id: left.run });
        expect(before.run.state).toBe('picking');
        expect(before.picks.some((p) => p.state === 'open')).toBe(true);
        const calls = left.entries.map(({ ask: { name, id, body = {} }, key, seq }) => ({
          name,
          id,
          key,
          ago: Math.max(0, Math.round(Date.parse(left.at) - seq / 1000)),
          body,
        }));
        for (let times = 0; times < 2; times++) {
          const { answers } = await picker.get('sendOutbox', { body: { calls } });
          const verdicts = answers.map((a) =>
            'data' in a ? ((a.data as { verdict?: string }).verdict ?? null) : a.error,
          );
          expect(verdicts).toEqual(left.entries.map((e) => e.verdict));
        }
        const after = await desk.get('run', { id: left.run });
        expect(after.run.state).toBe('left');
        expect(after.picks.map((p) => p.picked)).toEqual(before.picks.map((p) => p.step.units));
        const query = async <T>(text: string) => (await relay.platform.db.execute(sql.raw(text))).rows as T[];
        await checkBooks({ query }, release);
      } finally {
        await relay.close();
      }
    });

    it('left a backup that this version restores', async () => {
      const backup = join(folder, 'left.backup');
      writeFileSync(backup, gzipSync(clusterTar()));
      const restored = await restore(backup, join(folder, 'data'), new Date());
      expect(restored).toMatchObject({ site: 'Fennock Depot, Larkmoor Apiary Supply', orders: expect.any(Number) });
      const relay = await open(join(folder, 'data'));
      await signIn(relay, { name: 'maren', password: house.PASSWORD });
      await relay.close();
    });
  },
);
