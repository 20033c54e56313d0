import { usualSettings } from '@hand-relay/core/deciding/settings';
import { postDaysOver } from '../src/bench/packaging/index.ts';
import { checkBooks } from './books.ts';
import { openTest, type Person, type TestRelay } from './relay.ts';
import { pickedOrder } from './steps.ts';

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

const stateOf = async (type: string) => (await packer.get('packaging')).types.find((t) => t.id === type)!;
const numbers = async (type: string) => {
  const { onHand, reserved, free, onOrder, propose } = await stateOf(type);
  return { onHand, reserved, free, onOrder, propose };
};
const rule = (type: string, body: object) =>
  desk.get('changePackaging', { id: type, body: { accounting: 'with-unit', ...body } });
const act = (type: string, what: 'ordered' | 'received' | 'counted', units: number) =>
  packer.get('actOnPackaging', { id: type, body: { act: what, units } });

let carts = 0;
/** An order of jars, packed into so many closed cartons of a type. */
async function packed(number: string, cartons: number, box = 'BOX-M', more: object = {}) {
  const id = await pickedOrder(desk, picker, `CART-${String(++carts).padStart(2, '0')}`, {
    number,
    lines: [['JR-003', cartons]],
    ...more,
  });
  const input = (what: { kind: 'scan'; text: string } | { kind: 'put'; item: string; lot: null; units: number }) =>
    packer.get('packInput', { id, body: { bench: 'BENCH-1', input: what } });
  const ids: string[] = [];
  for (let n = 0; n < cartons; n++) {
    await input({ kind: 'scan', text: box });
    await input({ kind: 'put', item: 'item-jr-003', lot: null, units: 1 });
    ids.push((await input({ kind: 'scan', text: 'DO-CLOSE' })).carton!);
  }
  return { id, ids };
}
async function ship(order: string) {
  const { shipment } = (await dock.get('dock')).shipments.find((s) => s.order === order)!;
  await dock.get('tracking', { id: shipment, body: { from: 'carrier' } });
  const body = { id: shipment, body: {}, key: `ship-${order}` };
  await dock.get('confirm', body);
  await dock.get('confirm', body);
}

// The worked example of the issue: common practice, its figures made up.
describe('packaging with the unit', () => {
  it('is received, reserved by closing, freed by reopening, and booked out once when it ships', async () => {
    expect((await packer.refused('actOnPackaging', { id: 'box-drum', body: { act: 'received', units: 1 } })).code).toBe(
      'not-accounted',
    );
    await rule('box-m', { reorderPoint: 39, lot: 25, ownLine: true });
    await act('box-m', 'counted', 14);
    await act('box-m', 'received', 25);
    expect(await numbers('box-m')).toMatchObject({ onHand: 39, reserved: 0, free: 39, propose: 25 });
    const order = await packed('PG-1', 1);
    expect(await numbers('box-m')).toMatchObject({ onHand: 39, reserved: 1, free: 38 });
    await packer.get('reopenCarton', { id: order.ids[0]!, body: { bench: 'BENCH-1' } });
    expect(await numbers('box-m')).toMatchObject({ onHand: 39, reserved: 0, free: 39 });
    const input = { kind: 'scan' as const, text: 'DO-CLOSE' };
    await packer.get('packInput', { id: order.id, body: { bench: 'BENCH-1', input } });
    await ship(order.id);
    expect(await numbers('box-m')).toMatchObject({ onHand: 38, reserved: 0, free: 38 });
    // A line of its own for the host, beside what was asked and picked; its cost stays with the order.
    const { messages } = await desk.get('hostMessages', { query: {} });
    const told = messages.find((m) => m.order === 'PG-1' && m.kind === 'confirmation')!;
    expect(told.facts).toMatchObject({
      packaging: [{ type: 'BOX-M', units: 1 }],
      lines: [{ sku: 'JR-003', units: 1 }],
    });
    const { entries } = await desk.get('trail', { id: order.id });
    expect(entries.find((e) => e.kind === 'shipped')!.facts).toMatchObject({ packagingMinor: 74 });
  });

  it('is proposed for purchase once, and a receipt ends the order', async () => {
    expect(await numbers('box-m')).toMatchObject({ onHand: 38, propose: 25 });
    await act('box-m', 'ordered', 25);
    expect(await numbers('box-m')).toMatchObject({ onHand: 38, onOrder: 25, propose: 0 });
    await act('box-m', 'received', 25);
    expect(await numbers('box-m')).toMatchObject({ onHand: 63, onOrder: 0, propose: 0 });
  });

  it('that is used up is proposed no more; where somebody packs on, what is missing is written down and counted', async () => {
    await act('box-m', 'counted', 1);
    const order = await packed('PG-2', 2);
    expect(await numbers('box-m')).toMatchObject({ onHand: 1, reserved: 2, free: 0 });
    const more = await pickedOrder(desk, picker, 'CART-20', { number: 'PG-3', lines: [['JR-001', 12]] });
    const { choices, cartons } = await packer.get('packPlan', { id: more, query: {} });
    expect([...choices, ...cartons].map((c) => c.code)).not.toContain('BOX-M');
    await ship(order.id);
    expect(await stateOf('box-m')).toMatchObject({ onHand: 0, countWanted: true });
    expect((await packer.get('packaging')).movements[0]).toMatchObject({ reason: 'shipped', units: -2, missing: 1 });
    await act('box-m', 'counted', 5);
    expect(await stateOf('box-m')).toMatchObject({ onHand: 5, countWanted: false });
  });

  it('is left alone for kinds of demand that the site does not account for', async () => {
    await desk.get('changeSiteSettings', { body: { ...usualSettings, packagingFor: ['invoiced'] } });
    const order = await packed('PG-4', 1);
    expect(await numbers('box-m')).toMatchObject({ onHand: 5, reserved: 0 });
    await ship(order.id);
    expect(await numbers('box-m')).toMatchObject({ onHand: 5 });
    await desk.get('changeSiteSettings', { body: usualSettings });
  });
});

