import { shipmentExport } from '@hand-relay/contract';
import { checkDigit } from '@hand-relay/core/reading/gs1';
import { checkBooks } from './books.ts';
import { openTest, type Person, type TestRelay } from './relay.ts';
import { packAll, pickAll, pickedOrder, pickOne, startWave, takeIn, type Wanted } from './steps.ts';

describe('the dock', () => {
  let relay: TestRelay;
  let now = new Date();
  let [desk, picker, packer, dock] = [] as unknown as [Person, Person, Person, Person];
  let carts = 0;
  const signIn = async () => {
    [desk, picker, packer, dock] = await Promise.all([
      relay.as('maren'),
      relay.as('pico'),
      relay.as('ada'),
      relay.as('len'),
    ]);
  };
  beforeAll(async () => {
    relay = await openTest({ clock: () => now });
    await signIn();
  });
  afterAll(() => relay.close());
  afterEach(() => checkBooks(relay, expect.getState().currentTestName!));

  const cart = () => `CART-${String(++carts).padStart(2, '0')}`;
  /** An order that stands packed, and its shipment. */
  async function packed(wanted: Wanted) {
    const order = await pickedOrder(desk, picker, cart(), wanted);
    await packAll(packer, order);
    const { shipments } = await dock.get('dock');
    return shipments.find((s) => s.order === order)!;
  }

  it('knows by the channel which carrier takes it, and its numbers by their form', async () => {
    const freight = await packed({ number: 'D-FREIGHT', channel: 'account', lines: [['HT-002', 1]] });
    expect(freight).toMatchObject({ carrier: 'Fellhaul Freight', service: 'Pallet', departure: 'Fellhaul Pallet' });
    const type = (number: string) =>
      dock.refused('tracking', { id: freight.shipment, body: { from: 'person', number } });
    for (const wrong of ['RR473124829GB', 'FH123', 'FH1234567890', 'XX0000000000']) {
      const refused = await type(wrong);
      expect(refused).toMatchObject({
        status: 422,
        code: 'tracking-form',
        facts: { got: wrong, carrier: 'Fellhaul Freight' },
        fields: [{ path: 'number' }],
      });
    }
    const good = `FH123456789${checkDigit('123456789')}`;
    const typed = await dock.get('tracking', {
      id: freight.shipment,
      body: { from: 'person', number: ` ${good.toLowerCase().replace('fh', 'fh ')} ` },
    });
    expect(typed.row.tracking).toBe(good);
    // Another one takes its place until the shipment is confirmed.
    const fromCarrier = await dock.get('tracking', { id: freight.shipment, body: { from: 'carrier' } });
    expect(fromCarrier.row.tracking).toMatch(/^FH\d{10}$/);
    expect(fromCarrier.row.tracking).not.toBe(good);
    await dock.get('confirm', { id: freight.shipment, body: {} });
    expect((await dock.refused('tracking', { id: freight.shipment, body: { from: 'carrier' } })).code).toBe(
      'already-confirmed',
    );
  });

  it('asks how an order without departure leaves, and finds what left by any of its numbers', async () => {
    const order = await pickedOrder(desk, picker, cart(), { number: 'D-NOBODY', lines: [['GL-001', 1]] });
    await relay.query(`update customer_order set departure_id = null, leaves_at = null where id = '${order}'`);
    await packAll(packer, order);
    const row = (await dock.get('dock')).shipments.find((s) => s.order === order)!;
    expect(row).toMatchObject({ carrier: null, departure: null, carrierMissing: true });
    const id = row.shipment;
    for (const name of ['confirm', 'tracking'] as const)
      expect((await dock.refused(name, { id, body: name === 'confirm' ? {} : { from: 'carrier' } })).code).toBe(
        'carrier-missing',
      );
    const { services } = await dock.get('shipment', { id });
    const skylark = services.find((s) => s.carrier === 'Skylark Parcels')!;
    const choose = (service: string | null) => dock.get('chooseCarrier', { id, body: { service } });
    // It may leave without one, if somebody says so, and that may be thought over.
    expect(await choose(null)).toMatchObject({
      withoutCarrier: true,
      needsTracking: false,
      row: { carrierMissing: false },
    });
    expect(await choose(skylark.id)).toMatchObject({
      withoutCarrier: false,
      needsTracking: true,
      row: { carrier: 'Skylark Parcels', carrierMissing: false },
    });
    expect((await dock.refused('chooseCarrier', { id, body: { service: 'nobody' } })).status).toBe(404);
    const { tracking } = (await dock.get('tracking', { id, body: { from: 'carrier' } })).row;
    expect((await dock.refused('chooseCarrier', { id, body: { service: null } })).code).toBe('tracking-given');
    await dock.get('confirm', { id, body: {} });
    expect((await dock.refused('chooseCarrier', { id, body: { service: null } })).code).toBe('already-confirmed');
    const kinds = (await desk.get('trail', { id: order })).entries.map((e) => e.kind);
    expect(kinds).toEqual(expect.arrayContaining(['carrier-none', 'carrier-chosen']));

    const left = async (find?: string) =>
      (await dock.get('dock', { query: { state: 'confirmed', ...(find ? { find } : {}) } })).shipments.map(
        (s) => s.shipment,
      );
    expect((await left())[0]).toBe(id);
    const spaced = `${tracking!.slice(0, 2)} ${tracking!.slice(2, 8)}`.toLowerCase();
    for (const find of ['nobod', row.number.toLowerCase(), spaced, row.customer.slice(2, 7)])
      expect(await left(find)).toContain(id);
    expect(await left('50%')).toEqual([]);
    for (const code of [tracking!, row.number])
      expect(await dock.get('find', { query: { code } })).toMatchObject({ kind: 'shipment', id, orders: [order] });
    // Two days later the list is empty, and the search still finds it.
    now = new Date(now.getTime() + 49 * 3_600_000);
    await signIn();
    expect(await left()).toEqual([]);
    expect(await left('D-NOBODY')).toEqual([id]);
    now = new Date();
    await signIn();
  });

  it('needs no number for our own van', async () => {
    const van = await packed({ number: 'D-VAN', channel: 'field', lines: [['GL-001', 2]] });
    expect(van).toMatchObject({ carrier: 'Own van', tracking: null });
    expect(await dock.refused('tracking', { id: van.shipment, body: { from: 'carrier' } })).toMatchObject({
      code: 'no-tracking',
      facts: { carrier: 'Own van' },
    });
    expect(await dock.get('shipment', { id: van.shipment })).toMatchObject({ needsTracking: false, state: 'open' });
    const done = await dock.get('confirm', { id: van.shipment, body: {} });
    expect(done).toMatchObject({
      state: 'confirmed',
      confirmedBy: 'Len Corran',
      lines: [{ sku: 'GL-001', shipped: 2, open: 0 }],
      cartons: [{ state: 'shipped' }],
    });
    expect((await dock.get('dock')).shipments.map((s) => s.shipment)).not.toContain(van.shipment);
  });

  /** Picks an order of two units, one of which is not found, and packs it. */
  async function short(number: string, more: Partial<Wanted> = {}) {
    const order = await takeIn(desk, { number, channel: 'field', lines: [['CM-003', 2]], ...more });
    const wave = await startWave(desk, [order]);
    const [run] = (await desk.get('wave', { id: wave })).runs;
    const at = cart();
    const { picks } = await picker.get('takeRun', { id: run!.id, body: { cart: at } });
    const pick = picks[0]!;
    await picker.get('runInput', {
      id: run!.id,
      body: { pick: pick.step.id, input: { kind: 'short', units: 1, reason: 'damaged' } },
    });
    await pickOne(picker, run!.id, { ...pick, step: { ...pick.step, units: 1 } }, at);
    for (const other of picks.slice(1)) await pickOne(picker, run!.id, other, at);
    await picker.get('leaveRun', { id: run!.id, body: { lane: 'LANE-4' } });
    await packAll(packer, order);
    const { shipments } = await dock.get('dock');
    return { order, shipment: shipments.find((s) => s.order === order)!.shipment };
  }

  it('cancels the rest where that is decided, and the order is done', async () => {
    const { order, shipment } = await short('D-CANCEL');
    expect(await dock.refused('confirm', { id: shipment, body: {} })).toMatchObject({
      code: 'decide-rest',
      facts: { lines: [{ sku: 'CM-003', open: 2, packed: 1 }] },
    });
    await dock.get('confirm', { id: shipment, body: { rest: 'cancel' } });
    expect(await desk.get('order', { id: order })).toMatchObject({
      status: 'closed',
      lines: [{ asked: 2, cancelled: 1, shipped: 1, released: 1 }],
    });
    expect((await desk.refused('cancelRest', { id: order, body: { reason: 'once more' } })).code).toBe(
      'nothing-to-cancel',
    );
  });

  it('does not break up an order that ships complete, unless its rest is cancelled', async () => {
    const { order, shipment } = await short('D-WHOLE', { shipComplete: true });
    expect((await dock.refused('confirm', { id: shipment, body: { rest: 'keep-open' } })).code).toBe('ships-complete');
    await dock.get('confirm', { id: shipment, body: { rest: 'cancel' } });
    expect((await desk.get('order', { id: order })).status).toBe('closed');
  });

  it('ships the rest of an order later, as a shipment of its own', async () => {
    const { order, shipment } = await short('D-LATER');
    await dock.get('confirm', { id: shipment, body: { rest: 'keep-open' } });
    const wave = await startWave(desk, [order]);
    const [run] = (await desk.get('wave', { id: wave })).runs;
    await pickAll(picker, run!.id, cart());
    await packAll(packer, order);
    const second = (await dock.get('dock')).shipments.find((s) => s.order === order)!;
    expect(second).toMatchObject({ asked: 1, picked: 1, packed: 1, cartons: 1 });
    const done = await dock.get('confirm', { id: second.shipment, body: {} });
    expect(done.lines).toEqual([expect.objectContaining({ shipped: 1 })]);
    const detail = await desk.get('order', { id: order });
    expect(detail).toMatchObject({ status: 'closed', lines: [{ asked: 2, shipped: 2 }] });
    expect(detail.shipments.map((s) => s.state)).toEqual(['confirmed', 'confirmed']);
    // The first shipment still says what left with it.
    expect((await dock.get('shipment', { id: shipment })).lines[0]).toMatchObject({ shipped: 1 });
  });

  it("exports what left, by the site's own day, as JSON and as CSV that read the same", async () => {
    now = new Date(now.getTime() + 3 * 86_400_000);
    await signIn();
    const one = await packed({
      number: 'D-EXPORT',
      channel: 'field',
      lines: [
        ['PP-004', 2],
        ['RF-003', 1],
      ],
    });
    await dock.get('confirm', { id: one.shipment, body: {} });
    const day = now.toLocaleDateString('sv', { timeZone: 'Europe/London' });
    const { shipments } = await dock.get('shipmentsJson', { query: { from: day, to: day } });
    expect(shipments.map((s) => s.order)).toEqual(['D-EXPORT']);
    const { lines, cartons } = shipments[0]!;
    expect(lines.map((l) => [l.sku, l.units])).toEqual([
      ['PP-004', 2],
      ['RF-003', 1],
    ]);
    expect(lines[0]!.lots[0]!.lot).not.toBe('');
    expect(lines[1]!.lots).toEqual([
      expect.objectContaining({ units: 1, serial: expect.stringMatching(/^RF/) as string }),
    ]);
    expect(cartons[0]!.sscc).toMatch(/^\d{18}$/);
    const csv = (await dock.ask('shipmentsCsv', { query: { from: day, to: day } })).text.trimEnd().split('\r\n');
    const head = csv[0]!.split(',');
    const read = csv
      .slice(1)
      .map((row): Record<string, string> =>
        Object.fromEntries(row.split(',').map((cell, i): [string, string] => [head[i]!, cell])),
      );
    expect(read.map((r) => [r['order'], r['item'], r['units'], r['lot'], r['serial'], r['sscc']])).toEqual(
      lines.flatMap((l) => l.lots.map((p) => ['D-EXPORT', l.sku, String(p.units), p.lot, p.serial, p.sscc])),
    );
    // More than are read at once, and many at one moment.
    await relay.query(`
      insert into shipment (id, site_id, number, order_id, state, confirmed_at)
      select 'many' || n, site_id, 'MANY' || lpad(n::text, 4, '0'), order_id, 'confirmed', '2020-06-01T12:00:00Z'::timestamptz + make_interval(secs => n / 700)
      from shipment, generate_series(1, 1100) n where id = '${one.shipment}'`);
    const many = await dock.get('shipmentsJson', { query: { from: '2020-06-01', to: '2020-06-01' } });
    expect(shipmentExport.parse(many).shipments).toHaveLength(1100);
    expect(new Set(many.shipments.map((s) => s.shipment)).size).toBe(1100);
    const before = await dock.get('shipmentsJson', { query: { to: '2020-01-01' } });
    expect(before.shipments).toEqual([]);
    expect(await dock.refused('shipmentsJson', { query: { from: 'yesterday' } })).toMatchObject({
      status: 400,
      fields: [{ path: 'from' }],
    });
  });
});
