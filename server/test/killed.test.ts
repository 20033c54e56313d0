import { spawn, type ChildProcess } from 'node:child_process';
import { once } from 'node:events';
import { randomUUID } from 'node:crypto';
import type { RunDetail } from '@hand-relay/contract';
import { house } from '@hand-relay/demo';
import { productFolder } from '../src/index.ts';
import { checkBooks } from './books.ts';
import { freePort, postgresServer } from './postgres.ts';
import { openTest, type Person, type TestRelay } from './relay.ts';
import { startWave } from './steps.ts';

/** A server in a process of its own, spoken to as an app does, that can be killed. */
interface Process {
  kill(): Promise<void>;
  /** Signs in and answers with a sender of changes. */
  as(body: object): Promise<(path: string, body: object, key?: string) => Promise<unknown>>;
}

async function startProcess(url: string): Promise<Process> {
  const port = await freePort();
  const child: ChildProcess = spawn(process.execPath, ['--import', 'tsx', productFolder('server', 'src', 'start.ts')], {
    cwd: productFolder(),
    env: { ...process.env, DATABASE_URL: url, PORT: String(port), LOG_LEVEL: 'error', BACKUPS: '0', NODE_OPTIONS: '' },
    stdio: ['ignore', 'pipe', 'inherit'],
  });
  await once(child.stdout!, 'data');
  const address = `http://localhost:${port}`;
  return {
    async kill() {
      const gone = once(child, 'exit');
      child.kill('SIGKILL');
      await gone;
    },
    async as(body) {
      const post = (path: string, sent: object, headers: Record<string, string>) =>
        fetch(address + path, {
          method: 'POST',
          headers: { 'Content-Type': 'application/json', ...headers },
          body: JSON.stringify(sent),
        });
      const response = await post('/api/session', body, {});
      const cookie = response.headers.get('set-cookie')!.split(';')[0]!;
      return async (path, sent, key = randomUUID()) => {
        const answered = await post(path, sent, { cookie, 'Idempotency-Key': key });
        return (await answered.json()) as unknown;
      };
    },
  };
}

const maren = { name: 'maren', password: house.PASSWORD };

