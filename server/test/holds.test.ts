import type { HoldRuleRow } from '@hand-relay/contract';
import { checkBooks } from './books.ts';
import { openTest, type Person, type TestRelay } from './relay.ts';
import { packAll, pickAll, pickedOrder, pickOne, startWave, takeIn, type Wanted } from './steps.ts';

const all = ['release', 'picking', 'packing', 'shipping'];

describe('holds', () => {
  let relay: TestRelay;
  let [desk, service, picker, packer, dock] = [] as unknown as Person[];
  const rule = (more: Partial<Omit<HoldRuleRow, 'id'>> & { id?: string | null } = {}) => ({
    id: null,
    name: 'No honey abroad',
    text: 'Honey needs papers. Ask the office.',
    conditions: { match: 'all', list: [{ field: 'note', test: 'contains', value: 'papers' }] },
    stops: ['release'],
    lifters: ['service'],
    ...more,
  });
  const hold = (order: string, stops = all) =>
    desk!.get('holdOrder', { id: order, body: { reason: 'Customer rang', stops } });
  const lift = async (order: string) => {
    for (const { id } of (await desk!.get('holds', { id: order })).holds)
      await desk!.get('liftHold', { id, body: { reason: 'All clear' } });
  };
  beforeAll(async () => {
    relay = await openTest();
    [desk, service, picker, packer, dock] = await Promise.all(
      (['maren', 'tobi', 'pico', 'ada', 'len'] as const).map((id) => relay.as(id)),
    );
  });
  afterAll(() => relay.close());

  it('are laid by a rule on what comes and on what is there, and go with their reason', async () => {
    const before = await takeIn(desk!, { number: 'H-BEFORE', lines: [['HT-003', 1]], note: 'needs papers' } as never);
    expect((await desk!.get('holds', { id: before })).holds).toEqual([]);
    const { rules } = await desk!.get('saveHoldRule', { body: rule() });
    const made = rules.find((r) => r.name === 'No honey abroad')!;
    expect(made.holding).toBe(1);
    const after = await takeIn(desk!, { number: 'H-AFTER', lines: [['HT-003', 1]], note: 'papers too' } as never);
    expect((await desk!.get('holds', { id: after })).holds).toMatchObject([
      { rule: 'No honey abroad', text: made.text, stops: ['release'], heldBy: null, mayLift: false },
    ]);
    expect((await desk!.get('outlook')).orders.find((r) => r[0] === after)!.slice(0, 4)).toEqual([after, 'held', 0, 0]);
    expect(await desk!.get('previewRelease', { body: { orders: [after] } })).toMatchObject({
      units: 0,
      held: [{ order: 'H-AFTER', why: made.text }],
    });
    expect((await desk!.refused('release', { body: { orders: [after] } })).code).toBe('nothing-to-release');
    // The order changes and its reason goes; later the rule itself does.
    await takeIn(desk!, { number: 'H-AFTER', lines: [['HT-003', 1]], note: 'none' } as never);
    expect((await desk!.get('holds', { id: after })).holds).toEqual([]);
    await desk!.get('saveHoldRule', { body: rule({ id: made.id, retired: true }) });
    expect((await desk!.get('holds', { id: before })).holds).toEqual([]);
    expect((await desk!.get('trail', { id: before })).entries.map((e) => e.kind)).toEqual(
      expect.arrayContaining(['hold-laid', 'hold-gone']),
    );
  });

  it('ask about everything that the list of orders shows, and follow a tag or a departure at once', async () => {
    const order = await takeIn(desk!, { number: 'H-TAG', lines: [['HT-003', 1]], reference: 'PO 901' });
    const names = async () => (await desk!.get('holds', { id: order })).holds.map((h) => h.rule);
    const { departure, carrier: both } = await desk!.get('order', { id: order });
    // The page of an order names the service behind its carrier.
    const carrier = (await desk!.get('deskPlaces')).carriers.find((name) => both!.startsWith(name));
    const conditions: [field: string, value: string][] = [
      ['tags', 'wait'],
      ['reference', 'PO 901'],
      ['departure', departure!],
      ['carrier', carrier!],
      ['kind', 'order'],
    ];
    const list = conditions.map(([field, value]) => ({ field, test: 'is' as const, value }));
    const { rules } = await desk!.get('saveHoldRule', {
      body: rule({ name: 'By tag', conditions: { match: 'all', list } }),
    });
    expect(await names()).toEqual([]);
    await desk!.get('tagOrders', { body: { orders: [order], add: ['wait'] } });
    expect(await names()).toEqual(['By tag']);
    const other = (await desk!.get('deskPlaces')).departures.find((d) => d !== departure)!;
    const move = (to: string) =>
      desk!.get('changeOrders', { body: { mode: 'change', changes: [{ orders: [order], set: { departure: to } }] } });
    await move(other);
    expect(await names()).toEqual([]);
    await move(departure!);
    expect(await names()).toEqual(['By tag']);
    await desk!.get('tagOrders', { body: { orders: [order], remove: ['wait'] } });
    expect(await names()).toEqual([]);
    await desk!.get('saveHoldRule', {
      body: rule({ id: rules.find((r) => r.name === 'By tag')!.id, name: 'By tag', retired: true }),
    });
  });

  it('are lifted by whoever has a role that may, and are not laid on again by the same rule', async () => {
    await desk!.get('saveHoldRule', {
      body: rule({
        name: 'Only service',
        conditions: { match: 'all', list: [{ field: 'item', test: 'is', value: 'HT-005' }] },
      }),
    });
    const order = await takeIn(desk!, { number: 'H-LIFT', lines: [['HT-005', 1]] });
    const [laid] = (await service!.get('holds', { id: order })).holds;
    expect(laid!.mayLift).toBe(true);
    expect(await desk!.refused('liftHold', { id: laid!.id, body: { reason: 'I may not' } })).toMatchObject({
      status: 403,
      code: 'may-not-lift',
      facts: { roles: 'service' },
    });
    expect((await service!.get('liftHold', { id: laid!.id, body: { reason: 'Papers are here' } })).holds).toEqual([]);
    await takeIn(desk!, { number: 'H-LIFT', lines: [['HT-005', 2]] });
    expect((await desk!.get('holds', { id: order })).holds).toEqual([]);
    expect((await desk!.get('previewRelease', { body: { orders: [order] } })).units).toBe(2);
  });

  it('follow what is known of the customer, from the sheet of customers', async () => {
    const order = await takeIn(desk!, { number: 'H-CREDIT', lines: [['HT-003', 1]], customer: 'C1040' });
    const { rows } = await desk!.get('sheetRows', { id: 'customers' });
    const row = rows.find((r) => r['customer'] === 'C1040')!;
    const tell = (credit_stop: boolean) =>
      desk!.get('changeSheet', { id: 'customers', body: { rows: [{ ...row, credit_stop }] } });
    await tell(true);
    expect((await desk!.get('holds', { id: order })).holds).toMatchObject([{ rule: 'Credit stop', stops: all }]);
    await tell(false);
    expect((await desk!.get('holds', { id: order })).holds).toEqual([]);
  });

  it('stop a picker in the aisle, who goes on with the rest and leaves without it', async () => {
    const [one, other] = [
      await takeIn(desk!, { number: 'H-PICK1', lines: [['HT-003', 2]], priority: 1 }),
      await takeIn(desk!, { number: 'H-PICK2', lines: [['HT-004', 2]], priority: 1 }),
    ];
    const wave = await startWave(desk!, [one, other]);
    const { runs } = await desk!.get('wave', { id: wave });
    expect(runs).toHaveLength(1);
    const run = await picker!.get('takeRun', { id: runs[0]!.id, body: { cart: 'CART-01' } });
    await hold(one);
    const now = await picker!.get('run', { id: run.run.id });
    const [stopped, free] = [one, other].map((o) => now.picks.find((p) => p.order.id === o)!);
    expect([stopped!.order.hold, free!.order.hold]).toEqual(['Customer rang', null]);
    const refused = await picker!.refused('runInput', {
      id: run.run.id,
      body: { pick: stopped!.step.id, input: { kind: 'scan', text: stopped!.step.bin } },
    });
    expect(refused).toMatchObject({ code: 'order-held', facts: { order: 'H-PICK1', why: 'Customer rang' } });
    expect((await desk!.get('trail', { id: one })).entries.at(-1)).toMatchObject({
      kind: 'scan-refused',
      facts: { code: 'order-held', bin: stopped!.step.bin },
    });
    expect((await picker!.refused('leaveRun', { id: run.run.id, body: { lane: 'LANE-1' } })).code).toBe('picks-left');
    await pickOne(picker!, run.run.id, free!, 'CART-01');
    await picker!.get('leaveRun', { id: run.run.id, body: { lane: 'LANE-1' } });
    const detail = await desk!.get('order', { id: one });
    expect(detail.lines[0]).toMatchObject({ released: 0, reserved: 0, picked: 0 });
    expect((await desk!.refused('release', { body: { orders: [one] } })).code).toBe('nothing-to-release');
    await lift(one);
    expect((await desk!.get('previewRelease', { body: { orders: [one] } })).units).toBe(2);
    await packAll(packer!, other);
    await checkBooks(relay, expect.getState().currentTestName!);
  });

  it('stop the bench and the dock, where goods stay until the hold is lifted', async () => {
    const order = await pickedOrder(desk!, picker!, 'CART-02', { number: 'H-BENCH', lines: [['HT-003', 1]] });
    await hold(order, ['packing']);
    const input = { id: order, body: { bench: 'BENCH-1', input: { kind: 'scan', text: 'BOX-XL' } } };
    expect((await packer!.refused('packInput', input)).code).toBe('order-held');
    await lift(order);
    await packAll(packer!, order);
    await hold(order, ['shipping']);
    const { shipments } = await desk!.get('order', { id: order });
    await dock!.get('tracking', { id: shipments[0]!.id, body: { from: 'carrier' } });
    expect((await dock!.refused('confirm', { id: shipments[0]!.id, body: { rest: null } })).code).toBe('order-held');
    expect((await dock!.get('holds', { id: order })).holds).toMatchObject([{ mayLift: false, heldBy: 'Maren Holt' }]);
    await lift(order);
    await dock!.get('confirm', { id: shipments[0]!.id, body: { rest: null } });
    expect((await desk!.refused('holdOrder', { id: order, body: { reason: 'Too late', stops: all } })).code).toBe(
      'order-closed',
    );
    await checkBooks(relay, expect.getState().currentTestName!);
  });

  it('leave a way out at bench and dock: the goods go back, the cart is free, the order waits at the Desk', async () => {
    const lines: Wanted['lines'] = [
      ['HT-003', 2],
      ['HT-003', 3],
    ];
    const order = await pickedOrder(desk!, picker!, 'CART-03', { number: 'H-RETURN', lines });
    const back = (reason = 'waits too long') => ({ id: order, body: { reason } });
    expect((await packer!.refused('returnGoods', back())).code).toBe('not-held');
    const input = (what: object) => packer!.get('packInput', { id: order, body: { bench: 'BENCH-1', input: what } });
    await input({ kind: 'scan', text: 'BOX-XL' });
    await input({ kind: 'put', item: 'item-ht-003', lot: null, units: 3 });
    await input({ kind: 'scan', text: 'DO-CLOSE' });
    await hold(order, ['shipping']);
    expect((await packer!.get('holds', { id: order })).goods).toBe(5);
    expect((await picker!.refused('returnGoods', back())).status).toBe(403);
    expect((await packer!.refused('returnGoods', back('x'))).fields[0]!.path).toBe('reason');
    expect(await packer!.get('returnGoods', back())).toEqual({ units: 5 });
    expect((await packer!.refused('returnGoods', back())).code).toBe('nothing-picked');
    const { lines: now, status } = await desk!.get('order', { id: order });
    expect([status, now.map((l) => [l.asked, l.cancelled, l.released, l.picked, l.packed])]).toEqual([
      'open',
      [
        [2, 0, 0, 0, 0],
        [3, 0, 0, 0, 0],
      ],
    ]);
    const { trips } = await picker!.get('putAways');
    const goods = trips.flatMap((t) => t.goods).filter((g) => g.order === 'H-RETURN');
    expect(goods.reduce((n, g) => n + g.units, 0)).toBe(5);
    expect((await packer!.get('benchOrder', { id: order })).cartons).toEqual([]);
    await checkBooks(relay, 'returned');
    // Once lifted it goes the whole way again.
    await lift(order);
    const wave = await startWave(desk!, [order]);
    for (const run of (await desk!.get('wave', { id: wave })).runs) await pickAll(picker!, run.id, 'CART-05');
    expect((await packAll(packer!, order)).cartons).toHaveLength(1);
  });

  it('need a right by hand, a reason, and conditions that can be understood', async () => {
    const body = { reason: 'x', stops: ['picking'] };
    expect((await desk!.refused('holdOrder', { id: 'order-la-20012', body })).fields[0]!.path).toBe('reason');
    expect(
      (await picker!.refused('holdOrder', { id: 'order-la-20012', body: { ...body, reason: 'because' } })).status,
    ).toBe(403);
    expect((await service!.refused('saveHoldRule', { body: rule() })).status).toBe(403);
    const wrong = await desk!.refused('saveHoldRule', {
      body: rule({
        name: 'Wrong',
        conditions: { match: 'all', list: [{ field: 'value', test: 'contains', value: '5' }] },
      }),
    });
    expect(wrong).toMatchObject({
      code: 'conditions-wrong',
      fields: [{ path: 'conditions.list.0', message: 'a-test' }],
    });
  });
});
