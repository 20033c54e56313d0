import { checkBooks } from './books.ts';
import { openTest, type Person, type TestRelay } from './relay.ts';
import { pickedOrder, pickAll, startWave, takeIn } from './steps.ts';

describe('orders that are not packed', () => {
  let relay: TestRelay;
  let [desk, picker, packer, dock] = [] as unknown as [Person, Person, Person, Person];
  beforeAll(async () => {
    relay = await openTest();
    [desk, picker, packer, dock] = await Promise.all([
      relay.as('maren'),
      relay.as('pico'),
      relay.as('ada'),
      relay.as('len'),
    ]);
  });
  afterAll(() => relay.close());
  afterEach(() => checkBooks(relay, expect.getState().currentTestName!));

  const change = (id: string, packing: 'usual' | 'pack' | 'as-picked') =>
    desk.get('changeOrders', { body: { mode: 'change', changes: [{ orders: [id], set: { packing } }] } });
  const sheet = async (id: 'channels' | 'customers' | 'items', key: string, column: string, set: object) => {
    const { rows } = await desk.get('sheetRows', { id, query: {} });
    const row = rows.find((r) => r[column] === key)!;
    return desk.get('changeSheet', { id, body: { rows: [{ ...row, ...set }] as never[] } });
  };
  /** Where a picked order waits. */
  const at = async (id: string) => ({
    bench: (await packer.get('bench')).runs.some((r) => r.orders.some((o) => o.id === id)),
    dock: (await dock.get('dock')).shipments.find((s) => s.order === id)?.loose ?? null,
  });
  let cart = 0;
  const picked = (number: string, more = {}) =>
    pickedOrder(desk, picker, `CART-${String(++cart).padStart(2, '0')}`, { number, lines: [['HT-001', 2]], ...more });

  it('by their own choice wait at the dock as picked, beside those on the same cart that are packed', async () => {
    const [one, two] = [
      await takeIn(desk, { number: 'PC-1', lines: [['HT-001', 1]] }),
      await takeIn(desk, { number: 'PC-2', lines: [['HT-001', 2]] }),
    ];
    const { undo } = await change(one, 'as-picked');
    expect((await desk.get('order', { id: one })).packing).toBe('as-picked');
    const { runs } = await desk.get('wave', { id: await startWave(desk, [one, two]) });
    for (const run of runs) await pickAll(picker, run.id, `CART-${String(++cart).padStart(2, '0')}`);
    expect([await at(one), await at(two)]).toEqual([
      { bench: false, dock: true },
      { bench: true, dock: null },
    ]);
    expect((await packer.get('benchOrder', { id: one })).lines[0]).toMatchObject({ picked: 1, packed: 1 });
    const { shipment } = (await dock.get('dock')).shipments.find((s) => s.order === one)!;
    await dock.get('tracking', { id: shipment, body: { from: 'carrier' } });
    await dock.get('confirm', { id: shipment, body: {} });
    expect((await desk.get('order', { id: one })).status).toBe('closed');
    expect(undo).toEqual([{ orders: [one], set: { packing: 'usual' }, was: { packing: 'as-picked' } }]);
  });

  it('by customer or channel, the customer before the channel, and by items that ship in their own box', async () => {
    await sheet('channels', 'field', 'channel', { packing: 'as-picked' });
    const byChannel = await picked('PC-3', { channel: 'field' });
    expect(await at(byChannel)).toEqual({ bench: false, dock: true });
    await sheet('customers', 'C1030', 'customer', { packing: 'pack' });
    const byCustomer = await picked('PC-4', { channel: 'field' });
    expect(await at(byCustomer)).toEqual({ bench: true, dock: null });
    await sheet('customers', 'C1030', 'customer', { packing: 'usual' });
    await sheet('items', 'HT-002', 'item', { own_box: true });
    const own = await picked('PC-5', { lines: [['HT-002', 1]] });
    expect(await at(own)).toEqual({ bench: false, dock: true });
    const mixed = await picked('PC-6', {
      lines: [
        ['HT-002', 1],
        ['HT-001', 1],
      ],
    });
    expect(await at(mixed)).toEqual({ bench: true, dock: null });
    expect((await sheet('channels', 'web', 'channel', { packing: 'never' })).errors).toMatchObject([
      { column: 'packing', expected: 'one-of' },
    ]);
  });

  it('are not sent to a bench, and confirmed without a device they wait at the dock too', async () => {
    await desk.get('changeSheet', {
      id: 'places',
      body: { rows: [{ place: 'BENCH-2', kind: 'bench', name: 'Bench 2', for_carrier: 'Skylark Parcels' }] as never[] },
    });
    const lane = async (id: string) => {
      const { runs } = await desk.get('wave', { id: await startWave(desk, [id]) });
      await picker.get('takeRun', { id: runs[0]!.id, body: { cart: `CART-${String(++cart).padStart(2, '0')}` } });
      return (await picker.get('run', { id: runs[0]!.id })).proposedLane;
    };
    const [packed, not] = [
      await takeIn(desk, { number: 'PC-7', lines: [['HT-001', 1]] }),
      await takeIn(desk, { number: 'PC-8', lines: [['HT-001', 1]] }),
    ];
    await change(not, 'as-picked');
    expect([await lane(packed), await lane(not)]).toEqual(['BENCH-2', expect.stringMatching(/^LANE-/)]);
    const quick = await takeIn(desk, { number: 'PC-9', lines: [['HT-001', 1]] });
    await change(quick, 'as-picked');
    const { orders } = await desk.get('quickList', { query: { order: quick } });
    const { lines } = orders.find((o) => o.id === quick)!;
    const picks = lines.flatMap((l) =>
      l.from.map(({ bin, lot, units }) => ({ line: l.line, bin, lot, units, serials: [] })),
    );
    const body = { orders: [{ order: quick, picks }] };
    expect(await desk.get('quickConfirm', { body })).toEqual({ shipments: [], toPack: [] });
    expect(await at(quick)).toEqual({ bench: false, dock: true });
  });
});
