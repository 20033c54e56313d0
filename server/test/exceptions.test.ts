import { openTest, type Person, type TestRelay } from './relay.ts';
import { checkBooks } from './books.ts';
import type { RunDetail } from '@hand-relay/contract';
import { packAll, pickOne, startWave, takeIn } from './steps.ts';

type Pick = RunDetail['picks'][number];

let relay: TestRelay;
let [desk, pico, clerk] = [] as unknown as [Person, Person, Person];
let made = 0;
beforeAll(async () => {
  relay = await openTest();
  [desk, pico, clerk] = await Promise.all([relay.as('maren'), relay.as('pico'), relay.as('suri')]);
});
afterAll(() => relay.close());
afterEach(() => checkBooks(relay, expect.getState().currentTestName!));

/** A run of one or more orders of an item that lies in one bin only, taken by Pico, and the Desk's list. */
async function taken(...units: number[]) {
  const cart = `CART-${String(++made + 5).padStart(2, '0')}`;
  const [item] = await relay.query<{ sku: string }>(`
    select i.sku from item i join balance b on b.item_id = i.id join place p on p.id = b.place_id and p.kind = 'bin' and p.site_id = 'larkmoor'
    join stock_total t on t.item_id = i.id and t.site_id = 'larkmoor'
    where not i.tracks_lot and not i.tracks_serial and i.temperature = 'ambient' and t.on_hand - t.reserved > 60 and p.blocked is null
      and not exists (select 1 from order_line l where l.item_id = i.id and l.released > 0)
      and not exists (select 1 from order_line l where l.item_id = i.id and l.asked - l.cancelled > l.released)
    group by i.sku order by count(*), i.sku limit 1`);
  const orders: string[] = [];
  for (const [i, n] of units.entries())
    orders.push(await takeIn(desk, { number: `X-${made}-${i}`, lines: [[item!.sku, n]] }));
  const wave = await startWave(desk, orders);
  const { runs } = await desk.get('wave', { id: wave });
  const run = runs[0]!.id;
  await pico.get('takeRun', { id: run, body: { cart } });
  const picks = async () => (await pico.get('run', { id: run })).picks;
  /** Finds fewer than asked, and puts those into their place. */
  const short = async (pick: Pick, found: number, reason: string, note = '') => {
    const input = (what: object) => pico.get('runInput', { id: run, body: { pick: pick.step.id, input: what } });
    await input({ kind: 'scan', text: pick.step.bin });
    await input({ kind: 'short', units: found, reason, ...(note ? { note } : {}) });
    await input({ kind: 'count', units: found });
    expect(await input({ kind: 'touch', what: 'position' })).toMatchObject({ verdict: 'done', units: found });
  };
  return { cart, orders, run, picks, short };
}
const listed = async (order: string) => (await desk.get('exceptions')).exceptions.filter((e) => e.order?.id === order);
async function act(id: string, what: string, note = '', who = desk): Promise<{ status: number; code?: string }> {
  const answer = await who.ask('actOnException', { id, body: { act: what, note } });
  return { status: answer.status, ...(answer.body as { code?: string }) };
}
const openOf = async (order: string) => {
  const { lines } = await desk.get('order', { id: order });
  return lines.reduce((n, l) => n + l.asked - l.cancelled - l.released, 0);
};

