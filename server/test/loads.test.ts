import { openTest, type Person, type TestRelay } from './relay.ts';
import { takeIn } from './steps.ts';

describe('load planning', () => {
  let relay: TestRelay;
  let [desk, dock, picker] = [] as unknown as Person[];
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
});
