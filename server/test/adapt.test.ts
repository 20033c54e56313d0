import { checkBooks } from './books.ts';
import { openTest, type Person, type TestRelay } from './relay.ts';
import { packAll, pickAll, pickedOrder, pickOne, startWave, takeIn, type Wanted } from './steps.ts';

describe('an order that changes under way', () => {
  let relay: TestRelay;
  let [desk, service, picker, packer] = [] as unknown as Person[];
  const lineOf = async (order: string, n = 1) =>
    (await desk!.get('order', { id: order })).lines.find((l) => l.line === n)!;
  const told = async (wanted: Wanted) => {
    await takeIn(desk!, wanted);
    const preview = await desk!.get('intake', {
      body: { mode: 'preview', orders: [await drafted(wanted)] },
    });
    return preview.orders[0]!.outcome;
  };
  const drafted = (wanted: Wanted) =>
    Promise.resolve({
      number: wanted.number,
      channel: 'web',
      customer: wanted.customer ?? 'C1030',
      due: new Date(Date.now() + 86_400_000).toISOString().slice(0, 10),
      shipTo: {
        name: 'Juniper Orchards',
        street: '5 Weir Street',
        postcode: 'ZA1 2BC',
        city: 'Dunmere',
        country: 'GB',
      },
      lines: wanted.lines.map(([sku, quantity], i) => ({ line: i + 1, sku, quantity })),
    });
  beforeAll(async () => {
    relay = await openTest();
    [desk, service, picker, packer] = await Promise.all(
      (['maren', 'tobi', 'pico', 'ada'] as const).map((id) => relay.as(id)),
    );
  });
  afterAll(() => relay.close());
  afterEach(() => checkBooks(relay, expect.getState().currentTestName!));

  it('in a wave that gathers: less goes back to Desk, more stays open, and a repeat changes nothing', async () => {
    const order = await takeIn(desk!, {
      number: 'C-GATHER',
      lines: [
        ['HT-003', 6],
        ['HT-004', 2],
      ],
    });
    await desk!.get('release', { body: { orders: [order] } });
    expect(
      await told({
        number: 'C-GATHER',
        lines: [
          ['HT-003', 4],
          ['HT-004', 5],
        ],
      }),
    ).toBe('same');
    expect(await lineOf(order)).toMatchObject({ asked: 6, cancelled: 2, released: 4, reserved: 4 });
    expect(await lineOf(order, 2)).toMatchObject({ asked: 5, cancelled: 0, released: 2, reserved: 2 });
    const { entries } = await desk!.get('trail', { id: order });
    expect(entries.filter((e) => e.kind === 'order-changed')).toHaveLength(1);
  });

  it('in runs: picks shrink or go, a line that is gone leaves the run, a new one waits at the Desk', async () => {
    const order = await takeIn(desk!, {
      number: 'C-RUN',
      lines: [
        ['HT-003', 4],
        ['HT-005', 3],
      ],
    });
    const wave = await startWave(desk!, [order]);
    expect(await told({ number: 'C-RUN', lines: [['HT-003', 1]] })).toBe('same');
    const [run] = (await desk!.get('wave', { id: wave })).runs;
    const { picks } = await picker!.get('run', { id: run!.id });
    expect(picks.map((p) => [p.step.item.sku, p.step.units])).toEqual([['HT-003', 1]]);
    expect(await lineOf(order, 2)).toMatchObject({ released: 0, reserved: 0, cancelled: 3 });
    expect(
      await told({
        number: 'C-RUN',
        lines: [
          ['HT-003', 1],
          ['HT-005', 3],
          ['HT-004', 1],
        ],
      }),
    ).toBe('same');
    expect(await lineOf(order, 2)).toMatchObject({ asked: 3, cancelled: 0, released: 0 });
    expect(await lineOf(order, 3)).toMatchObject({ asked: 1, released: 0 });
    await pickAll(picker!, run!.id, 'CART-01');
    await packAll(packer!, order);
  });

  it('while a picker has counted more than is asked now: the count starts over, and nothing is lost', async () => {
    const order = await takeIn(desk!, { number: 'C-COUNT', lines: [['HT-003', 5]] });
    const wave = await startWave(desk!, [order]);
    const [run] = (await desk!.get('wave', { id: wave })).runs;
    const taken = await picker!.get('takeRun', { id: run!.id, body: { cart: 'CART-02' } });
    const { step } = taken.picks[0]!;
    for (const input of [
      { kind: 'scan', text: step.bin },
      { kind: 'count', units: 5 },
    ])
      await picker!.get('runInput', { id: run!.id, body: { pick: step.id, input } });
    await takeIn(desk!, { number: 'C-COUNT', lines: [['HT-003', 2]] });
    const now = await picker!.get('run', { id: run!.id });
    expect(now.picks[0]).toMatchObject({ step: { units: 2 }, progress: { bin: false, counted: 0 } });
    await pickOne(picker!, run!.id, now.picks[0]!, 'CART-02');
    await picker!.get('leaveRun', { id: run!.id, body: { lane: 'LANE-1' } });
    expect(await lineOf(order)).toMatchObject({ released: 2, picked: 2, cancelled: 3 });
    await packAll(packer!, order);
  });

  it('once picked: what is too much becomes a task; put back it lies in its bin again, or it ships anyway', async () => {
    const order = await pickedOrder(desk!, picker!, 'CART-03', {
      number: 'C-PICKED',
      lines: [
        ['HT-003', 4],
        ['HT-004', 3],
      ],
    });
    const free = async () => (await lineOf(order)).free;
    const before = await free();
    await takeIn(desk!, {
      number: 'C-PICKED',
      lines: [
        ['HT-003', 1],
        ['HT-004', 1],
      ],
    });
    const { tasks } = await desk!.get('deskTasks');
    expect(tasks.map((t) => [t.number, t.line, t.units, t.where])).toEqual([
      ['C-PICKED', 1, 3, 'CART-03, 1'],
      ['C-PICKED', 2, 2, 'CART-03, 1'],
    ]);
    expect(await lineOf(order)).toMatchObject({ picked: 4, cancelled: 0 });
    await desk!.get('settleTask', { id: tasks[0]!.id, body: { decision: 'put-back' } });
    expect(await lineOf(order)).toMatchObject({ picked: 1, released: 1, cancelled: 3, reserved: 1 });
    expect(await free()).toBe(before + 3);
    await service!.get('settleTask', { id: tasks[1]!.id, body: { decision: 'ship-anyway' } });
    expect(await lineOf(order, 2)).toMatchObject({ picked: 3, cancelled: 0 });
    expect((await desk!.get('deskTasks')).tasks).toEqual([]);
    expect((await desk!.refused('settleTask', { id: tasks[0]!.id, body: { decision: 'put-back' } })).status).toBe(404);
    expect((await desk!.get('trail', { id: order })).entries.map((e) => e.kind)).toEqual(
      expect.arrayContaining(['surplus-picked', 'surplus-put-back', 'surplus-ships']),
    );
    await packAll(packer!, order);
  });

  it('put back in part while its run goes on: undoing takes only what still lies on the cart', async () => {
    const order = await takeIn(desk!, {
      number: 'C-UNDO',
      lines: [
        ['HT-004', 1],
        ['HT-003', 4],
      ],
    });
    const wave = await startWave(desk!, [order]);
    const run = (await desk!.get('wave', { id: wave })).runs[0]!.id;
    const { picks } = await picker!.get('takeRun', { id: run, body: { cart: 'CART-08' } });
    const pick = picks.find((p) => p.step.units === 4)!;
    const now = async () => (await picker!.get('run', { id: run })).picks.find((p) => p.step.id === pick.step.id)!;
    const less = async (asked: number) => {
      await pickOne(picker!, run, await now(), 'CART-08');
      const left: Wanted['lines'] = asked > 0 ? [['HT-003', asked]] : [];
      await takeIn(desk!, { number: 'C-UNDO', lines: [['HT-004', 1], ...left] });
      const { tasks } = await desk!.get('deskTasks');
      await desk!.get('settleTask', { id: tasks[0]!.id, body: { decision: 'put-back' } });
    };
    await less(3);
    expect(await picker!.get('undoPick', { id: run })).toEqual({ pick: pick.step.id });
    expect(await now()).toMatchObject({ state: 'open', picked: 0, step: { units: 3 } });
    const { trips } = await picker!.get('putBacks');
    expect(trips.find((t) => t.run === run)!.goods.map((g) => [g.units, g.done])).toEqual([[1, false]]);
    // Nothing of it is left on the cart: there is nothing to undo.
    await less(0);
    expect(await picker!.get('undoPick', { id: run })).toEqual({ pick: null });
    expect(await lineOf(order, 2)).toMatchObject({ picked: 0, released: 0, cancelled: 4 });
  });

  it('cancelled whole after packing began: nothing is put back that lies in a carton, and the order closes when it is', async () => {
    const order = await pickedOrder(desk!, picker!, 'CART-04', { number: 'C-PACK', lines: [['HT-003', 2]] });
    const input = (what: object) => packer!.get('packInput', { id: order, body: { bench: 'BENCH-1', input: what } });
    await input({ kind: 'scan', text: 'BOX-XL' });
    const { bench } = await packer!.get('benchOrder', { id: order });
    await input({ kind: 'put', item: bench.loose[0]!.item.id, lot: bench.loose[0]!.lot, units: 2 });
    expect((await picker!.refused('cancelOrder', { id: order, body: { reason: 'no right' } })).status).toBe(403);
    await desk!.get('cancelOrder', { id: order, body: { reason: 'customer rang' } });
    const { tasks } = await desk!.get('deskTasks');
    const refused = await desk!.refused('settleTask', { id: tasks[0]!.id, body: { decision: 'put-back' } });
    expect(refused).toMatchObject({ code: 'unpack-first', facts: { units: 2 } });
    const packed = (await packer!.get('benchOrder', { id: order })).bench.carton!;
    await packer!.get('unpack', {
      id: packed.id,
      body: { item: bench.loose[0]!.item.id, lot: bench.loose[0]!.lot ?? '', serial: '', units: 2 },
    });
    await desk!.get('settleTask', { id: tasks[0]!.id, body: { decision: 'put-back' } });
    expect((await desk!.get('order', { id: order })).status).toBe('cancelled');
  });

  it('follows no change of customer by itself, nor one after it has closed', async () => {
    const order = await takeIn(desk!, { number: 'C-OTHER', lines: [['HT-003', 1]] });
    await desk!.get('release', { body: { orders: [order] } });
    expect(await told({ number: 'C-OTHER', lines: [['HT-003', 1]], customer: 'C1040' })).toBe('under-way');
    await desk!.get('cancelOrder', { id: order, body: { reason: 'not wanted' } });
    expect((await desk!.get('order', { id: order })).status).toBe('cancelled');
    expect((await desk!.refused('cancelOrder', { id: order, body: { reason: 'again' } })).code).toBe(
      'nothing-to-cancel',
    );
    expect(await told({ number: 'C-OTHER', lines: [['HT-003', 9]] })).toBe('under-way');
  });
});