describe('what goes wrong in the aisle', () => {
  it.each(['release', 'ship-short'] as const)('a short stands until the Desk deals with it: %s', async (how) => {
    const { orders, picks, short } = await taken(6);
    const [pick] = await picks();
    await short(pick!, 4, 'damaged', 'crushed');
    const [raised] = await listed(orders[0]!);
    expect(raised).toMatchObject({
      kind: 'short',
      units: 2,
      open: 2,
      reason: 'damaged',
      note: 'crushed',
      place: pick!.step.bin,
      count: 'asked',
      settled: null,
    });
    expect((await act(raised!.id, how)).status).toBe(200);
    expect(await openOf(orders[0]!)).toBe(0);
    expect(await listed(orders[0]!)).toMatchObject([{ settled: { how } }]);
    expect(await act(raised!.id, 'dismiss', 'too late')).toMatchObject({ code: 'already-settled' });
  });

  it('what is released elsewhere settles it, and undoing the short takes it off the list', async () => {
    const { orders, run, picks, short } = await taken(5, 3);
    const [first, second] = await picks();
    await short(first!, 1, 'not-enough');
    await short(second!, 2, 'not-enough');
    const [one, two] = [first!.order.id, second!.order.id];
    expect([(await listed(one)).length, (await listed(two)).length]).toEqual([1, 1]);
    await pico.get('undoPick', { id: run, body: {} });
    expect(await listed(two)).toEqual([]);
    await desk.get('cancelRest', { id: one, body: { reason: 'customer rang' } });
    expect(await listed(one)).toMatchObject([{ settled: { how: 'ship-short' } }]);
    expect(orders).toContain(one);
  });

  it('an order that leaves the run keeps why, and its bin is counted; dismissing asks why', async () => {
    const { orders, run, picks } = await taken(4, 2);
    const [pick] = await picks();
    const order = pick!.order.id;
    const problem = { pick: pick!.step.id, reason: 'wrong-goods', units: 0, note: 'blue ones' };
    await pico.get('takeOut', { id: run, body: { order, problem } });
    const [raised] = await listed(order);
    expect(raised).toMatchObject({
      kind: 'out',
      reason: 'wrong-goods',
      note: 'blue ones',
      count: 'asked',
      place: pick!.step.bin,
    });
    const { counts } = await desk.get('counts');
    expect(counts.find((c) => c.bin === pick!.step.bin)).toMatchObject({ reason: 'wrong-goods', state: 'asked' });
    expect(await act(raised!.id, 'dismiss')).toMatchObject({ code: 'why-dismissed' });
    expect((await act(raised!.id, 'service')).status).toBe(200);
    expect((await desk.get('order', { id: order })).tags).toContain('customer service');
    expect(await listed(order)).toMatchObject([{ settled: { how: 'service' } }]);
    expect(orders).toContain(order);
  });

  it('rights decide who does what, and a picker sees no list', async () => {
    const { orders, run, picks } = await taken(3);
    const [pick] = await picks();
    const problem = { pick: pick!.step.id, reason: 'not-found', units: 0 };
    await pico.get('takeOut', { id: run, body: { order: orders[0]!, problem } });
    const [raised] = await listed(orders[0]!);
    expect((await pico.ask('exceptions')).status).toBe(403);
    expect((await act(raised!.id, 'release', '', clerk)).status).toBe(403);
  });

  it('a cart in another lane than planned is told with where it is, until it is empty', async () => {
    const { cart, orders, run, picks } = await taken(1);
    for (const pick of await picks()) await pickOne(pico, run, pick, cart);
    const { lane } = await desk.get('order', { id: orders[0]! });
    const other = lane === 'LANE-2' ? 'LANE-3' : 'LANE-2';
    await pico.get('leaveRun', { id: run, body: { lane: other } });
    const there = (await pico.get('run', { id: run })).lanes.find((l) => l.code === other)!;
    expect([there.carts, there.fits, there.at]).toEqual([1, 6, { x: expect.any(Number), y: -4 }]);
    const carts = async () => (await desk.get('exceptions')).exceptions.filter((e) => e.run?.id === run);
    expect(await carts()).toMatchObject([
      { kind: 'cart', place: other, facts: { cart, planned: lane }, settled: null },
    ]);
    expect((await desk.get('order', { id: orders[0]! })).carts).toEqual([{ cart, lane: other }]);
    await packAll(await relay.as('ada'), orders[0]!);
    expect((await desk.get('order', { id: orders[0]! })).carts).toEqual([]);
    expect(await carts()).toMatchObject([{ settled: { how: 'packed' } }]);
  });
});
