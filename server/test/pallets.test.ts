import { checkBooks } from './books.ts';
import { openTest, type Person, type TestRelay } from './relay.ts';
import { pickedOrder } from './steps.ts';

let relay: TestRelay;
let [desk, picker, packer, dock] = [] as unknown as [Person, Person, Person, Person];
let euro: string;
beforeAll(async () => {
  relay = await openTest();
  [desk, picker, packer, dock] = await Promise.all([
    relay.as('maren'),
    relay.as('pico'),
    relay.as('ada'),
    relay.as('len'),
  ]);
  euro = (await packer.get('pallets')).types.find((t) => t.name === 'Euro pallet')!.id;
});
afterAll(() => relay.close());
afterEach(() => checkBooks(relay, expect.getState().currentTestName!));

let carts = 0;
/** An order whose goods are packed into so many closed cartons of two units. */
async function packed(number: string, cartons: number, box = 'BOX-M') {
  const id = await pickedOrder(desk, picker, `CART-${String(++carts).padStart(2, '0')}`, {
    number,
    lines: [['JR-003', 2 * cartons]],
  });
  const ssccs: string[] = [];
  const input = (what: object) =>
    packer.get('packInput', { id, body: { bench: 'BENCH-1', input: what as { kind: 'scan'; text: string } } });
  for (let n = 0; n < cartons; n++) {
    await input({ kind: 'scan', text: box });
    await input({ kind: 'put', item: 'item-jr-003', lot: null, units: 2 });
    ssccs.push((await input({ kind: 'scan', text: 'DO-CLOSE' })).sscc!);
  }
  return { id, ssccs };
}
const open = (orders: string[], more = {}) =>
  packer.get('openPallet', { body: { type: euro, orders, station: 'BENCH-1', ...more } });
const scan = (pallet: string, text: string) =>
  packer.get('stackInput', { id: pallet, body: { text, station: 'BENCH-1' } });
const detail = (id: string) => packer.get('pallet', { id });

