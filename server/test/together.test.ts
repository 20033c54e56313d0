import { get as httpGet, type IncomingMessage } from 'node:http';
import type { AddressInfo } from 'node:net';
import supertest from 'supertest';
import { CHANGED, TAB, type ChangeEvent } from '@hand-relay/contract';
import { checkBooks } from './books.ts';
import { openTest, type Person, type TestRelay } from './relay.ts';
import { startWave } from './steps.ts';

describe('several people at once', () => {
  let relay: TestRelay;
  let desk: Person;
  let pico: Person;
  beforeAll(async () => {
    relay = await openTest();
    [desk, pico] = await Promise.all([relay.as('maren'), relay.as('pico')]);
  });
  afterAll(() => relay.close());

  it('confirm one pick at one moment: one wins, the other is told', async () => {
    const { rows } = await desk.get('orders');
    await startWave(desk, [rows[0]![0] as string]);
    const run = (await pico.get('myRuns')).waiting[0]!.id;
    const { picks } = await pico.get('takeRun', { id: run, body: { cart: 'CART-01' } });
    const pick = picks.find((p) => !p.step.item.tracksSerial)!;
    const input = (what: object) => ({ id: run, body: { pick: pick.step.id, input: what } });
    await pico.get('runInput', input({ kind: 'scan', text: pick.step.bin }));
    await pico.get('runInput', input({ kind: 'count', units: pick.step.units }));
    if (pick.step.lot) await pico.get('runInput', input({ kind: 'scan', text: pick.step.lot }));
    const same = await relay.as('pico');
    const both = await Promise.all(
      [pico, same].map((p) => p.ask('runInput', input({ kind: 'touch', what: 'position' }))),
    );
    expect(both.map((r) => r.status).sort()).toEqual([200, 409]);
    expect(both.find((r) => r.status === 409)!.body).toMatchObject({
      code: 'pick-done',
      facts: { picked: pick.step.units },
    });
    const [moved] = await relay.query<{ n: number }>(
      `select count(*)::int as n from movement where document = '${pick.step.id}'`,
    );
    expect(moved!.n).toBe(1);
    await checkBooks(relay, 'the same pick twice');
  });

  it('take one run at one moment: one has it', async () => {
    const { rows } = await desk.get('orders');
    await startWave(desk, [rows[1]![0] as string]);
    const suri = await relay.as('suri');
    const run = (await suri.get('myRuns')).waiting[0]!.id;
    const both = await Promise.all([
      pico.ask('takeRun', { id: run, body: { cart: 'CART-02' } }),
      suri.ask('takeRun', { id: run, body: { cart: 'CART-03' } }),
    ]);
    expect(both.map((r) => r.status).sort()).toEqual([200, 409]);
  });

  it('release the same scarce goods at one moment: nothing is promised twice', async () => {
    const { rows } = await desk.get('orders');
    const ids = rows.map((r) => r[0] as string);
    const service = await relay.as('maren');
    await Promise.all([
      desk.ask('release', { body: { orders: ids.slice(5, 130) } }),
      service.ask('release', { body: { orders: ids.slice(60, 200) } }),
    ]);
    await checkBooks(relay, 'two releases');
  });

  const shortly = () => new Promise((resolve) => setTimeout(resolve, 400));

  /** What the stream of somebody's screen tells, as a browser hears it. */
  async function listening(name: string): Promise<{ heard: ChangeEvent[]; cookie: string; end: () => void }> {
    const server = await relay.listen(0);
    const { port } = server.address() as AddressInfo;
    const { headers } = await supertest.agent(server).post('/api/session').send({ name, password: 'honeycomb' });
    const cookie = headers['set-cookie']![0]!.split(';')[0]!;
    const stream = await new Promise<IncomingMessage>((resolve) =>
      // Whoever compresses the stream holds its events back.
      httpGet({ port, path: '/api/events', headers: { cookie, 'accept-encoding': 'gzip, deflate, br' } }, resolve),
    );
    expect(stream.headers).toMatchObject({ 'content-type': 'text/event-stream' });
    expect(stream.headers['content-encoding']).toBeUndefined();
    const heard: ChangeEvent[] = [];
    stream.on('data', (chunk: Buffer) => {
      for (const line of chunk.toString().split('\n'))
        if (line.startsWith('data: ')) heard.push(JSON.parse(line.slice(6)) as ChangeEvent);
    });
    // What others did before this is told by now.
    await shortly();
    heard.length = 0;
    return { heard, cookie, end: () => void stream.destroy() };
  }
  it('see on one screen what another does, within a second', async () => {
    const { heard, end } = await listening('ines');
    const { rows } = await desk.get('orders');
    const open = rows.find((r) => Number(r[11]) > Number(r[12]))![0] as string;
    const begun = Date.now();
    await desk.get('cancelRest', { id: open, body: { reason: 'live test' } });
    const told = () => heard.some((e) => e.topic === 'orders' && e.ids.includes(open));
    while (!told() && Date.now() - begun < 1000) await new Promise((resolve) => setTimeout(resolve, 10));
    expect(told()).toBe(true);
    // What was refused changed nothing, so nothing is told.
    await shortly();
    heard.length = 0;
    const ines = await relay.as('ines');
    await ines.ask('cancelRest', { id: open, body: { reason: 'not allowed' } });
    await shortly();
    expect(heard).toEqual([]);
    end();
  });

  it('are told with the answer what they changed, and others once for a burst; what is personal is told to nobody else', async () => {
    const [maren, ines] = [await listening('maren'), await listening('ines')];
    const { rows } = await desk.get('orders');
    const [one, two] = rows.filter((r) => r[3] === rows[0]![3]).map((r) => r[0] as string);
    const tag = (order: string, key: string) =>
      supertest(relay.app)
        .post('/api/desk/tags')
        .set({ cookie: maren.cookie, 'idempotency-key': key, [TAB]: 'page-1' })
        .send({ orders: [order], add: ['watched'], remove: [] });
    const [first, second] = await Promise.all([tag(one!, 'tag-1'), tag(two!, 'tag-2')]);
    expect(JSON.parse(first.get(CHANGED)!)).toEqual([{ topic: 'orders', ids: [one] }]);
    expect(second.status).toBe(200);
    // A repeat gets the first answer; what it changed then is not known any more.
    const again = await tag(one!, 'tag-1');
    expect([again.status, again.get(CHANGED)]).toEqual([200, undefined]);
    await shortly();
    expect(ines.heard).toEqual([
      { topic: 'orders', ids: expect.arrayContaining([one, two]) as string[], by: 'page-1' },
    ]);
    await desk.get('saveTray', { body: { orders: [one!], lines: {} } });
    await shortly();
    expect(maren.heard.at(-1)).toEqual({ topic: 'tray', ids: ['maren'] });
    expect(ines.heard).toHaveLength(1);
    for (const { end } of [maren, ines]) end();
  });
});
