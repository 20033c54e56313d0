import { execFile } from 'node:child_process';
import type { AddressInfo } from 'node:net';
import { promisify } from 'node:util';
import { checkBooks } from './books.ts';
import { productFolder } from '../src/platform/index.ts';
import { openTest, type Person, type TestRelay } from './relay.ts';
import { packAll, pickedOrder, startWave, takeIn } from './steps.ts';

describe('the host system and its stand-in', () => {
  let relay: TestRelay;
  let [desk, picker, packer, dock] = [] as unknown as Person[];
  beforeAll(async () => {
    relay = await openTest();
    [desk, picker, packer, dock] = await Promise.all(
      (['maren', 'pico', 'ada', 'len'] as const).map((id) => relay.as(id)),
    );
  });
  afterAll(() => relay.close());
  afterEach(() => checkBooks(relay, expect.getState().currentTestName!));
  const ship = async (number: string, more: object = {}) => {
    const order = await pickedOrder(desk!, picker!, 'CART-01', { number, lines: [['HT-003', 2]], ...more });
    await packAll(packer!, order);
    const [shipment] = (await desk!.get('order', { id: order })).shipments;
    await dock!.get('tracking', { id: shipment!.id, body: { from: 'carrier' } });
    return dock!.get('confirm', { id: shipment!.id, body: { rest: null } });
  };

  it('is told of each confirmed shipment once, in order, and says what it has', async () => {
    await ship('H-ONE');
    await ship('H-TWO', { kind: 'invoiced' });
    const { messages, waiting } = await desk!.get('hostMessages', { query: { after: 0 } });
    expect(waiting).toBe(2);
    expect(messages.map((m) => [m.kind, m.order, m.facts['invoice']])).toEqual([
      ['confirmation', 'H-ONE', true],
      ['confirmation', 'H-TWO', false],
    ]);
    const [order] = await relay.query<{ tracking: string }>(
      `select s.tracking from shipment s join customer_order o on o.id = s.order_id where o.number = 'H-ONE'`,
    );
    expect(messages[0]!.facts).toMatchObject({
      tracking: order!.tracking,
      lines: [{ line: 1, sku: 'HT-003', units: 2 }],
      units: [expect.stringMatching(/^\d{18}$/)],
    });
    expect(await desk!.get('hostReceived', { body: { upTo: messages[0]!.id } })).toEqual({ received: 1 });
    expect((await desk!.get('hostMessages', { query: { after: messages[0]!.id } })).messages).toHaveLength(1);
    const taken = await desk!.get('hostReceive');
    expect(taken.messages.map((m) => m.order)).toEqual(['H-TWO']);
    expect((await desk!.get('hostMessages')).waiting).toBe(0);
    expect((await picker!.refused('hostPlay', { body: {} })).status).toBe(403);
  });

  it('sends orders, changes and cancellations that reach work at every stage, and hears what became of each', async () => {
    const ids = [];
    for (const n of [1, 2, 3, 4, 5, 6])
      ids.push(await takeIn(desk!, { number: `H-WORK-${n}`, lines: [['HT-003', n]] }));
    await startWave(desk!, ids);
    const { messages } = await desk!.get('hostPlay', {
      body: { orders: 4, changes: 40, cancellations: 40, seed: 7 },
    });
    const count = (kind: string) => messages.filter((m) => m.kind === kind).length;
    expect([count('order'), count('change'), count('cancellation')]).toEqual([4, 40, 40]);
    const outcomes = new Set(messages.map((m) => `${m.kind} ${String(m.facts['outcome'])}`));
    expect([...outcomes]).toEqual(expect.arrayContaining(['order new', 'change changed', 'cancellation cancelled']));
    for (const m of messages.filter((one) => one.kind === 'order')) {
      const { id } = await desk!.get('find', { query: { code: `ORDER-${m.order}` } });
      expect(await desk!.get('order', { id: id! })).toMatchObject({
        document: 'host system',
        link: `https://host.example/orders/${m.order}`,
      });
    }
  });

  it('streams by itself until it is told to end', async () => {
    const body = { every: 3600, orders: 1, changes: 0, cancellations: 0 };
    const before = (await desk!.get('hostMessages', { query: { limit: 1000 } })).messages.length;
    expect((await desk!.get('hostStream', { body })).stream).toEqual(body);
    for (let i = 0; i < 100; i++) {
      if ((await desk!.get('hostMessages', { query: { limit: 1000 } })).messages.length > before) break;
      await new Promise((resolve) => setTimeout(resolve, 50));
    }
    expect((await desk!.get('hostMessages')).stream).toEqual(body);
    expect((await desk!.get('hostMessages', { query: { limit: 1000 } })).messages.length).toBe(before + 1);
    expect((await desk!.get('hostStream', { body: { ...body, every: null } })).stream).toBeNull();
  });

  it('works from the command line, and ends with 2 where it is asked what cannot be', async () => {
    const run = promisify(execFile);
    const command = productFolder('bin', 'host.mjs');
    const host = (...args: string[]) =>
      run(process.execPath, [command, ...args]).catch((error: { code: number; stderr: string }) => error);
    const server = await relay.listen(0);
    const url = `http://localhost:${(server.address() as AddressInfo).port}`;
    const told = await host('--url', url, '--times', '1', '--orders', '2', '--changes', '0');
    expect((told as { stdout: string }).stdout.match(/^sent order H-\d{5}: new$/gm)).toHaveLength(2);
    const there = await host('--url', url, '--times', '1', '--orders', '1', '--changes', '0', '--site', 'fennock');
    expect((there as { stdout: string }).stdout).toMatch(/^sent order H-00001: new$/m);
    for (const [args, line] of [
      [['--orders', 'many'], '--orders: must be a whole number from 0 to 100, not "many"'],
      [['--speed', '9'], /Unknown option '--speed'.*There are: --url/],
      [['--url', 'http://localhost:1'], /--url: http:\/\/localhost:1 does not answer/],
      [['--url', url, '--password', 'wrong'], /\/api\/session/],
    ] as const) {
      const wrong = (await host(...args)) as { code: number; stderr: string };
      expect(wrong.code).toBe(2);
      expect(wrong.stderr.trim()).toEqual(typeof line === 'string' ? line : expect.stringMatching(line));
    }
  });
});

