import type { RunDetail } from '@hand-relay/contract';
import { ssccOf } from '@hand-relay/core/reading/gs1';
import { usualSettings } from '@hand-relay/core/deciding/settings';
import { checkBooks } from './books.ts';
import { openTest, type Person, type TestRelay } from './relay.ts';
import { startWave, takeIn, type Wanted } from './steps.ts';

let relay: TestRelay;
let [desk, pico, packer] = [] as unknown as [Person, Person, Person];
let made = 0;
/** Numbers that were printed for cartons and are on none yet. */
let numbers: string[] = [];
beforeAll(async () => {
  relay = await openTest();
  [desk, pico, packer] = await Promise.all([relay.as('maren'), relay.as('pico'), relay.as('ada')]);
  const carton = { ...usualSettings.picking.many, drop: 'carton' as const };
  const { settings } = await desk.get('siteSettings');
  await desk.get('changeSiteSettings', { body: { ...settings, picking: { one: carton, many: carton } } });
  await pico.get('print', { body: { kind: 'carton-numbers', of: '30', station: '' } });
  const [range] = await relay.query<{ companyPrefix: string; extension: number; last: number }>(
    `select s.gs1_prefix as "companyPrefix", s.sscc_extension as extension, c.last::int as last from site s join counter c on c.site_id = s.id and c.name = 'sscc' where s.id = 'larkmoor'`,
  );
  numbers = Array.from({ length: 30 }, (_, i) => ssccOf(range!, range!.last - i));
});
afterAll(() => relay.close());
afterEach(() => checkBooks(relay, expect.getState().currentTestName!));

type Pick = RunDetail['picks'][number];

async function taken(...orders: Wanted['lines'][]) {
  const cart = `CART-${String(++made).padStart(2, '0')}`;
  const ids: string[] = [];
  for (const [i, lines] of orders.entries()) ids.push(await takeIn(desk, { number: `C-${made}-${i}`, lines }));
  const wave = await startWave(desk, ids);
  const run = (await desk.get('wave', { id: wave })).runs[0]!.id;
  await pico.get('takeRun', { id: run, body: { cart } });
  const detail = () => pico.get('run', { id: run });
  const open = async (order?: string) =>
    (await detail()).picks.find((p) => p.state === 'open' && (order === undefined || p.order.id === order))!;
  const input = (pick: Pick, what: object) =>
    pico.get('runInput', { id: run, body: { pick: pick.step.id, input: what } });
  const scan = (pick: Pick, text: string) => input(pick, { kind: 'scan', text });
  /** Everything of a pick but where it goes. */
  const inHand = async (pick: Pick, units = pick.step.units) => {
    await scan(pick, pick.step.bin);
    return input(pick, { kind: 'count', units });
  };
  return { cart, ids, run, detail, open, input, scan, inHand };
}

it('goods go from the bin into the carton that ships, and need no bench', async () => {
  const job = await taken([
    ['JR-004', 2],
    ['HT-003', 1],
  ]);
  const [number, second, third] = numbers.splice(0, 3);
  const one = await job.open();
  expect(one.step.carton).toMatchObject({ sscc: null, others: [] });
  await job.inHand(one);
  // No number of ours, one that was never drawn, a place on the cart: none of them is a carton of this order.
  for (const [text, code] of [
    ['106141411234567897', 'not-our-carton'],
    [`${job.cart}-1`, 'not-awaited'],
  ] as const)
    expect(await job.scan(one, text)).toMatchObject({ verdict: 'refused', code });
  const prefix = one.step.carton!.prefix;
  const undrawn = ssccOf({ extension: Number(prefix[0]), companyPrefix: prefix.slice(1) }, 999_999);
  await expect(job.scan(one, undrawn)).rejects.toThrow('not-our-carton');
  expect(await job.scan(one, number!)).toMatchObject({ verdict: 'done' });

  const two = await job.open();
  expect(two.step.carton!.sscc).toBe(number);
  await job.inHand(two);
  expect(await job.scan(two, second!)).toMatchObject({ verdict: 'refused', code: 'wrong-carton', expected: number });
  // Undone, it is in its bin again and the carton holds what it held.
  expect(await job.input(two, { kind: 'touch', what: 'carton' })).toMatchObject({ runComplete: true });
  await pico.get('undoPick', { id: job.run });
  expect((await job.detail()).cartons).toMatchObject([{ sscc: number, units: one.step.units, state: 'open' }]);
  const again = await job.open();
  await job.inHand(again);
  await job.input(again, { kind: 'touch', what: 'further' });
  expect(await job.scan(again, number!)).toMatchObject({ verdict: 'refused', code: 'used-carton' });
  expect(await job.scan(again, third!)).toMatchObject({ verdict: 'done' });
  const { cartons } = await job.detail();
  expect(cartons.map((c) => [c.sscc, c.state])).toEqual([
    [number, 'closed'],
    [third, 'open'],
  ]);
  // What lies in a closed carton is not undone over it.
  await pico.get('undoPick', { id: job.run });
  await expect(pico.get('undoPick', { id: job.run })).rejects.toThrow('carton-closed');
  const last = await job.open();
  await job.inHand(last);
  await job.input(last, { kind: 'touch', what: 'carton' });
  await pico.get('leaveRun', { id: job.run, body: { lane: 'LANE-1' } });

  const packed = await desk.get('benchOrder', { id: job.ids[0]! });
  expect(packed.cartons.map((c) => [c.sscc, c.state])).toEqual([
    [number, 'closed'],
    [third, 'closed'],
  ]);
  expect(packed.lines.every((l) => l.packed === l.picked && l.picked > 0)).toBe(true);
  expect((await desk.get('bench')).runs.some((r) => r.id === job.run)).toBe(false);
  const dock = await desk.get('shipment', { id: packed.shipment! });
  expect(dock.row.order).toBe(job.ids[0]);
});