describe('a pallet', () => {
  it('is planned for the cartons of an order, built as drawn, weighed, numbered, and its label printed twice', async () => {
    const order = await packed('P-1', 6);
    const { groups } = await packer.get('pallets');
    expect(groups.flatMap((g) => g.orders).find((o) => o.id === order.id)).toMatchObject({ cartons: 6 });
    const { id, number, planned, pallets, bound } = await open([order.id]);
    expect({ planned, pallets, bound }).toEqual({ planned: 6, pallets: 1, bound: 1 });
    const before = await detail(id);
    expect(before.places.map((p) => p.on)).toEqual(Array(6).fill(false));
    // Nothing hangs over the edge or lies in another, and each layer rests on the deck or on what is below it.
    const [length, width, highest] = before.type.sides;
    for (const { at, placed } of before.places) {
      expect(at[0] + placed[0]).toBeLessThanOrEqual(length);
      expect(at[1] + placed[1]).toBeLessThanOrEqual(width);
      expect(before.deckMm + at[2] + placed[2]).toBeLessThanOrEqual(highest);
    }
    for (const place of before.places)
      expect(await scan(id, place.sscc)).toMatchObject({ verdict: 'put', asPlanned: true });
    const cartons = await relay.query<{ weight: number }>(
      `select weight_g::int as weight from carton where order_id = '${order.id}'`,
    );
    const goods = cartons.reduce((n, c) => n + c.weight, 0);
    const after = await detail(id);
    expect(after).toMatchObject({ weightG: goods + 25_000, pallets: 1, besides: [] });
    expect(after.heightMm).toBeGreaterThan(before.deckMm);
    expect(after.centreMm![2]).toBeGreaterThan(0);
    const closed = await scan(id, 'DO-CLOSE');
    expect(closed).toMatchObject({ verdict: 'close', name: number, printer: 'LABEL-1' });
    const [job] = (await desk.get('printJobs', { query: {} })).jobs.filter((j) => j.title.endsWith(number));
    expect(job).toMatchObject({ copies: 2, printer: 'LABEL-1' });
    const zpl = String((await desk.ask('printJobZpl', { id: job!.id })).text);
    expect(zpl).toMatch(new RegExp(`>800${closed.sscc}\\^FS`));
    // Scanned it is found, with all that is on it; its cartons lead to it in the trail.
    expect(await dock.get('find', { query: { code: closed.sscc! } })).toMatchObject({
      kind: 'pallet',
      id,
      orders: [order.id],
    });
    const { entries } = await desk.get('trail', { id: order.id });
    expect(entries.filter((e) => e.kind === 'stacked')).toHaveLength(6);
    // It leaves with its shipment.
    const { shipments } = await dock.get('dock');
    const { shipment } = shipments.find((s) => s.order === order.id)!;
    await dock.get('tracking', { id: shipment, body: { from: 'carrier' } });
    await dock.get('confirm', { id: shipment, body: {} });
    expect((await detail(id)).state).toBe('shipped');
  });

  it('takes what belongs on it and nothing else; each refusal says why', async () => {
    const [one, two] = [await packed('P-2', 2), await packed('P-3', 2)];
    const { id } = await open([one.id]);
    const refused = async (text: string, pallet = id) => {
      const done = await scan(pallet, text);
      expect(done.verdict).toBe('refused');
      return done.code;
    };
    expect(await refused('395212349999999995')).toBe('unit-unknown');
    expect(await refused('hello')).toBe('unit-unknown');
    await scan(id, one.ssccs[0]!);
    expect(await refused(one.ssccs[0]!)).toBe('on-this');
    expect(await scan(id, two.ssccs[0]!)).toMatchObject({ verdict: 'put', asPlanned: false });
    expect((await detail(id)).besides).toHaveLength(1);
    // While it is built its shipment does not leave, and what is on it is not opened.
    const { shipments } = await dock.get('dock');
    const { shipment } = shipments.find((s) => s.order === one.id)!;
    await dock.get('tracking', { id: shipment, body: { from: 'carrier' } });
    expect((await dock.refused('confirm', { id: shipment, body: {} })).code).toBe('pallet-open');
    const [carton] = (await packer.get('benchOrder', { id: one.id })).cartons;
    const reopen = await packer.refused('reopenCarton', { id: carton!.id, body: { bench: 'BENCH-1' } });
    expect(reopen.code).toBe('on-pallet');
    // The last one off again; what leaves at another time is refused.
    expect(await scan(id, 'DO-UNDO')).toMatchObject({ verdict: 'taken-off', name: 'P-3 · 1' });
    await relay.query(`update customer_order set leaves_at = leaves_at + interval '1 day' where id = '${two.id}'`);
    expect(await refused(two.ssccs[0]!)).toBe('other-departure');
    expect((await packer.refused('openPallet', { body: { type: euro, orders: [one.id, two.id] } })).code).toBe(
      'other-departure',
    );
    await desk.get('holdOrder', { id: one.id, body: { reason: 'Customer rang', stops: ['shipping'] } });
    expect(await refused(one.ssccs[1]!)).toBe('unit-held');
    await scan(id, 'DO-CLOSE');
    expect(await refused(one.ssccs[1]!)).toBe('pallet-closed');
  });

  it('stands on another with all that is on it; reopened or broken up its label is void', async () => {
    const order = await packed('P-4', 4);
    const crate = await open([]);
    for (const sscc of order.ssccs.slice(0, 2)) await scan(crate.id, sscc);
    const { sscc: inner } = await scan(crate.id, 'DO-CLOSE');
    const outer = await open([order.id]);
    expect((await detail(outer.id)).places).toHaveLength(2);
    expect(await scan(outer.id, inner!)).toMatchObject({ verdict: 'put', name: crate.number });
    await scan(outer.id, order.ssccs[2]!);
    // A carton of a closed one stays there; the inner one is not opened while it stands on the outer.
    expect(await scan(outer.id, order.ssccs[0]!)).toMatchObject({ code: 'on-closed-pallet', expected: crate.number });
    expect((await packer.refused('reopenPallet', { id: crate.id, body: {} })).code).toBe('on-pallet');
    const [tare] = (
      await relay.query<{ tare: number }>('select tare_g as tare from pallet_type where name = $$Euro pallet$$')
    ).map((t) => t.tare);
    const weights = await relay.query<{ weight: number }>(
      `select weight_g::int as weight from carton where order_id = '${order.id}' order by number`,
    );
    expect((await detail(outer.id)).weightG).toBe(2 * tare! + weights.slice(0, 3).reduce((n, w) => n + w.weight, 0));
    const { sscc: whole } = await scan(outer.id, 'DO-CLOSE');
    await packer.get('breakPallet', { id: outer.id, body: {} });
    expect(await packer.get('find', { query: { code: whole! } })).toMatchObject({ kind: 'void', name: outer.number });
    expect((await packer.refused('pallet', { id: outer.id })).status).toBe(404);
    // The crate stands alone again, with its two.
    await packer.get('reopenPallet', { id: crate.id, body: {} });
    await packer.get('takeOff', { id: crate.id, body: { unit: (await detail(crate.id)).besides[0]!.id } });
    expect((await detail(crate.id)).besides).toHaveLength(1);
    const { sscc: again } = await scan(crate.id, 'DO-CLOSE');
    expect(again).not.toBe(inner);
    expect((await packer.refused('takeOff', { id: crate.id, body: { unit: 'x' } })).code).toBe('pallet-closed');
    expect((await packer.refused('breakPallet', { id: outer.id, body: {} })).status).toBe(404);
  });

  it('that stays empty is none; what is too large for it, or nothing, is no plan', async () => {
    const empty = await open([]);
    expect(await scan(empty.id, 'DO-UNDO')).toMatchObject({ code: 'nothing-to-undo' });
    expect(await scan(empty.id, 'DO-CLOSE')).toEqual({ verdict: 'discard' });
    expect((await packer.refused('pallet', { id: empty.id })).status).toBe(404);
    expect((await packer.refused('openPallet', { body: { type: euro, orders: ['none'] } })).code).toBe(
      'nothing-to-stack',
    );
    const order = await packed('P-5', 1);
    await relay.query(`update pallet_type set max_height_mm = height_mm + 10 where id = '${euro}'`);
    expect(await packer.refused('openPallet', { body: { type: euro, orders: [order.id] } })).toMatchObject({
      code: 'unit-too-large',
      facts: { name: 'P-5 · 1' },
    });
    expect((await picker.refused('pallets')).status).toBe(403);
  });
});