describe('a screen that works for another site', () => {
  let relay: TestRelay;
  beforeAll(async () => {
    relay = await openTest();
  });
  afterAll(() => relay.close());

  it('sees and releases there where the right is held, and nowhere else; the session stays where it is', async () => {
    const [maren, tobi, pico] = await Promise.all((['maren', 'tobi', 'pico'] as const).map((id) => relay.as(id)));
    const at = { at: 'fennock' };
    const there = await maren!.get('me', { query: at });
    expect(there.site.id).toBe('fennock');
    expect(there.sites.map((s) => [s.id, s.releases])).toEqual([
      ['larkmoor', true],
      ['fennock', true],
    ]);
    const page = await maren!.get('orders', { query: { ...at, limit: 3 } });
    const orders = page.rows.map((row) => String(row[0]));
    const answer = await maren!.ask('release', { query: at, body: { orders } });
    expect(answer.status).toBe(200);
    const [wave] = await relay.query<{ site: string }>(
      `select site_id as site from wave where id = '${(answer.body as { wave: string }).wave}'`,
    );
    expect(wave!.site).toBe('fennock');
    expect((await maren!.get('me')).site.id).toBe('larkmoor');
    expect((await tobi!.ask('me', { query: at })).body).toMatchObject({ code: 'not-at-site' });
    expect((await pico!.ask('release', { query: at, body: { orders } })).status).toBe(403);
    expect((await maren!.ask('orders', { query: { at: 'nowhere' } })).status).toBe(403);
  });
});
