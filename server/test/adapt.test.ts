import { checkBooks } from './books.ts';
import { openTest, type Person, type TestRelay } from './relay.ts';
import { packAll, pickAll, pickedOrder, pickOne, startWave, takeIn, type Wanted } from './steps.ts';

describe('an order that changes under way', () => {
  let relay: TestRelay;
  let [desk, service, picker, packer] = [] as unknown as Person[];
  let made = 0;
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
      ['C-PICKED', 1, 3, 'CART-03-1'],
      ['C-PICKED', 2, 2, 'CART-03-1'],
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
    const { trips } = await picker!.get('putAways');
    expect(trips.find((t) => t.run === run)!.goods.map((g) => [g.units, g.done])).toEqual([[1, false]]);
    // Nothing of it is left on the cart: there is nothing to undo.
    await less(0);
    expect(await picker!.get('undoPick', { id: run })).toEqual({ pick: null });
    expect(await lineOf(order, 2)).toMatchObject({ picked: 0, released: 0, cancelled: 4 });
  });

  it.each([
    ['undone', [1, 1], (run: string) => picker!.get('undoPick', { id: run })],
    ['taken out', [], (run: string, order: string) => desk!.get('takeOut', { id: run, body: { order } })],
  ])(
    '%s while it waits for a decision: nothing is left to decide, and nobody asks for it again',
    async (_, asked, back) => {
      const number = `C-BACK-${++made}`;
      const cart = `CART-2${made}`;
      const asks = (units: number) => ({
        number,
        lines: [
          ['HT-003', units],
          ['HT-004', 1],
        ] satisfies Wanted['lines'],
      });
      const order = await takeIn(desk!, asks(4));
      const run = (await desk!.get('wave', { id: await startWave(desk!, [order]) })).runs[0]!.id;
      const { picks } = await picker!.get('takeRun', { id: run, body: { cart } });
      await pickOne(
        picker!,
        run,
        picks.find((p) => p.step.units === 4)!,
        cart,
      );
      await takeIn(desk!, asks(1));
      const tasks = async () => (await desk!.get('deskTasks')).tasks.filter((t) => t.order === order);
      expect(await tasks()).toMatchObject([{ units: 3 }]);
      await back(run, order);
      expect(await tasks()).toEqual([]);
      expect(await lineOf(order)).toMatchObject({ asked: 4, cancelled: 3, picked: 0, released: asked[0] ?? 0 });
      const open = (await picker!.get('run', { id: run })).picks.filter((p) => p.state === 'open');
      expect(open.map((p) => p.step.units)).toEqual(asked);
    },
  );

  /** Puts all that lies at the bench into a carton, and closes it where told. */
  async function packed(order: string, units: number, close: boolean) {
    const input = (what: object) => packer!.get('packInput', { id: order, body: { bench: 'BENCH-1', input: what } });
    await input({ kind: 'scan', text: 'BOX-XL' });
    const { bench } = await packer!.get('benchOrder', { id: order });
    const [goods] = bench.loose;
    await input({ kind: 'put', item: goods!.item.id, lot: goods!.lot, units });
    if (close) await input({ kind: 'scan', text: 'DO-CLOSE' });
    return { input, goods: goods! };
  }
  const decide = async (number: string, decision: 'put-back' | 'ship-anyway') => {
    const { tasks } = await desk!.get('deskTasks');
    const task = tasks.find((t) => t.number === number)!;
    await desk!.get('settleTask', { id: task.id, body: { decision } });
    return task;
  };

  it('cancelled whole after packing: bench and dock stop, and what is in a closed carton goes back from it', async () => {
    const order = await pickedOrder(desk!, picker!, 'CART-04', { number: 'C-PACK', lines: [['HT-003', 3]] });
    const before = await lineOf(order);
    const { input, goods } = await packed(order, 2, true);
    expect((await picker!.refused('cancelOrder', { id: order, body: { reason: 'no right' } })).status).toBe(403);
    await desk!.get('cancelOrder', { id: order, body: { reason: 'customer rang' } });
    // Somebody at the bench would pack the rest, somebody at the dock would ship what is packed.
    const box = { kind: 'scan', text: 'BOX-XL' };
    const stopped = await packer!.refused('packInput', { id: order, body: { bench: 'BENCH-1', input: box } });
    expect(stopped).toMatchObject({ code: 'order-cancelled', facts: { order: 'C-PACK', units: 3 } });
    const shipment = (await packer!.get('benchOrder', { id: order })).shipment!;
    const confirm = { id: shipment, body: { rest: 'cancel' as const } };
    expect(await desk!.refused('confirm', confirm)).toMatchObject({ code: 'surplus-undecided', facts: { units: 3 } });
    expect(await decide('C-PACK', 'put-back')).toMatchObject({ units: 3, where: 'CART-04-1', cartons: [1] });
    expect((await desk!.get('order', { id: order })).status).toBe('cancelled');
    expect(await lineOf(order)).toMatchObject({ picked: 0, packed: 0, free: before.free + 3 });
    expect((await packer!.get('benchOrder', { id: order })).cartons).toEqual([]);
    const { trips } = await picker!.get('putAways');
    const back = trips.flatMap((t) => t.goods).filter((g) => g.order === 'C-PACK');
    expect(back.map((g) => [g.units, g.position, g.carton]).sort()).toEqual([
      [1, 1, null],
      [2, 0, 1],
    ]);
    expect(await input(box)).toMatchObject({ verdict: 'refused', code: 'nothing-to-pack' });
    expect(await input({ kind: 'put', item: goods.item.id, lot: goods.lot, units: 1 })).toMatchObject({
      verdict: 'refused',
    });
  });

  it('asked less after packing: the surplus is not packed, the carton that holds it opens again and its label is void', async () => {
    const order = await pickedOrder(desk!, picker!, 'CART-09', { number: 'C-LESS', lines: [['HT-003', 5]] });
    const { input, goods } = await packed(order, 4, true);
    const first = (await packer!.get('benchOrder', { id: order })).cartons[0]!;
    await takeIn(desk!, { number: 'C-LESS', lines: [['HT-003', 3]] });
    expect((await packer!.get('benchOrder', { id: order })).surplus).toMatchObject([{ units: 2 }]);
    await input({ kind: 'scan', text: 'BOX-XL' });
    const put = { kind: 'put' as const, item: goods.item.id, lot: goods.lot, units: 1 };
    const refused = await packer!.refused('packInput', { id: order, body: { bench: 'BENCH-1', input: put } });
    expect(refused).toMatchObject({ code: 'surplus-undecided', facts: { units: 2 } });
    expect((await packer!.refused('reopenCarton', { id: 'nothing', body: {} })).status).toBe(404);
    await decide('C-LESS', 'put-back');
    const now = await packer!.get('benchOrder', { id: order });
    expect(now.cartons).toMatchObject([{ id: first.id, number: 1, state: 'open', sscc: null }]);
    expect(await lineOf(order)).toMatchObject({ picked: 3, packed: 3 });
    await input({ kind: 'scan', text: 'DO-CLOSE' });
    const again = (await packer!.get('benchOrder', { id: order })).cartons[0]!;
    expect(again.sscc).not.toBe(first.sscc);
    // A person may open it too, as long as it is closed and nothing else is open.
    await packer!.get('reopenCarton', { id: first.id, body: { bench: 'BENCH-1' } });
    expect((await packer!.refused('reopenCarton', { id: first.id, body: {} })).code).toBe('carton-state');
    await input({ kind: 'scan', text: 'DO-CLOSE' });
    const { entries } = await desk!.get('trail', { id: order });
    expect(entries.filter((e) => e.kind === 'carton-reopened')).toHaveLength(2);
    await desk!.get('tracking', { id: now.shipment!, body: { from: 'carrier' } });
    await desk!.get('confirm', { id: now.shipment!, body: { rest: 'cancel' } });
    expect(await lineOf(order)).toMatchObject({ shipped: 3 });
  });

  it('puts back what a packer took out of a carton onto another cart of the order, as its own had left', async () => {
    const wanted = { number: 'C-CARTS', lines: [['HT-003', 3] as [string, number]] };
    const order = await pickedOrder(desk!, picker!, 'CART-15', wanted);
    const more = { number: 'C-CARTS', lines: [...wanted.lines, ['HT-004', 2] as [string, number]] };
    await takeIn(desk!, more);
    for (const run of (await desk!.get('wave', { id: await startWave(desk!, [order]) })).runs)
      await pickAll(picker!, run.id, 'CART-16');
    const pack = (input: object) => packer!.get('packInput', { id: order, body: { bench: 'BENCH-1', input } });
    await pack({ kind: 'scan', text: 'BOX-XL' });
    await pack({ kind: 'put', item: 'item-ht-003', lot: null, units: 3 });
    await pack({ kind: 'scan', text: 'DO-CLOSE' });
    const [carton] = (await packer!.get('benchOrder', { id: order })).cartons;
    await packer!.get('reopenCarton', { id: carton!.id, body: { bench: 'BENCH-1' } });
    const goods = { item: 'item-ht-003', lot: '', serial: '', units: 3 };
    await packer!.get('unpack', { id: carton!.id, body: goods });
    await takeIn(desk!, { number: 'C-CARTS', lines: [['HT-003', 1], more.lines[1]!] });
    expect(await decide('C-CARTS', 'put-back')).toMatchObject({ units: 2 });
    const back = (await picker!.get('putAways')).trips.flatMap((t) => t.goods).filter((g) => g.order === 'C-CARTS');
    expect(back.map((g) => g.units)).toEqual([2]);
    const { cartons } = await packAll(packer!, order);
    expect(cartons.flatMap((c) => c.contents).reduce((n, l) => n + l.units, 0)).toBe(3);
  });

  it('puts back what is surplus of one line, not the same item of another, wherever each is by then', async () => {
    const two = (first: number): Wanted => ({
      number: 'C-TWICE',
      lines: [
        ['HT-003', first],
        ['HT-003', 3],
      ],
    });
    const order = await pickedOrder(desk!, picker!, 'CART-11', two(2));
    // The bench gives what it packs to the first line that lacks it: line 1 is in the carton, line 2 on the cart.
    await packed(order, 2, true);
    expect(await lineOf(order, 1)).toMatchObject({ picked: 2, packed: 2 });
    await takeIn(desk!, two(1));
    await decide('C-TWICE', 'put-back');
    expect([await lineOf(order, 1), await lineOf(order, 2)]).toMatchObject([
      { picked: 1, packed: 1 },
      { picked: 3, packed: 0 },
    ]);
    await packAll(packer!, order);
    expect([await lineOf(order, 1), await lineOf(order, 2)]).toMatchObject([
      { picked: 1, packed: 1 },
      { picked: 3, packed: 3 },
    ]);
  });

  it('discards an empty carton that was left open, once its order is settled or its shipment leaves', async () => {
    const gone = await pickedOrder(desk!, picker!, 'CART-12', { number: 'C-EMPTY', lines: [['HT-003', 2]] });
    const open = (order: string) =>
      packer!.get('packInput', { id: order, body: { bench: 'BENCH-1', input: { kind: 'scan', text: 'BOX-XL' } } });
    await open(gone);
    await desk!.get('cancelOrder', { id: gone, body: { reason: 'customer rang' } });
    await decide('C-EMPTY', 'put-back');
    expect((await desk!.get('order', { id: gone })).status).toBe('cancelled');
    expect((await packer!.get('benchOrder', { id: gone })).cartons).toEqual([]);
    expect((await desk!.get('dock')).shipments.filter((s) => s.order === gone)).toEqual([]);
    // Packed by less than was picked, a new carton begun, and the rest cancelled: what is packed may leave.
    const order = await pickedOrder(desk!, picker!, 'CART-13', { number: 'C-BEGUN', lines: [['HT-003', 3]] });
    await packed(order, 2, true);
    await open(order);
    await takeIn(desk!, { number: 'C-BEGUN', lines: [['HT-003', 2]] });
    await decide('C-BEGUN', 'put-back');
    const { shipment, cartons } = await packer!.get('benchOrder', { id: order });
    expect(cartons).toMatchObject([{ number: 1, state: 'closed' }]);
    await desk!.get('tracking', { id: shipment!, body: { from: 'carrier' } });
    expect(await desk!.get('confirm', { id: shipment!, body: { rest: 'cancel' } })).toMatchObject({
      state: 'confirmed',
    });
  });

  it('closes with what it shipped: split off its rest, or asked less than has left, nothing of it stays open', async () => {
    /** Two of three leave, the third is still open. */
    const shippedTwo = async (number: string, cart: string) => {
      const order = await pickedOrder(desk!, picker!, cart, { number, lines: [['HT-003', 2]] });
      await takeIn(desk!, { number, lines: [['HT-003', 3]] });
      await packAll(packer!, order);
      const { shipment } = await packer!.get('benchOrder', { id: order });
      await desk!.get('tracking', { id: shipment!, body: { from: 'carrier' } });
      await desk!.get('confirm', { id: shipment!, body: { rest: 'keep-open' } });
      return order;
    };
    const split = await shippedTwo('C-SPLIT', 'CART-14');
    const [line] = (await desk!.get('order', { id: split })).lines;
    const due = new Date(Date.now() + 5 * 86_400_000).toISOString().slice(0, 10);
    const { id: part } = await desk!.get('splitOrder', {
      id: split,
      body: { lines: [{ line: line!.id, units: 1 }], due },
    });
    expect((await desk!.get('order', { id: split })).status).toBe('closed');
    expect((await desk!.get('order', { id: part })).status).toBe('open');
    // What has left cannot be put back: the order asks what it shipped, and nobody has to decide anything.
    const less = await shippedTwo('C-SHIPPED', 'CART-15');
    await takeIn(desk!, { number: 'C-SHIPPED', lines: [['HT-003', 1]] });
    expect((await desk!.get('order', { id: less })).status).toBe('closed');
    expect((await desk!.get('deskTasks')).tasks.filter((t) => t.number === 'C-SHIPPED')).toEqual([]);
    // One that an earlier version left open with nothing to do is closed by cancelling its open quantity.
    await relay.query(`update customer_order set status = 'open' where id = '${split}'`);
    expect((await desk!.get('stuck')).stuck).toMatchObject([{ kind: 'order-done', name: 'C-SPLIT' }]);
    await desk!.get('cancelRest', { id: split, body: { reason: 'nothing left' } });
    expect((await desk!.get('order', { id: split })).status).toBe('closed');
    expect((await desk!.get('stuck')).stuck).toEqual([]);
  });

  it('never ships another item than was picked: a line that is gone upstream keeps its item', async () => {
    const order = await pickedOrder(desk!, picker!, 'CART-10', {
      number: 'C-ITEM',
      lines: [
        ['HT-003', 2],
        ['HT-004', 1],
      ],
    });
    // The host drops line 2, and uses its number for another item later.
    expect(await told({ number: 'C-ITEM', lines: [['HT-003', 2]] })).toBe('same');
    const other: Wanted = {
      number: 'C-ITEM',
      lines: [
        ['HT-003', 2],
        ['HT-005', 1],
      ],
    };
    expect(await told(other)).toBe('under-way');
    expect(await lineOf(order, 2)).toMatchObject({ sku: 'HT-004', picked: 1 });
    await expect(
      relay.query(`update order_line set item_id = 'item-ht-005' where order_id = '${order}' and line = 2`),
    ).rejects.toMatchObject({ cause: { code: '23503' } });
    // Where nothing was ever worked, a line may become another item.
    const fresh = await takeIn(desk!, { number: 'C-FRESH', lines: [['HT-003', 2]] });
    expect(await told({ number: 'C-FRESH', lines: [['HT-004', 2]] })).toBe('same');
    expect(await lineOf(fresh)).toMatchObject({ sku: 'HT-004' });
    await decide('C-ITEM', 'put-back');
    await packAll(packer!, order);
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