it('packaging by the day leaves stock in one posting, also where two post at once', async () => {
  await rule('box-s', { accounting: 'daily' });
  await act('box-s', 'counted', 39);
  const order = await packed('PG-5', 7, 'BOX-S');
  expect(await stateOf('box-s')).toMatchObject({ onHand: 39, toPost: 7 });
  const post = () => packer.get('postPackaging', { body: {} });
  const both = (await Promise.all([post(), post()])).map((p) => p.postings);
  expect(both.flat()).toEqual([{ type: 'Small', units: 7 }]);
  expect(await numbers('box-s')).toMatchObject({ onHand: 32 });
  expect((await post()).postings).toEqual([]);
  await ship(order.id);
  expect(await numbers('box-s')).toMatchObject({ onHand: 32 });
});

it('packaging by the day: what was closed after the last posting leaves with the next, once, and by itself when the day is over', async () => {
  await act('box-s', 'counted', 50);
  const post = async () => (await packer.get('postPackaging', { body: {} })).postings;
  const order = await packed('PG-7', 2, 'BOX-S');
  // A posting takes all; one closed again after it is no other one, and what is counted is not posted either.
  expect(await post()).toEqual([{ type: 'Small', units: 2 }]);
  await packer.get('reopenCarton', { id: order.ids[0]!, body: { bench: 'BENCH-1' } });
  const close = { kind: 'scan' as const, text: 'DO-CLOSE' };
  await packer.get('packInput', { id: order.id, body: { bench: 'BENCH-1', input: close } });
  expect(await post()).toEqual([]);
  await packed('PG-8', 3, 'BOX-S');
  expect(await stateOf('box-s')).toMatchObject({ onHand: 48, toPost: 3 });
  await act('box-s', 'counted', 45);
  expect(await stateOf('box-s')).toMatchObject({ onHand: 45, toPost: 0 });
  // Closed in the evening, after the last posting: the day is over.
  await packed('PG-9', 2, 'BOX-S');
  await relay.query(`update packaging_due set day = day - 1 where posted_at is null`);
  expect(await stateOf('box-s')).toMatchObject({ onHand: 45, toPost: 2 });
  await packed('PG-10', 1, 'BOX-S');
  await postDaysOver(relay.platform);
  await postDaysOver(relay.platform);
  expect(await stateOf('box-s')).toMatchObject({ onHand: 43, toPost: 1 });
  const [last] = (await packer.get('packaging')).movements;
  const [day] = await relay.query<{ day: string }>(
    `select to_char((now() at time zone time_zone) - interval '1 day', 'YYYY-MM-DD') as day from site where id = 'larkmoor'`,
  );
  expect(last).toMatchObject({ reason: 'daily', units: -2, document: day!.day, person: 'Packaging' });
  expect(await post()).toEqual([{ type: 'Small', units: 1 }]);
});

it('a pallet counts where an order on it is of a kind that the site accounts for', async () => {
  const euro = (await packer.get('pallets')).types.find((t) => t.name === 'Euro pallet')!.id;
  await rule(euro, {});
  await act(euro, 'counted', 10);
  const stacked = async (number: string, kind: string) => {
    const { id } = await packed(number, 1, 'BOX-M', { kind });
    const { id: pallet } = await packer.get('openPallet', { body: { type: euro, orders: [id], station: 'BENCH-1' } });
    const [carton] = (await packer.get('benchOrder', { id })).cartons;
    for (const text of [carton!.sscc!, 'DO-CLOSE'])
      await packer.get('stackInput', { id: pallet, body: { text, station: 'BENCH-1' } });
    return id;
  };
  await desk.get('changeSiteSettings', { body: { ...usualSettings, packagingFor: ['invoiced'] } });
  const plain = await stacked('PG-11', 'order');
  expect(await numbers(euro)).toMatchObject({ onHand: 10, reserved: 0 });
  const invoiced = await stacked('PG-12', 'invoiced');
  expect(await numbers(euro)).toMatchObject({ onHand: 10, reserved: 1, free: 9 });
  await ship(plain);
  expect(await numbers(euro)).toMatchObject({ onHand: 10 });
  await ship(invoiced);
  expect(await numbers(euro)).toMatchObject({ onHand: 9, reserved: 0 });
  await desk.get('changeSiteSettings', { body: usualSettings });
});

it('packaging that is expense reminds somebody to look', async () => {
  await rule('box-l', { accounting: 'expense', lookAfterUsed: 2, lookAfterDays: 30 });
  expect(await stateOf('box-l')).toMatchObject({ look: false, usedSince: 0 });
  await packed('PG-6', 2, 'BOX-L');
  expect(await stateOf('box-l')).toMatchObject({ look: true, usedSince: 2, propose: 0 });
  await packer.get('actOnPackaging', { id: 'box-l', body: { act: 'looked' } });
  expect(await stateOf('box-l')).toMatchObject({ look: false, usedSince: 0 });
  expect((await packer.refused('changePackaging', { id: 'box-l', body: { accounting: 'none' } })).status).toBe(403);
  expect((await desk.refused('changePackaging', { id: 'none', body: { accounting: 'none' } })).status).toBe(404);
});
