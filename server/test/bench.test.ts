import { checkDigit } from '@hand-relay/core/reading/gs1';
import { checkBooks } from './books.ts';
import { openTest, type Person, type TestRelay } from './relay.ts';
import { packAll, pickAll, pickedOrder, pickOne, startWave, takeIn } from './steps.ts';

describe('the bench', () => {
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

  const at = (order: string) => ({
    scan: (text: string) =>
      packer.get('packInput', { id: order, body: { bench: 'BENCH-1', input: { kind: 'scan', text } } }),
    put: (item: string, units: number, lot: string | null = null) =>
      packer.get('packInput', { id: order, body: { bench: 'BENCH-1', input: { kind: 'put', item, lot, units } } }),
    state: () => packer.get('benchOrder', { id: order }),
  });
  const gtin = (sku: string, level = 'unit') =>
    relay.scenario.items.find((i) => i.sku === sku)!.packs.find((p) => p.level === level)!.gtin;

  it('refuses what is wrong before it is done, says what was expected, and journals it', async () => {
    const order = await pickedOrder(desk, picker, 'CART-01', {
      number: 'B-1',
      lines: [
        ['JR-001', 14],
        ['HT-001', 2],
      ],
    });
    const bench = at(order);
    const refused = async (text: string) => {
      const { verdict, ...rest } = await bench.scan(text);
      expect(verdict).toBe('refused');
      return rest;
    };
    expect(await refused(gtin('JR-001'))).toMatchObject({ code: 'carton-first' });
    expect(await refused('DO-CLOSE')).toMatchObject({ code: 'nothing-to-close' });
    expect(await refused('BOX-HUGE')).toMatchObject({ code: 'unknown-carton', got: 'BOX-HUGE' });
    expect(await bench.scan('BOX-M')).toMatchObject({ verdict: 'open' });
    expect(await refused(gtin('JR-002'))).toMatchObject({ code: 'not-this-order' });
    expect(await refused('what is this')).toMatchObject({ code: 'no-item' });
    expect(await bench.scan(gtin('JR-001', 'inner'))).toMatchObject({ verdict: 'put', units: 12 });
    expect(await refused(gtin('JR-001', 'inner'))).toMatchObject({ code: 'surplus', got: '12', units: 2 });
    expect(await bench.put('item-jr-001', 2)).toMatchObject({ verdict: 'put', units: 2 });
    expect(await bench.put('item-jr-001', 1)).toMatchObject({ verdict: 'refused', code: 'not-this-order' });
    const { entries } = await desk.get('trail', { id: order });
    expect(entries.filter((e) => e.kind === 'pack-refused').map((e) => e.facts['code'])).toEqual([
      'carton-first',
      'nothing-to-close',
      'unknown-carton',
      'not-this-order',
      'no-item',
      'surplus',
      'not-this-order',
    ]);
    expect(
      (
        await packer.refused('packInput', {
          id: order,
          body: { bench: 'LANE-1', input: { kind: 'scan', text: 'BOX-S' } },
        })
      ).code,
    ).toBe('unknown-bench');
  });

  it('gives up an empty carton, by command or for another type, and opens none where nothing waits', async () => {
    const order = await pickedOrder(desk, picker, 'CART-02', { number: 'B-EMPTY', lines: [['HT-001', 1]] });
    const bench = at(order);
    const shipments = async () =>
      (await desk.get('dock')).shipments.filter((s) => s.order === order).map((s) => s.cartons);
    await bench.scan('BOX-S');
    // The wrong one was taken from the shelf: the next scan says which it is.
    await bench.scan('BOX-M');
    expect((await bench.state()).cartons).toMatchObject([{ number: 1, type: expect.any(String) as string }]);
    expect(await shipments()).toEqual([1]);
    expect(await bench.scan('DO-CLOSE')).toMatchObject({ verdict: 'discard' });
    expect((await bench.state()).cartons).toEqual([]);
    expect(await shipments()).toEqual([]);
    // Goods that went in and came out again leave it as empty.
    await bench.scan('BOX-S');
    await bench.put('item-ht-001', 1);
    const [carton] = (await bench.state()).cartons;
    await packer.get('unpack', { id: carton!.id, body: { item: 'item-ht-001', lot: '', serial: '', units: 1 } });
    expect(await bench.scan('DO-CLOSE')).toMatchObject({ verdict: 'discard' });
    await packAll(packer, order);
    const [shipment] = (await desk.get('dock')).shipments.filter((s) => s.order === order);
    await dock.get('tracking', { id: shipment!.shipment, body: { from: 'carrier' } });
    await dock.get('confirm', { id: shipment!.shipment, body: { rest: null } });
    const never = await takeIn(desk, { number: 'B-NEVER', lines: [['HT-001', 1]] });
    for (const id of [order, never]) {
      expect(await at(id).scan('BOX-S')).toMatchObject({ verdict: 'refused', code: 'nothing-to-pack' });
      expect((await desk.get('dock')).shipments.filter((s) => s.order === id)).toEqual([]);
    }
  });

  it('takes goods out again, back to their place on the cart, and weighs what is left', async () => {
    const order = await pickedOrder(desk, picker, 'CART-02', { number: 'B-2', lines: [['JR-003', 6]] });
    const bench = at(order);
    await bench.scan('BOX-M');
    await bench.put('item-jr-003', 6);
    const [tare, each] = (
      await relay.query<{ tare: number; each: number }>(
        "select t.tare_g as tare, i.weight_g as each from carton_type t, item i where t.code = 'BOX-M' and i.sku = 'JR-003'",
      )
    ).map((r) => [r.tare, r.each])[0]! as [number, number];
    const before = await bench.state();
    expect(before.cartons[0]).toMatchObject({ weightG: tare + 6 * each, state: 'open', sscc: null });
    const goods = { item: 'item-jr-003', lot: '', serial: '' };
    const carton = before.cartons[0]!.id;
    expect((await packer.refused('unpack', { id: carton, body: { ...goods, units: 7 } })).facts).toEqual({ units: 6 });
    await packer.get('unpack', { id: carton, body: { ...goods, units: 4 } });
    const after = await bench.state();
    expect(after.cartons[0]).toMatchObject({ weightG: tare + 2 * each, contents: [{ sku: 'JR-003', units: 2 }] });
    expect(after.bench.loose).toEqual([expect.objectContaining({ units: 4 })]);
    expect(after.lines[0]).toMatchObject({ picked: 6, packed: 2 });
    await bench.put('item-jr-003', 4);
    await bench.scan('DO-CLOSE');
    expect((await packer.refused('unpack', { id: carton, body: { ...goods, units: 1 } })).code).toBe('carton-closed');
    expect((await bench.state()).cartons[0]).toMatchObject({ weightG: tare + 6 * each, state: 'closed' });
  });

  it('numbers units from the range of the site, each once, with its check digit', async () => {
    const order = await pickedOrder(desk, picker, 'CART-03', { number: 'B-3', lines: [['QC-002', 6]] });
    const bench = at(order);
    const ssccs: string[] = [];
    for (let i = 0; i < 3; i++) {
      await bench.scan('BOX-S');
      await bench.put('item-qc-002', 2);
      const closed = await bench.scan('DO-CLOSE');
      expect(closed).toMatchObject({ verdict: 'close', lane: (await bench.state()).lane });
      ssccs.push(closed.sscc!);
    }
    // Extension digit 3, company prefix 9521234, then a running number, then the check digit.
    for (const sscc of ssccs) {
      expect(sscc).toMatch(/^39521234\d{10}$/);
      expect(String(checkDigit(sscc.slice(0, 17)))).toBe(sscc[17]);
    }
    const serials = ssccs.map((s) => Number(s.slice(8, 17)));
    expect(serials).toEqual([serials[0]!, serials[0]! + 1, serials[0]! + 2]);
    expect((await bench.state()).cartons.map((c) => c.number)).toEqual([1, 2, 3]);
    // The cart is free once nothing is left on it.
    const { runs } = await packer.get('bench');
    expect(runs.map((r) => r.cart)).not.toContain('CART-03');
  });

  it('says when the range of numbers is used up, loses nothing, and gives none twice when a site comes back to it', async () => {
    const order = await pickedOrder(desk, picker, 'CART-19', { number: 'B-LAST', lines: [['HT-001', 3]] });
    const bench = at(order);
    const { site } = await desk.get('site');
    const prefix = (gs1Prefix: string) => desk.get('changeSite', { body: { ...site, gs1Prefix } });
    const close = async () => {
      if ((await bench.state()).bench.carton === null) {
        await bench.scan('BOX-S');
        await bench.put('item-ht-001', 1);
      }
      return packer.ask('packInput', {
        id: order,
        body: { bench: 'BENCH-1', input: { kind: 'scan', text: 'DO-CLOSE' } },
      });
    };
    // A prefix of twelve digits leaves four: 9,999 units.
    await prefix('952123400001');
    await relay.query("insert into counter (site_id, name, last) values ('larkmoor', 'sscc', 9998)");
    const last = await close();
    expect((last.body as { sscc: string }).sscc).toMatch(/^\d9521234000019999\d$/);
    const full = await close();
    expect([full.status, full.body]).toMatchObject([409, { code: 'sscc-used-up', facts: { prefix: '952123400001' } }]);
    expect((await bench.state()).cartons.at(-1)).toMatchObject({ state: 'open', contents: [{ units: 1 }] });
    await prefix('952123400002');
    expect(((await close()).body as { sscc: string }).sscc).toMatch(/^\d9521234000020001\d$/);
    await prefix('952123400001');
    expect((await close()).status).toBe(409);
    // Where it was before it goes on where it was.
    await prefix(site.gs1Prefix);
    expect(((await close()).body as { sscc: string }).sscc).toMatch(/^39521234\d{10}$/);
  });

  it('plans the cartons of what was picked, keeps to it while it is put in, and follows who packs otherwise', async () => {
    const order = await pickedOrder(desk, picker, 'CART-20', {
      number: 'B-PLAN',
      lines: [
        ['JR-001', 6],
        ['AC-001', 2],
        ['PP-002', 2],
      ],
    });
    const bench = at(order);
    const plan = () => packer.get('packPlan', { id: order });
    const first = await plan();
    const sizeOf = new Map(relay.scenario.items.map((i) => [i.id, i]));
    // Acid and food are apart: two cartons at least, all units in them, each in its own turn and inside.
    expect(first.cartons.length).toBeGreaterThan(1);
    const packed = first.cartons.flatMap((c) => c.places.map((p) => p.item)).sort();
    const asked = (await bench.state()).bench.loose.flatMap((l) => Array.from({ length: l.units }, () => l.item.id));
    expect(packed).toEqual(asked.sort());
    for (const carton of first.cartons) {
      const groups = new Set(carton.places.flatMap((p) => sizeOf.get(p.item)!.family.apart ?? []));
      expect(groups.size).toBeLessThan(2);
      for (const { item, at: place, size } of carton.places) {
        expect([...size].sort()).toEqual([...sizeOf.get(item)!.size].sort());
        place.forEach((from, axis) => expect(from + size[axis]!).toBeLessThanOrEqual(carton.inner[axis]!));
        // Bottles stand.
        if (item === 'item-ac-001') expect(size[2]).toBe(sizeOf.get(item)!.size[2]);
      }
    }
    expect(first.boundMinor).toBeLessThanOrEqual(first.costMinor);
    expect(first.choices.map((c) => c.code)).toContain(first.cartons[0]!.code);
    expect(Math.min(...first.choices.map((c) => c.costMinor))).toBe(first.costMinor);

    await bench.scan(first.cartons[0]!.code);
    expect((await plan()).cartons).toEqual(first.cartons);
    const { item } = first.cartons[0]!.places[0]!;
    const row = (await bench.state()).bench.loose.find((l) => l.item.id === item)!;
    await bench.put(item, 1, row.lot);
    const later = await plan();
    expect(later.cartons).toEqual(first.cartons);
    expect(later).toMatchObject({ otherwise: false, choices: [] });
    // Another carton than was proposed: it comes first, with what it takes.
    await bench.scan('DO-CLOSE');
    const others = await plan();
    const dearer =
      others.choices.find((c) => c.code !== others.cartons[0]!.code && c.cartons === 1) ?? others.choices.at(-1)!;
    await bench.scan(dearer.code);
    expect((await plan()).cartons[0]!.code).toBe(dearer.code);
    expect((await plan()).costMinor).toBe(dearer.costMinor);
    expect((await packer.refused('packPlan', { id: 'none' })).status).toBe(404);
    expect((await picker.refused('packPlan', { id: order })).status).toBe(403);
  });

  it('keeps acid away from food, and asks for the lot or serial where there are several', async () => {
    const order = await pickedOrder(desk, picker, 'CART-04', {
      number: 'B-4',
      lines: [
        ['AC-001', 1],
        ['PP-002', 2],
        ['RF-002', 2],
      ],
    });
    const bench = at(order);
    const { bench: state } = await bench.state();
    const serials = state.loose.flatMap((l) => l.serial ?? []);
    expect(serials).toHaveLength(2);
    const acid = state.loose.find((l) => l.item.sku === 'AC-001')!;
    const paste = state.loose.find((l) => l.item.sku === 'PP-002')!;
    await bench.scan('BOX-M');
    await bench.put(acid.item.id, 1, acid.lot);
    expect(await bench.put(paste.item.id, 1, paste.lot)).toMatchObject({
      verdict: 'refused',
      code: 'keep-apart',
      got: paste.item.name,
      expected: acid.item.name,
    });
    expect(await bench.scan(gtin('RF-002'))).toMatchObject({ verdict: 'refused', code: 'which-serial' });
    expect(await bench.put('item-rf-002', 2)).toMatchObject({ verdict: 'refused', code: 'which-serial' });
    expect(await bench.scan(`01${gtin('RF-002')}21NOT-PICKED`)).toMatchObject({ code: 'wrong-serial' });
    expect(await bench.scan(`01${gtin('RF-002')}21${serials[0]}`)).toMatchObject({ verdict: 'put', units: 1 });
    expect(await bench.scan(serials[1]!)).toMatchObject({ verdict: 'put', units: 1 });
    expect(await bench.scan(serials[1]!)).toMatchObject({ verdict: 'refused' });
    await bench.scan('DO-CLOSE');
    await bench.scan('BOX-S');
    expect(await bench.scan(`01${gtin('PP-002')}10OTHER`)).toMatchObject({ code: 'wrong-lot', expected: paste.lot });
    expect(await bench.scan(`01${gtin('PP-002')}10${paste.lot}\u001d302`)).toMatchObject({ verdict: 'put', units: 2 });
    await bench.scan('DO-CLOSE');
    expect((await bench.state()).bench.loose).toEqual([]);
  });

  it('does not let the dock confirm what is not all packed', async () => {
    const order = await pickedOrder(desk, picker, 'CART-05', {
      number: 'B-5',
      lines: [
        ['UK-001', 2],
        ['BR-002', 1],
      ],
    });
    const bench = at(order);
    await bench.scan('BOX-L');
    await bench.put('item-uk-001', 1);
    const shipment = (await bench.state()).shipment!;
    expect((await dock.refused('confirm', { id: shipment, body: {} })).code).toBe('carton-still-open');
    await bench.scan('DO-CLOSE');
    expect(await dock.refused('confirm', { id: shipment, body: {} })).toMatchObject({
      code: 'not-all-packed',
      facts: {
        lines: [
          { sku: 'UK-001', picked: 2, packed: 1 },
          { sku: 'BR-002', picked: 1, packed: 0 },
        ],
      },
    });
    await packAll(packer, order);
    expect((await dock.refused('confirm', { id: shipment, body: {} })).code).toBe('tracking-missing');
  });

  it('says of an order that left what was packed of it, as long as another one of its cart is not', async () => {
    const [one, two] = [
      await takeIn(desk, { number: 'B-8', lines: [['HT-003', 3]] }),
      await takeIn(desk, { number: 'B-9', lines: [['HT-003', 1]] }),
    ];
    const wave = await startWave(desk, [one, two]);
    const { runs } = await desk.get('wave', { id: wave });
    await pickAll(picker, runs[0]!.id, 'CART-07');
    const { shipment } = await packAll(packer, one);
    await dock.get('tracking', { id: shipment!, body: { from: 'carrier' } });
    await dock.get('confirm', { id: shipment!, body: { rest: null } });
    const queue = await packer.get('bench');
    const onCart = queue.runs.find((r) => r.cart === 'CART-07')!.orders;
    expect(onCart.sort((a, b) => a.number.localeCompare(b.number))).toMatchObject([
      { number: 'B-8', units: 3, packed: 3 },
      { number: 'B-9', units: 1, packed: 0 },
    ]);
    await packAll(packer, two);
  });

  it('packs an order whose goods stand on two carts, and shows which is not here yet', async () => {
    const order = await takeIn(desk, { number: 'B-6', lines: [['HB-001', 2]] });
    await startWave(desk, [order]);
    const more = await takeIn(desk, { number: 'B-7', lines: [['FE-001', 1]] });
    await startWave(desk, [more]);
    const { waiting } = await picker.get('myRuns');
    const runOf = (o: string) =>
      relay
        .query<{ id: string }>(`select run_id as id from run_position where order_id = '${o}'`)
        .then((r) => r[0]!.id);
    expect(waiting.map((r) => r.id)).toEqual(expect.arrayContaining([await runOf(order), await runOf(more)]));
    expect((await at(order).state()).where).toEqual([expect.objectContaining({ state: 'waiting', cart: '' })]);
    expect((await at(order).state()).bench.loose).toEqual([]);
    await pickAll(picker, await runOf(order), 'CART-06');
    const queue = await packer.get('bench');
    expect(queue.benches.map((b) => b.code)).toEqual(['BENCH-1', 'BENCH-2', 'BENCH-3', 'BENCH-4']);
    expect(queue.runs.find((r) => r.cart === 'CART-06')).toMatchObject({
      lane: 'LANE-2',
      picker: 'Pico Lund',
      orders: [{ number: 'B-6', units: 2, packed: 0 }],
    });
    expect((await at(order).state()).where).toEqual([expect.objectContaining({ state: 'left', cart: 'CART-06' })]);
  });

  it('packs for the lines whose goods are here, so that a picker can still undo those of another line', async () => {
    const order = await takeIn(desk, { number: 'B-10', lines: [['HT-003', 2, 'unit', 2]] });
    const first = await startWave(desk, [order]);
    await pickAll(picker, (await desk.get('wave', { id: first })).runs[0]!.id, 'CART-08');
    // The same item once more, in a line that comes before the one whose goods are here.
    await takeIn(desk, {
      number: 'B-10',
      lines: [
        ['HT-003', 1, 'unit', 1],
        ['HT-003', 2, 'unit', 2],
      ],
    });
    const second = await startWave(desk, [order]);
    const run = (await desk.get('wave', { id: second })).runs[0]!.id;
    const taken = await picker.get('takeRun', { id: run, body: { cart: 'CART-09' } });
    await pickOne(picker, run, taken.picks[0]!, 'CART-09');
    await packAll(packer, order);
    expect((await desk.get('order', { id: order })).lines.map((l) => [l.line, l.packed])).toEqual([
      [1, 0],
      [2, 2],
    ]);
    expect(await picker.get('undoPick', { id: run })).toEqual({ pick: taken.picks[0]!.step.id });
    await pickOne(picker, run, taken.picks[0]!, 'CART-09');
    await picker.get('leaveRun', { id: run, body: { lane: 'LANE-2' } });
    await packAll(packer, order);
  });
});
