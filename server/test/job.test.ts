import { openTest, type Person, type TestRelay } from './relay.ts';
import { packAll, pickAll, pickOne, startWave } from './steps.ts';

describe('the whole job', () => {
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

  /** Web orders that can go in full, of so many lines at least. */
  const covered = async (count: number, lines = 1) => {
    const { rows } = await desk.get('orders');
    return rows
      .filter((r) => r[2] === 'web' && Number(r[9]) >= lines && r[9] === r[10] && r[12] === 0)
      .slice(0, count)
      .map((r) => r[0] as string);
  };

  it('goes from release to a confirmed shipment, with stock booked out and a trail', async () => {
    const [id] = await covered(1);
    const preview = await desk.get('previewRelease', { body: { orders: [id] } });
    expect(preview).toMatchObject({ orders: 1, ordersComplete: 1, runs: 1, shorts: [] });
    await startWave(desk, [id!]);
    const { waiting } = await picker.get('myRuns');
    const run = await pickAll(picker, waiting[0]!.id, 'CART-01');
    expect(run.picks.length).toBeGreaterThan(0);
    const packed = await packAll(packer, id!);
    expect(packed.cartons.every((c) => /^3952\d{14}$/.test(c.sscc!))).toBe(true);

    const onHand = (await relay.query<{ n: number }>('select sum(on_hand)::int as n from stock_total'))[0]!.n;
    const { shipments } = await dock.get('dock');
    const { shipment } = shipments.find((s) => s.order === id)!;
    expect((await dock.refused('confirm', { id: shipment, body: {} })).code).toBe('tracking-missing');
    expect(
      (await dock.refused('tracking', { id: shipment, body: { from: 'person', number: 'RR473124828GB' } })).code,
    ).toBe('tracking-form');
    expect((await dock.get('tracking', { id: shipment, body: { from: 'carrier' } })).row.tracking).toMatch(
      /^RR\d{9}GB$/,
    );
    const done = await dock.get('confirm', { id: shipment, body: {} });
    expect(done.state).toBe('confirmed');
    const units = preview.units;
    expect((await relay.query<{ n: number }>('select sum(on_hand)::int as n from stock_total'))[0]!.n).toBe(
      onHand - units,
    );
    const order = await desk.get('order', { id: id! });
    expect(order).toMatchObject({ status: 'closed' });
    expect(order.lines.every((l) => l.shipped === l.asked && l.reserved === 0)).toBe(true);

    const { entries } = await desk.get('trail', { id: id! });
    const kinds = entries.map((e) => e.kind);
    for (const kind of [
      'order-taken',
      'released',
      'wave-planned',
      'wave-started',
      'run-taken',
      'scan-accepted',
      'picked',
      'cart-left',
      'carton-opened',
      'packed',
      'carton-closed',
      'tracking',
      'shipped',
    ])
      expect(kinds).toContain(kind);
    expect(entries.find((e) => e.kind === 'picked')!.person).toBe('Pico Lund');
    const exported = await dock.get('shipmentsJson');
    expect(exported.shipments[0]).toMatchObject({ order: order.number, tracking: done.row.tracking });
    expect(exported.shipments[0]!.lines.reduce((n, l) => n + l.units, 0)).toBe(units);
    const csv = await dock.ask('shipmentsCsv');
    expect(csv.text.split('\r\n')[0]).toBe(
      'shipment,order,kind,invoice,reference,customer,confirmed_at,carrier,service,tracking,line,item,units,lot,serial,sscc',
    );
    expect((await desk.get('waves')).waves[0]!.state).toBe('done');
  });

  it('ships once when confirmed twice, by a repeat and by a second person', async () => {
    const [id] = await covered(1);
    await startWave(desk, [id!]);
    await pickAll(picker, (await picker.get('myRuns')).waiting[0]!.id, 'CART-02');
    await packAll(packer, id!);
    const { shipment } = (await dock.get('dock')).shipments.find((s) => s.order === id)!;
    await dock.get('tracking', { id: shipment, body: { from: 'carrier' } });
    const before = (
      await relay.query<{ n: number }>("select count(*)::int as n from movement where reason = 'ship'")
    )[0]!.n;
    const first = await dock.get('confirm', { id: shipment, body: {}, key: 'once' });
    const again = await dock.get('confirm', { id: shipment, body: {}, key: 'once' });
    expect(again).toEqual(first);
    expect((await dock.refused('confirm', { id: shipment, body: {} })).code).toBe('already-confirmed');
    const after = (
      await relay.query<{ n: number; gone: number }>(
        `select count(*)::int as n from movement where reason = 'ship' and document = '${shipment}'`,
      )
    )[0]!.n;
    expect(
      (await relay.query<{ n: number }>("select count(*)::int as n from movement where reason = 'ship'"))[0]!.n,
    ).toBe(before + after);
    expect((await dock.refused('confirm', { id: shipment, body: { rest: 'cancel' }, key: 'once' })).code).toBe(
      'key-reused',
    );
  });

  it('gives a short back to Desk, undoes it, and ships short as decided', async () => {
    const [id] = await covered(1, 3);
    await startWave(desk, [id!]);
    const run = (await picker.get('myRuns')).waiting[0]!.id;
    const taken = await picker.get('takeRun', { id: run, body: { cart: 'CART-03' } });
    const [first, ...others] = taken.picks;
    const short = { kind: 'short', units: 0, reason: 'not-found' };
    const answer = await picker.get('runInput', { id: run, body: { pick: first!.step.id, input: short } });
    expect(answer).toMatchObject({ verdict: 'done' });
    const line = async () => (await desk.get('order', { id: id! })).lines.find((l) => l.sku === first!.step.item.sku)!;
    expect(await line()).toMatchObject({ released: 0, reserved: 0, free: expect.any(Number) as number });
    const toCount = (
      await relay.query<{ n: number }>(
        "select coalesce(sum(units), 0)::int as n from balance where place_id = 'inquiry-larkmoor'",
      )
    )[0]!.n;
    expect(toCount).toBeGreaterThanOrEqual(first!.step.units);

    expect(await picker.get('undoPick', { id: run })).toEqual({ pick: first!.step.id });
    expect(await line()).toMatchObject({ released: first!.step.units, reserved: first!.step.units });
    expect(
      (
        await relay.query<{ n: number }>(
          "select coalesce(sum(units), 0)::int as n from balance where place_id = 'inquiry-larkmoor'",
        )
      )[0]!.n,
    ).toBe(toCount - toCount);

    await picker.get('runInput', { id: run, body: { pick: first!.step.id, input: short } });
    expect((await picker.refused('leaveRun', { id: run, body: { lane: 'LANE-1' } })).code).toBe('picks-left');
    for (const pick of others) await pickOne(picker, run, pick, 'CART-03');
    expect((await picker.refused('leaveRun', { id: run, body: { lane: 'DOOR-1' } })).code).toBe('not-a-lane');
    await picker.get('leaveRun', { id: run, body: { lane: 'LANE-1' } });
    await packAll(packer, id!);
    const { shipment } = (await dock.get('dock')).shipments.find((s) => s.order === id)!;
    await dock.get('tracking', { id: shipment, body: { from: 'carrier' } });
    expect((await dock.refused('confirm', { id: shipment, body: {} })).code).toBe('decide-rest');
    await dock.get('confirm', { id: shipment, body: { rest: 'keep-open' } });
    expect(await desk.get('order', { id: id! })).toMatchObject({ status: 'open' });
    expect(await line()).toMatchObject({ asked: first!.step.units, shipped: 0 });
    await desk.get('cancelRest', { id: id!, body: { reason: 'customer agreed' } });
    expect(await desk.get('order', { id: id! })).toMatchObject({ status: 'closed' });
  });

  it('journals every refused scan with who and what, and names the item that was scanned', async () => {
    const [id] = await covered(1);
    await startWave(desk, [id!]);
    const run = (await picker.get('myRuns')).waiting[0]!.id;
    const taken = await picker.get('takeRun', { id: run, body: { cart: 'CART-04' } });
    const pick = taken.picks[0]!;
    const input = (what: object) => picker.get('runInput', { id: run, body: { pick: pick.step.id, input: what } });
    expect(await input({ kind: 'scan', text: pick.step.bin === 'A-01-1' ? 'A-01-2' : 'A-01-1' })).toMatchObject({
      verdict: 'refused',
      code: 'wrong-bin',
      expected: pick.step.bin,
    });
    await input({ kind: 'scan', text: pick.step.bin });
    const other = relay.scenario.items.find((i) => i.sku !== pick.step.item.sku)!;
    expect(await input({ kind: 'scan', text: other.packs[0]!.gtin })).toMatchObject({
      verdict: 'refused',
      code: 'wrong-item',
      gotName: other.name,
    });
    const { entries } = await desk.get('trail', { id: id! });
    expect(entries.filter((e) => e.kind === 'scan-refused').map((e) => [e.person, e.facts['code']])).toEqual([
      ['Pico Lund', 'wrong-bin'],
      ['Pico Lund', 'wrong-item'],
    ]);
    await picker.get('returnRun', { id: run });
    expect((await picker.get('myRuns')).waiting.map((r) => r.id)).toContain(run);
  });

  it('keeps a run to its picker, a cart to its run, and a wave that has begun', async () => {
    const ids = await covered(3);
    const wave = await startWave(desk, ids);
    const run = (await desk.get('wave', { id: wave })).runs[0]!.id;
    await picker.get('takeRun', { id: run, body: { cart: 'CART-05' } });
    const other = await relay.as('suri');
    expect((await other.refused('takeRun', { id: run, body: { cart: 'CART-06' } })).code).toBe('run-of-another');
    const detail = await other.get('run', { id: run });
    const pick = detail.picks[0]!;
    const scan = {
      id: run,
      body: { pick: pick.step.id, input: { kind: 'scan', text: pick.step.bin } },
      key: 'not-mine',
    };
    expect((await other.refused('runInput', scan)).code).toBe('run-of-another');
    // It is an error that was caught: counted, and once however often its answer was lost on the way.
    expect((await other.refused('runInput', scan)).code).toBe('run-of-another');
    expect(
      (await desk.get('trail', { id: pick.order.id })).entries
        .filter((e) => e.kind === 'scan-refused')
        .map((e) => [e.person, e.facts['code'], e.facts['picker'], e.facts['got']]),
    ).toEqual([['Suri Okell', 'run-of-another', 'Pico Lund', pick.step.bin]]);
    expect((await picker.get('run', { id: run })).picks[0]).toMatchObject({ state: 'open', progress: pick.progress });
    expect((await desk.refused('cancelWave', { id: wave })).code).toBe('wave-begun');
    expect((await desk.refused('planWave', { id: wave })).code).toBe('wave-state');
    await startWave(desk, await covered(1));
    const waiting = (await other.get('myRuns')).waiting.find((r) => r.id !== run)!;
    expect((await other.refused('takeRun', { id: waiting.id, body: { cart: 'CART-05' } })).code).toBe('cart-busy');
    expect((await other.refused('takeRun', { id: waiting.id, body: { cart: 'LANE-1' } })).code).toBe('not-a-cart');
    expect((await other.refused('takeRun', { id: waiting.id, body: { cart: 'CART-99' } })).code).toBe('unknown-cart');
  });

  it('takes an order out of a run, and a wave back, as if they had never been', async () => {
    const ids = await covered(4);
    const reserved = async () =>
      (await relay.query<{ n: number }>('select sum(reserved)::int as n from stock_total'))[0]!.n;
    const before = await reserved();
    const wave = await startWave(desk, ids);
    const { runs, orders } = await desk.get('wave', { id: wave });
    await desk.get('takeOut', { id: runs[0]!.id, body: { order: orders[0]!.id } });
    expect((await desk.get('order', { id: orders[0]!.id })).lines.every((l) => l.released === 0)).toBe(true);
    await desk.get('cancelWave', { id: wave });
    expect(await reserved()).toBe(before);
    for (const id of ids)
      expect((await desk.get('order', { id })).lines.every((l) => l.released === 0 && l.reserved === 0)).toBe(true);
  });

  it('pages the list with every order once, and reads named ones alone', async () => {
    const all: string[] = [];
    for (let after: string | undefined; ;) {
      const page = await desk.get('orders', { query: { limit: 40, status: 'all', ...(after ? { after } : {}) } });
      all.push(...page.rows.map((r) => r[0] as string));
      if (!page.next) break;
      after = page.next;
    }
    expect(all).toHaveLength(260);
    expect(new Set(all).size).toBe(260);
    expect((await desk.get('orders', { query: { ids: all.slice(0, 3).join(',') } })).rows).toHaveLength(3);
  });
});