describe('a server that is killed', () => {
  let relay: TestRelay;
  let desk: Person;
  let url: string;
  beforeAll(async () => {
    url = await postgresServer('killed');
    relay = await openTest({ size: 2 }, { database: { url }, filled: false });
    desk = await relay.as('maren');
  });
  afterAll(() => relay.close());

  /** Nobody waits for a lease in a test: a dead server's is over. */
  const goOn = async () => {
    await relay.query(`update job set lease = now() where state = 'running'`);
    await relay.platform.jobs.wake();
  };
  const until = async (is: () => Promise<boolean>) => {
    for (let tries = 0; !(await is()); tries++) {
      if (tries > 400) throw new Error('It did not come to that.');
      await new Promise((resolve) => setTimeout(resolve, 25));
    }
  };
  const jobs = (kind: string) =>
    relay.query<{ id: string; state: string; done: number; all: number }>(
      `select id, state, done, "all" from job where kind = '${kind}' order by at desc`,
    );

  it('in the middle of a plan leaves it to another, and the wave is planned once', async () => {
    const open = await relay.query<{ id: string }>(
      `select id from customer_order where site_id = 'larkmoor' and status = 'open' order by number limit 120`,
    );
    const { wave } = await desk.get('release', { body: { orders: open.map((o) => o.id) } });
    const dying = await startProcess(url);
    const ask = await dying.as(maren);
    void ask(`/api/waves/${wave}/plan`, {}).catch(() => undefined);
    await until(async () => (await jobs('plan-wave'))[0]?.state === 'running');
    await dying.kill();
    expect((await desk.get('wave', { id: wave })).wave).toMatchObject({ state: 'gathering' });
    expect((await desk.refused('planWave', { id: wave })).code).toBe('plan-running');
    await goOn();
    const [job] = await jobs('plan-wave');
    await relay.platform.jobs.over('larkmoor', job!.id);
    const planned = await desk.get('wave', { id: wave });
    expect(planned.wave).toMatchObject({ state: 'planned', planProgress: null });
    const [units] = await relay.query<{ picks: number; reserved: number }>(
      `select (select sum(k.units)::int from pick k join run r on r.id = k.run_id where r.wave_id = '${wave}') as picks,
              (select sum(units)::int from reservation where wave_id = '${wave}') as reserved`,
    );
    expect(units!.picks).toBe(units!.reserved);
    await checkBooks(relay, 'a plan of two servers');
  });

  it('again and again in the middle of one job: the job has failed, and the next servers live', async () => {
    const { wave } = await desk.get('release', {
      body: {
        orders: (
          await relay.query<{ id: string }>(
            `select o.id from customer_order o join order_line l on l.order_id = o.id
             where o.site_id = 'larkmoor' and o.status = 'open' and l.released = 0 group by o.id order by o.number desc limit 3`,
          )
        ).map((o) => o.id),
      },
    });
    await relay.query(
      `insert into job (id, site_id, kind, of_id, person_id, state, at, actor, input, attempts)
       select 'poison', site_id, kind, '${wave}', person_id, 'running', now(), actor, '{"replan":false}', 5 from job where kind = 'plan-wave' limit 1`,
    );
    await relay.platform.jobs.wake();
    await expect(relay.platform.jobs.over('larkmoor', 'poison')).rejects.toThrow('poison failed');
    await desk.get('planWave', { id: wave });
    expect((await desk.get('wave', { id: wave })).wave.state).toBe('planned');
  });

  it('in the middle of an import leaves it to another, which goes on behind the last part', async () => {
    const rows = Array.from({ length: 12_000 }, (_, i) => `ZZ-${i},Thing ${i},pc,10,10,10,100`);
    const heading = 'item,name,unit,length_mm,width_mm,height_mm,weight_g';
    const data = Buffer.from(`${heading}\n${rows.join('\n')}\n`).toString('base64');
    const dying = await startProcess(url);
    const ask = await dying.as(maren);
    const body = { file: 'things.csv', data };
    const key = 'one import';
    const { job } = (await ask('/api/setup/sheets/items/import', body, key)) as { job: string };
    await until(async () => ((await jobs('import'))[0]?.done ?? 0) >= 800);
    await dying.kill();
    const [cut] = await jobs('import');
    expect(cut).toMatchObject({ id: job, state: 'running' });
    expect(cut!.done).toBeLessThan(12_000);
    // Whoever asks on another server is told how far it is.
    expect(await desk.get('job', { id: job })).toMatchObject({ state: 'running', all: 12_000, done: cut!.done });
    await goOn();
    await relay.platform.jobs.over('larkmoor', job);
    expect(await desk.get('job', { id: job })).toMatchObject({ state: 'done', done: 12_000 });
    const parts = await relay.query<{ rows: number; parts: number }>(
      `select sum((facts->>'rows')::int)::int as rows, count(*)::int as parts from journal where facts->>'entry' = '${job}'`,
    );
    expect(parts).toEqual([{ rows: 12_000, parts: 30 }]);
    expect(await relay.query(`select count(*)::int as n from item where sku like 'ZZ-%'`)).toEqual([{ n: 12_000 }]);
  });

  it('in the middle of scans loses none and counts none twice, when they are sent again to another', async () => {
    const [order] = await relay.query<{ id: string }>(
      `select o.id from customer_order o join order_line l on l.order_id = o.id join item i on i.id = l.item_id
       where o.site_id = 'larkmoor' and o.status = 'open' and l.released = 0 group by o.id
       having sum(l.asked) between 4 and 200 and not bool_or(i.tracks_serial or i.tracks_lot or i.counting is not null) order by o.number desc limit 1`,
    );
    const wave = await startWave(desk, [order!.id]);
    const [run] = (await desk.get('wave', { id: wave })).runs;
    const pico = await relay.as('pico');
    const taken: RunDetail = await pico.get('takeRun', { id: run!.id, body: { cart: 'CART-01' } });
    const dying = await startProcess(url);
    const ask = await dying.as({ badge: 'BADGE-2001', pin: house.PIN });
    const inputs = taken.picks.flatMap(({ step }) => [
      { pick: step.id, input: { kind: 'scan', text: step.bin } },
      { pick: step.id, input: { kind: 'count', units: step.units } },
      { pick: step.id, input: { kind: 'scan', text: `CART-01-${step.position.number}` } },
    ]);
    // As a device sends: one after another, in the order in which they were scanned, until nobody answers.
    let killed: Promise<void> | undefined;
    for (const [i, body] of inputs.entries()) {
      const sent = ask(`/api/runs/${run!.id}/inputs`, body, `scan ${i}`).catch(() => 'nobody answers');
      if (i === 2) killed = dying.kill();
      if ((await sent) === 'nobody answers') break;
    }
    await killed;
    for (const [i, body] of inputs.entries()) await pico.get('runInput', { id: run!.id, body, key: `scan ${i}` });
    const after = await pico.get('run', { id: run!.id });
    expect(after.picks.map((p) => [p.state, p.progress.counted])).toEqual(
      taken.picks.map((p) => ['done', p.step.units]),
    );
    await checkBooks(relay, 'scans to two servers');
  });
});
