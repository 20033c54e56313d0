import { mkdtempSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { gzipSync } from 'node:zlib';
import supertest from 'supertest';
import { house } from '@hand-relay/demo';
import { openTest, personOf, type Person, type TestRelay } from './relay.ts';
import { startWave, takeIn } from './steps.ts';

const UBL = 'urn:oasis:names:specification:ubl:schema:xsd:Order-2';

describe('a request that no honest caller makes', () => {
  let relay: TestRelay;
  let desk: Person;
  let agent: ReturnType<typeof supertest.agent>;
  beforeAll(async () => {
    relay = await openTest();
    agent = supertest.agent(relay.app);
    await agent.post('/api/session').send({ name: 'maren', password: house.PASSWORD });
    desk = personOf(agent);
  });
  afterAll(() => relay.close());
  const post = (path: string) => agent.post(path).set('Idempotency-Key', `r-${Math.random()}`);

  it.each(['a\u0000b', 'x\ud800'])('with text that is none is refused at its place: %j', async (text) => {
    const order = { number: text, customer: 'C1030', lines: [] };
    expect(await desk.refused('intake', { body: { mode: 'take', orders: [order] } })).toMatchObject({
      status: 400,
      code: 'malformed',
      fields: [{ path: 'orders.0.number' }],
    });
    expect(await desk.refused('find', { query: { code: text.replace('\ud800', '\u0000') } })).toMatchObject({
      fields: [{ path: 'code' }],
    });
  });

  it('in an encoding that nobody reads, or nested without end, is refused', async () => {
    const path = '/api/release/preview';
    const other = await post(path).set('Content-Type', 'application/json; charset=koi8-u').send('{}');
    expect(other.body).toMatchObject({ status: 415, code: 'not-readable' });
    const packed = await post(path).set('Content-Type', 'application/json').set('Content-Encoding', 'lzma').send('{}');
    expect(packed.body).toMatchObject({ status: 415, code: 'not-readable' });
    const deep = `{"orders":${'['.repeat(50_000)}${']'.repeat(50_000)}}`;
    const nested = await post(path).set('Content-Type', 'application/json').send(deep);
    expect(nested.body).toMatchObject({ status: 400, code: 'malformed' });
    // What is packed as it may be is read.
    const fine = await post(path)
      .set('Content-Type', 'application/json')
      .set('Content-Encoding', 'gzip')
      .serialize((bytes: unknown) => bytes as string)
      .send(gzipSync('{"orders":["order-la-20001"]}'));
    expect(fine.status).toBe(200);
  });

  it('as an order document nested without end is refused in words', async () => {
    const depth = 100_000;
    const text = `<Order xmlns="${UBL}">${'<a>'.repeat(depth)}${'</a>'.repeat(depth)}</Order>`;
    const answer = await desk.get('intake', {
      body: { mode: 'preview', file: Buffer.from(text).toString('base64') },
    });
    expect(answer.errors).toHaveLength(1);
    expect(answer.orders).toEqual([]);
  });

  it('from a page of another origin changes nothing, also with the cookie', async () => {
    const body = { orders: ['order-la-20001'] };
    const from = (origin: string) =>
      post('/api/release/preview').set('Host', 'relay.example:4600').set('Origin', origin).send(body);
    for (const origin of ['https://evil.example', 'http://relay.example:4601', 'null'])
      expect((await from(origin)).body).toMatchObject({ status: 403, code: 'cross-site' });
    expect((await from('http://relay.example:4600')).status).toBe(200);
    expect((await supertest(relay.app).get('/health')).headers['content-security-policy']).toContain(
      "form-action 'self'",
    );
  });

  it('with more money than 32 bits hold is computed, and rules of holds are saved afterwards', async () => {
    const [item] = (await desk.get('sheetRows', { id: 'items' })).rows.filter((r) => r['item'] === 'HT-001');
    const { errors } = await desk.get('changeSheet', {
      id: 'items',
      body: { rows: [{ ...item!, value: '90000.00' }] },
    });
    expect(errors).toEqual([]);
    const dear = await takeIn(desk, { number: 'DEAR', lines: [['HT-001', 300]] });
    const { rules } = await desk.get('saveHoldRule', {
      body: {
        id: null,
        name: 'Dear orders',
        text: 'Ask the office first.',
        conditions: { match: 'all', list: [{ field: 'value', test: 'at-least', value: '20000000' }] },
        stops: ['release'],
        lifters: ['supervisor'],
      },
    });
    expect(rules.find((r) => r.name === 'Dear orders')).toMatchObject({ holding: 1 });
    expect((await desk.get('holds', { id: dear })).holds).toContainEqual(
      expect.objectContaining({ rule: 'Dear orders' }),
    );
    await desk.get('orders');
  });

  it('is answered as before when the disk is full, but nothing is changed and the words say what to do', async () => {
    const folder = mkdtempSync(join(tmpdir(), 'hand-relay-full-'));
    let free = Number.MAX_SAFE_INTEGER;
    const later = async (bytes: number) => {
      free = bytes;
      // The disk is looked at once a second.
      await new Promise((resolve) => setTimeout(resolve, 1_100));
    };
    const full = await openTest({}, { database: { folder, from: process.env['HOUSE_DUMP']! }, freeBytes: () => free });
    try {
      const maren = await full.as('maren');
      const order = await takeIn(maren, { number: 'FULL', lines: [['HT-001', 1]] });
      await later(10_000_000);
      const { status, body } = await supertest(full.app).get('/ready');
      expect([status, body]).toEqual([503, { status: 'disk-full', freeMb: 9 }]);
      expect(await maren.refused('release', { body: { orders: [order] } })).toMatchObject({
        status: 507,
        code: 'disk-full',
      });
      expect((await maren.get('order', { id: order })).id).toBe(order);
      await later(Number.MAX_SAFE_INTEGER);
      await startWave(maren, [order]);
    } finally {
      await full.close();
      rmSync(folder, { recursive: true, force: true });
    }
  });

  it('for a stand-in is refused where there is none', async () => {
    const own = await openTest({}, { standins: false });
    try {
      const maren = await own.as('maren');
      for (const name of ['hostPlay', 'hostReceive'] as const)
        expect(await maren.refused(name)).toMatchObject({ code: 'no-standins' });
      expect(await maren.refused('hostStream', { body: { every: 5, orders: 1 } })).toMatchObject({
        code: 'no-standins',
      });
      expect((await maren.get('me')).standins).toBe(false);
    } finally {
      await own.close();
    }
    expect(await (await relay.as('tobi')).refused('hostPlay')).toMatchObject({ status: 403 });
  });
});
