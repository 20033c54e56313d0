import { openTest, type Person, type TestRelay } from './relay.ts';
import { endEmptyLoads } from '../src/desk/loads/index.ts';
import { packAll, pickAll, startWave, takeIn } from './steps.ts';

describe('load planning', () => {
  let relay: TestRelay;
  let [desk, dock, picker] = [] as unknown as Person[];
  let carts = 0;
  beforeAll(async () => {
    relay = await openTest();
    [desk, dock, picker] = await Promise.all((['maren', 'len', 'pico'] as const).map((id) => relay.as(id)));
  });
  afterAll(() => relay.close());
  const plan = (more: object = {}) => desk!.get('planLoad', { body: { vehicle: 'Van 3.5 t', ...more } });

  it('plans a load by names, and refuses a name that is not there at its field', async () => {
    const load = await plan({ departure: 'Van tour north', day: '2031-07-15', note: 'two drops' });
    expect(load).toMatchObject({
      vehicle: 'Van 3.5 t',
      departure: 'Van tour north',
      leavesAt: '2031-07-15T14:00:00.000Z',
      door: 'DOOR-3',
      orders: 0,
      fill: { weightG: 0, places: 0, most: { weightG: 1_150_000, places: 5 }, over: [] },
    });
    for (const [field, value] of [
      ['vehicle', 'Airship'],
      ['door', 'DOOR-99'],
      ['departure', 'Midnight'],
    ]) {
      const wrong = await desk!.refused('planLoad', { body: { vehicle: 'Van 3.5 t', [field!]: value } });
      expect(wrong).toMatchObject({ code: 'no-such-place', fields: [{ path: field }] });
    }
    expect((await picker!.refused('planLoad', { body: { vehicle: 'Van 3.5 t' } })).status).toBe(403);
    expect((await dock!.get('loads')).loads.map((l) => l.number)).toContain(load.number);
  });

  it('fills up visibly, refuses what is too much with by how much, and puts nothing in then', async () => {
    const { id } = await plan();
    const [item] = await relay.query<{ sku: string; weight: number; volume: number }>(
      `select sku, weight_g as weight, length_mm::float8 * width_mm * height_mm / 1000 as volume from item where weight_g between 1000 and 20000 and not service order by weight_g desc limit 1`,
    );
    const small = await takeIn(desk!, { number: 'L-SMALL', lines: [[item!.sku, 2]] });
    const many = Math.ceil(1_150_000 / item!.weight);
    const large = await takeIn(desk!, { number: 'L-LARGE', lines: [[item!.sku, many]] });
    const filled = await desk!.get('fillLoad', { id, body: { add: [small] } });
    expect(filled.fill.weightG).toBe(2 * item!.weight);
    expect(filled.fill.volumeCm3).toBeCloseTo(2 * item!.volume);
    expect(filled.shares.map((s) => s.number)).toEqual(['L-SMALL']);
    const refused = await desk!.refused('fillLoad', { id, body: { add: [large] } });
    expect(refused.code).toBe('load-overfull');
    expect(refused.facts['over']).toContainEqual({ what: 'weight', by: (many + 2) * item!.weight - 1_150_000 });
    expect((await desk!.get('load', { id })).orders).toBe(1);
    // What fits of several goes in, the rest stays.
    const tiny = await takeIn(desk!, { number: 'L-TINY', lines: [[item!.sku, 1]] });
    const some = await desk!.get('fillLoad', { id, body: { add: [large, tiny], whatFits: true } });
    expect(some.shares.map((s) => s.number).sort()).toEqual(['L-SMALL', 'L-TINY']);
    const { shares } = await desk!.get('loadCandidates', { id });
    expect(shares.find((s) => s.id === large)).toMatchObject({ fits: false });
    expect(shares.some((s) => s.id === small)).toBe(false);
    expect((await desk!.get('order', { id: small })).load).toMatchObject({ id });
    const { id: other } = await plan();
    expect((await desk!.refused('fillLoad', { id: other, body: { add: [small] } })).code).toBe('in-other-load');
    // Taken out, it can go elsewhere; what an order asks less of later weighs less.
    await desk!.get('fillLoad', { id, body: { remove: [small] } });
    await desk!.get('fillLoad', { id: other, body: { add: [small] } });
    await takeIn(desk!, { number: 'L-SMALL', lines: [[item!.sku, 1]] });
    expect((await desk!.get('load', { id: other })).fill.weightG).toBe(item!.weight);
    const kinds = (await desk!.get('trail', { id: small })).entries.map((e) => e.kind);
    expect(kinds.filter((k) => k.startsWith('load-'))).toEqual(['load-joined', 'load-left', 'load-joined']);
  });

  it('changes its vehicle only to one that takes what is in it, and is given up with its orders free again', async () => {
    const [item] = await relay.query<{ sku: string; weight: number }>(
      `select sku, weight_g as weight from item where weight_g between 1000 and 20000 and not service order by weight_g desc limit 1`,
    );
    const order = await takeIn(desk!, {
      number: 'L-MOVE',
      lines: [[item!.sku, Math.ceil(1_200_000 / item!.weight)]],
    });
    const { id } = await plan({ vehicle: 'Truck 12 t', orders: [order] });
    const small = await desk!.refused('changeLoad', { id, body: { vehicle: 'Van 3.5 t' } });
    expect(small.code).toBe('load-overfull');
    const changed = await desk!.get('changeLoad', { id, body: { vehicle: 'Trailer 40 t', note: 'rear door' } });
    expect(changed).toMatchObject({ vehicle: 'Trailer 40 t', note: 'rear door', orders: 1 });
    await desk!.get('cancelLoad', { id });
    expect((await desk!.get('order', { id: order })).load).toBeNull();
    expect((await desk!.get('load', { id })).state).toBe('dissolved');
    expect((await desk!.refused('fillLoad', { id, body: { add: [order] } })).status).toBe(404);
  });

  /** Orders of one unit each, picked and packed, with their shipments. */
  async function packedOrders(...numbers: string[]) {
    const [item] = await relay.query<{ sku: string }>(
      `select i.sku from item i join balance b on b.item_id = i.id where not i.service and not i.tracks_serial and not i.tracks_lot
       group by i.sku having sum(b.units) > 50 order by i.sku limit 1`,
    );
    const packer = await relay.as('ada');
    const orders: string[] = [];
    for (const number of numbers)
      orders.push(await takeIn(desk!, { number, lines: [[item!.sku, 1]], channel: 'field' }));
    const { runs } = await desk!.get('wave', { id: await startWave(desk!, orders) });
    for (const run of runs) await pickAll(picker!, run.id, `CART-${String(++carts).padStart(2, '0')}`);
    for (const order of orders) await packAll(packer, order);
    const { shipments } = await dock!.get('dock');
    return orders.map((order) => ({ order, shipment: shipments.find((s) => s.order === order)!.shipment }));
  }
  /** Confirms a shipment that no carrier takes. */
  async function confirm(id: string) {
    await dock!.get('chooseCarrier', { id, body: { service: null } });
    return dock!.ask('confirm', { id, body: { rest: null } });
  }

  it('counts what left on it as still inside, is closed by its last shipment, and stays readable', async () => {
    const [a, b, c] = await packedOrders('L-LEFT-1', 'L-LEFT-2', 'L-LEFT-3');
    const { id, number } = await plan({ orders: [a!.order, b!.order] });
    const before = await desk!.get('load', { id });
    expect(before).toMatchObject({ units: 2, released: 2, picked: 2, packed: 2, shipped: 0, left: [] });
    expect((await desk!.refused('closeLoad', { id })).code).toBe('load-nothing-left');
    await confirm(a!.shipment);
    const half = await desk!.get('load', { id });
    expect(half).toMatchObject({ state: 'planned', orders: 2, units: 2, shipped: 1 });
    expect(half.shares.map((s) => s.number)).toEqual(['L-LEFT-2']);
    expect(half.left.map((s) => [s.orderNumber, s.units, s.cartons])).toEqual([['L-LEFT-1', 1, 1]]);
    // Its room is taken by what left on it too.
    expect(half.fill.volumeCm3).toBeCloseTo(before.fill.volumeCm3);
    expect(await desk!.refused('cancelLoad', { id })).toMatchObject({
      code: 'load-under-way',
      facts: { shipments: 1 },
    });
    await confirm(b!.shipment);
    const gone = await desk!.get('load', { id });
    expect(gone).toMatchObject({ state: 'left', shipped: 2, shares: [], endedBy: null });
    const weight = await relay.query<{ g: number }>(
      `select sum(weight_g)::int as g from carton where shipment_id in ('${a!.shipment}', '${b!.shipment}')`,
    );
    expect(gone.left.reduce((n, s) => n + s.weightG, 0)).toBe(weight[0]!.g);
    expect((await desk!.get('loads', { query: { state: 'left' } })).loads.map((l) => l.number)).toContain(number);
    expect((await desk!.get('loads')).loads.map((l) => l.number)).not.toContain(number);
    expect((await desk!.get('order', { id: a!.order })).load).toMatchObject({ id, number });
    const { entries } = await desk!.get('trail', { id: a!.order });
    expect(entries.find((e) => e.kind === 'shipped')!.facts['load']).toBe(number);
    expect((await desk!.refused('fillLoad', { id, body: { add: [c!.order] } })).status).toBe(404);
  });

  it('is closed once by two last shipments at one time', async () => {
    const both = await packedOrders('L-RACE-1', 'L-RACE-2');
    const { id } = await plan({ orders: both.map((o) => o.order) });
    for (const { shipment } of both) await dock!.get('chooseCarrier', { id: shipment, body: { service: null } });
    const answers = await Promise.all(
      both.map(({ shipment }) => dock!.ask('confirm', { id: shipment, body: { rest: null } })),
    );
    expect(answers.map((a) => a.status)).toEqual([200, 200]);
    expect(await desk!.get('load', { id })).toMatchObject({ state: 'left', shipped: 2 });
  });

  it('is closed by hand without what did not ship, which can go with another load', async () => {
    const [a, b] = await packedOrders('L-HAND-1', 'L-HAND-2');
    const { id, number } = await plan({ orders: [a!.order, b!.order] });
    await confirm(a!.shipment);
    const closed = await desk!.get('closeLoad', { id });
    expect(closed).toMatchObject({ state: 'left', orders: 1, shares: [] });
    expect(closed.endedBy).toMatch(/^Maren/);
    const kinds = (await desk!.get('trail', { id: b!.order })).entries.map((e) => [e.kind, e.facts['load']]);
    expect(kinds).toContainEqual(['load-left', number]);
    const other = await plan({ orders: [b!.order] });
    expect(other.shares.map((s) => s.number)).toEqual(['L-HAND-2']);
  });

  it('delivers one address at one stop, in an order that people change', async () => {
    const at = (street: string, postcode: string) => ({
      shipTo: { name: 'Juniper Orchards', street, postcode, city: 'Dunmere', country: 'GB' },
    });
    const take = async (number: string, street: string, postcode: string) =>
      takeIn(desk!, { number, lines: [['EX-007', 1]], ...at(street, postcode) });
    const orders = [
      await take('L-STOP-1', '9 Mill Lane', 'ZC3 1AA'),
      await take('L-STOP-2', '1 Weir Street', 'ZA1 2BC'),
      await take('L-STOP-3', '9 mill lane', 'ZC31AA'),
    ];
    const { id, ...load } = await plan({ departure: 'Van tour north', day: '2031-07-15', orders: orders.slice(0, 2) });
    expect(load.stops).toBe(2);
    // Due tomorrow, and leaves years later.
    expect(load.shares.every((s) => s.early < -1000)).toBe(true);
    const filled = await desk!.get('fillLoad', { id, body: { add: [orders[2]!] } });
    const stops = (of: typeof filled) => of.shares.map((s) => `${s.stop} ${s.number}`);
    expect(stops(filled)).toEqual(['1 L-STOP-1', '1 L-STOP-3', '2 L-STOP-2']);
    const turned = await desk!.get('orderStops', { id, body: { stops: [2, 1] } });
    expect(stops(turned)).toEqual(['1 L-STOP-2', '2 L-STOP-1', '2 L-STOP-3']);
    for (const wrong of [[1], [1, 1], [1, 3], [1, 2, 3]])
      expect((await desk!.refused('orderStops', { id, body: { stops: wrong } })).code).toBe('stops-changed');
    await desk!.get('fillLoad', { id, body: { remove: [orders[1]!] } });
    expect(stops(await desk!.get('load', { id }))).toEqual(['1 L-STOP-1', '1 L-STOP-3']);
  });

  it('ends by itself when its time is past and nothing waits for it', async () => {
    const open = await takeIn(desk!, { number: 'L-END-1', lines: [['EX-007', 1]] });
    const cancelled = await takeIn(desk!, { number: 'L-END-2', lines: [['EX-007', 1]] });
    const past = { departure: 'Van tour north', day: '2021-07-15' };
    const [waits, empty, ahead] = [
      await plan({ ...past, orders: [open] }),
      await plan({ ...past, orders: [cancelled] }),
      await plan({ departure: 'Van tour north', day: '2031-07-15' }),
    ];
    await desk!.get('cancelRest', { id: cancelled, body: { reason: 'not wanted' } });
    await endEmptyLoads(relay.platform);
    const states = await Promise.all(
      [waits, empty, ahead].map(async ({ id }) => (await desk!.get('load', { id })).state),
    );
    expect(states).toEqual(['planned', 'dissolved', 'planned']);
  });
});
