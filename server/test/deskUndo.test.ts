import { checkBooks } from './books.ts';
import { openTest, type Person, type TestRelay } from './relay.ts';
import { packAll, pickAll, pickedOrder, startWave, takeIn } from './steps.ts';

describe('what the Desk takes back, splits and joins', () => {
  let relay: TestRelay;
  let [desk, picker, packer, dock] = [] as unknown as Person[];
  const order = (id: string) => desk!.get('order', { id });
  const lineOf = async (id: string, n = 1) => (await order(id)).lines.find((l) => l.line === n)!;
  const kinds = async (id: string) => (await desk!.get('trail', { id })).entries.map((e) => e.kind);
  beforeAll(async () => {
    relay = await openTest();
    [desk, picker, packer, dock] = await Promise.all(
      (['maren', 'pico', 'ada', 'len'] as const).map((id) => relay.as(id)),
    );
  });
  afterAll(() => relay.close());
  afterEach(() => checkBooks(relay, expect.getState().currentTestName!));

  it('says of each line what can be withdrawn from its wave, and withdraws just that', async () => {
    const id = await takeIn(desk!, {
      number: 'U-WAITS',
      lines: [
        ['HT-003', 2],
        ['BR-001', 1],
      ],
    });
    const wave = await startWave(desk!, [id]);
    const waits = async () => (await order(id)).lines.map((l) => l.waits);
    expect(await waits()).toEqual([2, 1]);
    const { runs } = await desk!.get('wave', { id: wave });
    await picker!.get('takeRun', { id: runs[0]!.id, body: { cart: 'CART-20' } });
    // In a picker's hands nothing is offered any more.
    expect(await waits()).toEqual([0, 0]);
    await picker!.get('returnRun', { id: runs[0]!.id });
    expect((await desk!.get('unrelease', { body: { lines: [{ line: (await lineOf(id)).id }] } })).lines).toHaveLength(
      1,
    );
    expect(await waits()).toEqual([0, 1]);
  });

  it("keeps a person's tray, without what is not open any more", async () => {
    const [one, two] = [
      await takeIn(desk!, { number: 'U-TRAY-1', lines: [['HT-003', 2]] }),
      await takeIn(desk!, { number: 'U-TRAY-2', lines: [['HT-003', 1]] }),
    ];
    const line = (await lineOf(one)).id;
    const tray = { orders: [two, one], lines: { [line]: 1 } };
    await desk!.get('saveTray', { body: tray });
    expect(await desk!.get('tray')).toEqual(tray);
    await desk!.get('cancelRest', { id: two, body: { reason: 'customer rang' } });
    expect(await desk!.get('tray')).toEqual({ orders: [one], lines: { [line]: 1 } });
    await desk!.get('saveTray', { body: { orders: [], lines: {} } });
  });

  it('undoes a release exactly, also out of a wave that held some of the same line before', async () => {
    const id = await takeIn(desk!, { number: 'U-RELEASE', lines: [['HT-003', 5]] });
    const line = (await lineOf(id)).id;
    const first = await desk!.get('release', { body: { orders: [id], lines: [{ line, units: 2 }] } });
    const second = await desk!.get('release', { body: { orders: [id], wave: first.wave } });
    expect(second.given).toEqual([{ line, units: 3 }]);
    const undone = await desk!.get('unrelease', { body: { lines: second.given, wave: second.wave } });
    expect(undone.lines).toEqual([{ line, units: 3 }]);
    expect(await lineOf(id)).toMatchObject({ released: 2, reserved: 2 });
    await desk!.get('unrelease', { body: { lines: [{ line }] } });
    expect(await lineOf(id)).toMatchObject({ released: 0, reserved: 0 });
    expect((await desk!.get('wave', { id: first.wave })).wave.state).toBe('cancelled');
    expect((await desk!.refused('unrelease', { body: { lines: [{ line }] } })).code).toBe('nothing-to-take-back');
    expect((await picker!.refused('unrelease', { body: { lines: [{ line }] } })).status).toBe(403);
    expect(await kinds(id)).toEqual(['order-taken', 'released', 'released', 'lines-taken-back', 'lines-taken-back']);
  });

  it('follows a change upstream after all of it went back to Desk, from a wave and from a run', async () => {
    for (const [number, back] of [
      ['U-BACK-1', (line: string) => desk!.get('unrelease', { body: { lines: [{ line }] } })],
      ['U-BACK-2', (_line: string, wave: string) => desk!.get('cancelWave', { id: wave })],
    ] as const) {
      const id = await takeIn(desk!, { number, lines: [['HT-003', 3]] });
      const wave = await startWave(desk!, [id]);
      await back((await lineOf(id)).id, wave);
      await takeIn(desk!, { number, lines: [['HT-003', 5]] });
      expect(await lineOf(id)).toMatchObject({ asked: 5, cancelled: 0, released: 0 });
      await takeIn(desk!, { number, lines: [['HT-003', 2]] });
      expect(await lineOf(id)).toMatchObject({ asked: 5, cancelled: 3 });
    }
  });

  it('takes back one line of a run that waits, and nothing of one that a picker has begun', async () => {
    const id = await takeIn(desk!, {
      number: 'U-RUN',
      lines: [
        ['HT-003', 4],
        ['HT-004', 2],
      ],
    });
    const wave = await startWave(desk!, [id]);
    const [first, second] = (await order(id)).lines;
    await desk!.get('unrelease', { body: { lines: [{ line: second!.id }] } });
    const [run] = (await desk!.get('wave', { id: wave })).runs;
    expect((await picker!.get('run', { id: run!.id })).picks.map((p) => p.step.item.sku)).toEqual(['HT-003']);
    await desk!.get('unrelease', { body: { lines: [{ line: first!.id, units: 1 }] } });
    await picker!.get('takeRun', { id: run!.id, body: { cart: 'CART-01' } });
    const refused = await desk!.refused('unrelease', { body: { lines: [{ line: first!.id }] } });
    expect(refused.code).toBe('nothing-to-take-back');
    expect(await lineOf(id)).toMatchObject({ released: 3 });
    expect(await lineOf(id, 2)).toMatchObject({ released: 0, reserved: 0 });
    await picker!.get('returnRun', { id: run!.id });
    await desk!.get('unrelease', { body: { lines: [{ line: first!.id }] } });
    expect((await desk!.get('wave', { id: wave })).wave.state).toBe('done');
  });

  it('cancels one line, and takes the cancellation back, which opens the order again', async () => {
    const id = await takeIn(desk!, {
      number: 'U-CANCEL',
      lines: [
        ['HT-003', 4],
        ['HT-004', 2],
      ],
    });
    const [first, second] = (await order(id)).lines;
    // A part of a line, and never more than is open of it.
    const part = (units: number, lines = [second!.id]) => ({ id, body: { reason: 'less wanted', lines, units } });
    expect(await desk!.refused('cancelRest', part(99))).toMatchObject({ code: 'cancel-too-much' });
    expect(await desk!.refused('cancelRest', part(1, []))).toMatchObject({ fields: [{ path: 'units' }] });
    const less = await desk!.get('cancelRest', part(1));
    expect(less.lines.find((l) => l.id === second!.id)!.cancelled).toBe(1);
    await desk!.get('restoreRest', { id, body: { lines: [{ line: second!.id, units: 1 }] } });
    const cancelled = await desk!.get('cancelRest', { id, body: { reason: 'not wanted', lines: [second!.id] } });
    expect(cancelled.lines.map((l) => l.cancelled)).toEqual([0, 2]);
    expect(cancelled.status).toBe('open');
    expect((await desk!.get('cancelRest', { id, body: { reason: 'all of it' } })).status).toBe('cancelled');
    const lines = [
      { line: first!.id, units: 4 },
      { line: second!.id, units: 1 },
    ];
    const restored = await desk!.get('restoreRest', { id, body: { lines } });
    expect(restored).toMatchObject({ status: 'open', lines: [{ cancelled: 0 }, { cancelled: 1 }] });
    expect((await desk!.refused('restoreRest', { id, body: { lines } })).code).toBe('nothing-to-restore');
    expect(await kinds(id)).toEqual([
      'order-taken',
      'rest-cancelled',
      'rest-restored',
      'rest-cancelled',
      'rest-cancelled',
      'rest-restored',
    ]);
  });

  it('splits an order: what waits is an order of its own, held by what held it, and a change upstream reaches both', async () => {
    const lines: [string, number][] = [
      ['HT-003', 6],
      ['HT-004', 2],
    ];
    const id = await takeIn(desk!, { number: 'U-SPLIT', lines, shipComplete: true });
    const [first, second] = (await order(id)).lines;
    await desk!.get('holdOrder', { id, body: { reason: 'papers are missing', stops: ['release'] } });
    const body = { lines: [{ line: first!.id, units: 4 }], due: '2031-03-03' };
    const part = await desk!.get('splitOrder', { id, body });
    expect(part).toMatchObject({ number: 'U-SPLIT/2', due: '2031-03-03', splitOf: { number: 'U-SPLIT' } });
    expect(part.lines).toMatchObject([{ line: 1, asked: 4 }]);
    expect((await desk!.get('holds', { id: part.id })).holds).toHaveLength(1);
    const whole = await order(id);
    expect(whole.lines.map((l) => l.asked)).toEqual([2, 2]);
    expect(whole.parts).toMatchObject([{ number: 'U-SPLIT/2', units: 4 }]);
    const tooMuch = { lines: [{ line: first!.id, units: 3 }], due: '2031-03-03' };
    expect((await desk!.refused('splitOrder', { id, body: tooMuch })).facts).toEqual({ line: 1, open: 2 });
    const all = [first!, second!].map((l) => ({ line: l.id, units: 2 }));
    expect((await desk!.refused('splitOrder', { id, body: { lines: all, due: '2031-03-03' } })).code).toBe('split-all');

    // The same document again changes nothing; less is taken from what waits, more goes to what does not.
    await takeIn(desk!, { number: 'U-SPLIT', lines, shipComplete: true });
    expect((await order(id)).lines[0]!.asked).toBe(2);
    await takeIn(desk!, { number: 'U-SPLIT', lines: [['HT-003', 3], lines[1]!], shipComplete: true });
    expect(await lineOf(part.id)).toMatchObject({ asked: 4, cancelled: 3 });
    expect(await lineOf(id)).toMatchObject({ asked: 2, cancelled: 0 });
    await takeIn(desk!, { number: 'U-SPLIT', lines: [['HT-003', 8], lines[1]!], shipComplete: true });
    expect(await lineOf(id)).toMatchObject({ asked: 7 });
    const joined = await desk!.get('joinOrder', { id: part.id });
    expect(joined).toMatchObject({ id, lines: [{ asked: 8 }, { asked: 2 }] });
    expect((await order(part.id)).status).toBe('cancelled');
  });

  it('ships the part that goes now complete, though the order ships complete, and the other after it', async () => {
    const id = await takeIn(desk!, { number: 'U-GO', lines: [['HT-003', 5]], shipComplete: true });
    const { id: line } = await lineOf(id);
    const part = await desk!.get('splitOrder', { id, body: { lines: [{ line, units: 3 }], due: '2031-03-03' } });
    const wave = await startWave(desk!, [id]);
    for (const run of (await desk!.get('wave', { id: wave })).runs) await pickAll(picker!, run.id, 'CART-02');
    await packAll(packer!, id);
    const [shipment] = (await order(id)).shipments;
    await dock!.get('tracking', { id: shipment!.id, body: { from: 'carrier' } });
    await dock!.get('confirm', { id: shipment!.id, body: { rest: null } });
    expect((await order(id)).status).toBe('closed');
    await desk!.get('joinOrder', { id: part.id });
    expect(await order(id)).toMatchObject({ status: 'open', lines: [{ asked: 5, shipped: 2 }] });
  });

  it('cancels by number what a channel cancels, split off parts with it, and says what was picked already', async () => {
    const id = await pickedOrder(desk!, picker!, 'CART-03', { number: 'U-GONE', lines: [['HT-003', 2]] });
    const other = await takeIn(desk!, { number: 'U-GONE-2', lines: [['HT-004', 4]] });
    const { id: line } = await lineOf(other);
    await desk!.get('splitOrder', { id: other, body: { lines: [{ line, units: 1 }], due: '2031-03-03' } });
    const orders = ['U-GONE', 'U-GONE-2', 'U-NEVER'].map((number) => ({ number }));
    const told = await desk!.get('cancellations', { body: { orders } });
    expect(told.orders).toEqual([
      { number: 'U-GONE', outcome: 'cancelled', surplus: 2 },
      { number: 'U-GONE-2', outcome: 'cancelled', surplus: 0 },
      { number: 'U-NEVER', outcome: 'unknown', surplus: 0 },
    ]);
    const { parts } = await order(other);
    expect(parts.map((p) => p.status)).toEqual(['cancelled']);
    const again = await desk!.get('cancellations', { body: { orders: orders.slice(1) } });
    expect(again.orders.map((o) => o.outcome)).toEqual(['closed', 'unknown']);
    const { tasks } = await desk!.get('deskTasks');
    await desk!.get('settleTask', { id: tasks[0]!.id, body: { decision: 'put-back' } });
    expect((await order(id)).status).toBe('cancelled');
  });

  it('marks orders with tags that a repeat of the document leaves alone, and keeps the link to the document', async () => {
    const draft = { number: 'U-TAG', lines: [['HT-003', 1]] as [string, number][] };
    const link = 'https://docs.example/U-TAG';
    const id = await takeIn(desk!, { ...draft, link, tags: ['gift'] });
    await desk!.get('tagOrders', { body: { orders: [id], add: ['call first', 'gift'] } });
    expect(await order(id)).toMatchObject({ link, tags: ['call first', 'gift'] });
    await takeIn(desk!, { ...draft, link, tags: ['gift'] });
    await desk!.get('tagOrders', { body: { orders: [id], remove: ['gift'] } });
    const page = await desk!.get('orders', { query: { ids: id } });
    expect(page.rows[0]).toContain('call first');
    const wrong = await desk!.refused('tagOrders', { body: { orders: [id], add: ['a, b'] } });
    expect(wrong.fields).toMatchObject([{ path: 'add.0' }]);
  });

  it('keeps stock again for what comes back, where the site keeps it as orders come in', async () => {
    const there = await relay.as('maren');
    await there.get('switchSite', { body: { site: 'fennock' } });
    const [item, other] = await relay.query<{ sku: string }>(
      `select i.sku from stock_total t join item i on i.id = t.item_id where t.site_id = 'fennock' and t.on_hand - t.reserved >= 8 order by 1 limit 2`,
    );
    const id = await takeIn(there, { number: 'U-KEPT', lines: [[item!.sku, 6]] });
    const line = async (of = id) => (await there.get('order', { id: of })).lines[0]!;
    const first = (await line()).id;
    expect(await line()).toMatchObject({ reservedAhead: 6 });
    const part = await there.get('splitOrder', { id, body: { lines: [{ line: first, units: 2 }], due: '2031-03-03' } });
    expect([(await line()).reservedAhead, (await line(part.id)).reservedAhead]).toEqual([4, 2]);
    await there.get('joinOrder', { id: part.id });
    expect(await line()).toMatchObject({ asked: 6, reservedAhead: 6 });
    await there.get('release', { body: { orders: [id] } });
    expect(await line()).toMatchObject({ reservedAhead: 0, released: 6 });
    await there.get('unrelease', { body: { lines: [{ line: first }] } });
    expect(await line()).toMatchObject({ reservedAhead: 6, released: 0 });
    await there.get('cancelRest', { id, body: { reason: 'not wanted' } });
    await there.get('restoreRest', { id, body: { lines: [{ line: first, units: 5 }] } });
    expect(await line()).toMatchObject({ cancelled: 1, reservedAhead: 5 });
    // What is cancelled of one line takes nothing from another.
    const two = await takeIn(there, {
      number: 'U-TWO',
      lines: [
        [item!.sku, 1],
        [other!.sku, 2],
      ],
    });
    const { lines } = await there.get('order', { id: two });
    const left = await there.get('cancelRest', { id: two, body: { reason: 'one line', lines: [lines[0]!.id] } });
    expect(left.lines.map((l) => l.reservedAhead)).toEqual([0, 2]);
    await there.get('switchSite', { body: { site: 'larkmoor' } });
  });
});