it('a carton that is full ends the pick; the rest goes into another', async () => {
  const job = await taken([['JR-004', 7]], [['JR-004', 3]]);
  const [a, b, c] = numbers.splice(0, 3);
  const seven = await job.open(job.ids[0]);
  await job.scan(seven, a!);
  await job.inHand(seven, 4);
  expect(await job.input(seven, { kind: 'touch', what: 'further' })).toMatchObject({ verdict: 'done', units: 4 });
  const rest = await job.open(job.ids[0]);
  expect(rest).toMatchObject({ step: { id: `${seven.step.id}.r`, units: 3, bin: seven.step.bin } });
  await job.input(rest, { kind: 'count', units: 3 });
  expect(await job.scan(rest, a!)).toMatchObject({ verdict: 'refused', code: 'used-carton' });
  await job.scan(rest, b!);
  // Nothing was reported missing by it.
  expect((await desk.get('counts')).counts.filter((x) => x.bin === rest.step.bin)).toEqual([]);

  const three = await job.open(job.ids[1]);
  await job.inHand(three);
  expect(await job.scan(three, b!)).toMatchObject({ verdict: 'refused', code: 'used-carton' });
  await job.scan(three, c!);
  const held = async () =>
    (await job.detail()).cartons
      .map((x) => [x.sscc, x.units, x.state] as const)
      .sort((x, y) => y[0].localeCompare(x[0]));
  expect(await held()).toEqual([
    [a, 4, 'closed'],
    [b, 3, 'open'],
    [c, 3, 'open'],
  ]);
  const mine = (await job.detail()).cartons.find((x) => x.sscc === c)!;
  // As long as the picker has it, nobody else takes anything out.
  const out = { id: mine.id, body: { item: three.step.item.id, lot: '', serial: '', units: 1 } };
  expect((await packer.refused('unpack', out)).facts).toEqual({
    run: (await job.detail()).run.number,
    state: 'picking',
  });
  expect(await pico.get('closeOnCart', { id: job.run, body: { carton: mine.id } })).toEqual({ sscc: c });

  // Taken out of the run, all of it goes back, whichever carton it lies in.
  await pico.get('takeOut', { id: job.run, body: { order: job.ids[0]! } });
  expect(await held()).toEqual([[c, 3, 'closed']]);
  await pico.get('leaveRun', { id: job.run, body: { lane: 'LANE-1' } });
  const { trips } = await pico.get('putAways');
  const back = trips.find((t) => t.run === job.run)!;
  expect(back.goods.reduce((n, g) => n + g.units, 0)).toBe(7);
});

it('a cart is set up order by order, and what finds no place waits as a run of its own', async () => {
  const { settings } = await desk.get('siteSettings');
  await desk.get('changeSiteSettings', { body: { ...settings, setUp: 'confirm' } });
  const [small] = await relay.query<{ code: string; positions: number }>(
    `select c.code, t.positions from cart c join cart_type t on t.id = c.type_id where c.site_id = 'larkmoor' and not c.retired
       and not exists (select 1 from run r where r.cart_code = c.code) order by t.positions, c.code desc limit 1`,
  );
  const lines: Wanted['lines'] = [['JR-004', 1]];
  const ids: string[] = [];
  for (let i = 0; i <= small!.positions; i++) ids.push(await takeIn(desk, { number: `SET-${i}`, lines }));
  const wave = await startWave(desk, ids);
  const { runs } = await desk.get('wave', { id: wave });
  const run = runs.find((r) => r.orders > 1)!;
  await pico.get('takeRun', { id: run.id, body: { cart: small!.code } });
  const setUp = async () => (await pico.get('run', { id: run.id })).setUp!;
  const set = (text: string | null, chosen: string | null = null) =>
    pico.get('setUpCart', { id: run.id, body: { text, chosen } });
  const { places, size } = await setUp();
  expect([places.length, size]).toEqual([run.orders, small!.positions]);
  const last = places.at(-1)!;
  // The last order by its slip, into the first place: the two change theirs, in the picks too.
  expect(await set(`ORDER-${last.number}`)).toEqual({ set: [] });
  expect(await set(`${small!.code}-1`, last.order)).toEqual({ set: [last.order] });
  await expect(set(`${small!.code}-1`)).rejects.toThrow('place-taken');
  await expect(set(`${small!.code}-99`)).rejects.toThrow('no-cart-place');
  const { picks, positions } = await pico.get('run', { id: run.id });
  const at = Object.fromEntries(positions.map((p) => [p.id, p.number]));
  expect(at[last.order]).toBe(1);
  expect(at[places[0]!.order]).toBe(last.place);
  expect(picks.every((p) => p.step.position.number === at[p.order.id])).toBe(true);
  // All others as they stand, as far as they fit; what is left waits.
  await set(null);
  const open = (await setUp()).places.filter((p) => !p.ready);
  expect(open.length).toBe(places.length - size);
  const behind = await pico.get('leaveBehind', { id: run.id });
  const left = await desk.get('run', { id: behind.run });
  expect([left.run.state, left.positions.map((p) => p.id)]).toEqual(['waiting', open.map((p) => p.order)]);
  await expect(pico.get('leaveBehind', { id: run.id })).rejects.toThrow('nothing-to-leave');
  expect((await setUp()).places.every((p) => p.ready)).toBe(true);
  const trail = await desk.get('trail', { id: last.order });
  expect(trail.entries.map((t) => t.kind)).toContain('place-set');
  await desk.get('changeSiteSettings', { body: settings });
});