it('a crate on a pallet: neither leaves while one is built, and both leave stock with the last carton', async () => {
  await relay.query(`update pallet_type set max_height_mm = 1800 where id = '${euro}'`);
  await desk.get('changePackaging', { id: euro, body: { accounting: 'with-unit' } });
  await desk.get('actOnPackaging', { id: euro, body: { act: 'counted', units: 10 } });
  const order = await packed('P-7', 2);
  const [inner, outer] = [await open([]), await open([])];
  await scan(inner.id, order.ssccs[0]!);
  const { sscc } = await scan(inner.id, 'DO-CLOSE');
  await scan(outer.id, sscc!);
  await scan(outer.id, order.ssccs[1]!);
  // What was put on last comes off first, and then what was before it.
  expect(await scan(outer.id, 'DO-UNDO')).toMatchObject({ name: 'P-7 · 2' });
  expect(await scan(outer.id, 'DO-UNDO')).toMatchObject({ name: inner.number });
  await scan(outer.id, sscc!);
  const { shipments } = await dock.get('dock');
  const { shipment } = shipments.find((s) => s.order === order.id)!;
  await dock.get('tracking', { id: shipment, body: { from: 'carrier' } });
  const early = await dock.refused('confirm', { id: shipment, body: {} });
  expect(early).toMatchObject({ code: 'pallet-open', facts: { pallet: outer.number } });
  await scan(outer.id, 'DO-CLOSE');
  const stock = async () => {
    const type = (await packer.get('packaging')).types.find((t) => t.id === euro)!;
    return [type.onHand, type.reserved];
  };
  const [onHand, reserved] = await stock();
  await dock.get('confirm', { id: shipment, body: {} });
  expect([(await detail(inner.id)).state, (await detail(outer.id)).state]).toEqual(['shipped', 'shipped']);
  expect(await stock()).toEqual([onHand! - 2, reserved! - 2]);
});

it('two who stack one carton at once stack it once', async () => {
  await relay.query(`update pallet_type set max_height_mm = 1800 where id = '${euro}'`);
  const order = await packed('P-6', 2);
  const [a, b] = [await open([order.id]), await open([order.id])];
  const done = await Promise.all([scan(a.id, order.ssccs[0]!), scan(b.id, order.ssccs[0]!)]);
  expect(done.map((d) => d.verdict)).toEqual(['put', 'put']);
  // The second took it from the first, and says so.
  const from = done.map((d) => d.from ?? null);
  expect(from.filter((f) => f !== null)).toHaveLength(1);
  const on = (await Promise.all([detail(a.id), detail(b.id)])).map((p) => p.places.filter((x) => x.on).length);
  expect(on.toSorted()).toEqual([0, 1]);
});
