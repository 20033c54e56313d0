import type { FloorLayout } from '@hand-relay/contract';
import { checkBooks } from './books.ts';
import { openTest, type Person, type TestRelay } from './relay.ts';
import { pickAll, pickOne, startWave, takeIn } from './steps.ts';

let relay: TestRelay;
let desk: Person;
let picker: Person;
let open: string[];
beforeAll(async () => {
  relay = await openTest();
  [desk, picker] = [await relay.as('maren'), await relay.as('pico')];
  const { rows } = await desk.get('orders');
  open = rows.filter((r) => Number(r[10]) > 0).map((r) => r[0] as string);
});
afterEach(() => checkBooks(relay, expect.getState().currentTestName ?? ''));
afterAll(() => relay.close());

/** The next orders that nobody released yet. */
const next = (count: number) => open.splice(0, count);
const gather = (orders = next(6)) => desk.get('release', { body: { orders } });
const planned = async (count: number) => {
  const { wave } = await gather(next(count));
  await desk.get('planWave', { id: wave });
  return wave;
};
const runsOf = async (wave: string) =>
  (await desk.get('wave', { id: wave })).runs.filter((r) => r.state !== 'cancelled');
const stateOf = async (wave: string) => (await desk.get('wave', { id: wave })).wave.state;

describe('waves that wait', () => {
  it('tell what they foresee, are compared by it, sent back, and change how they are picked', async () => {
    const [a, b] = [await planned(8), await planned(4)];
    const list = (await desk.get('waves')).waves;
    const [first, second] = [a, b].map((id) => list.find((w) => w.id === id)!);
    for (const wave of [first!, second!]) {
      expect(wave.foreseen!.seconds).toBeGreaterThan(60);
      expect(wave.forecast!.left).toBeCloseTo(wave.foreseen!.seconds, -1);
      expect(wave.foreseen!.early < wave.foreseen!.ends && wave.foreseen!.ends < wave.foreseen!.late).toBe(true);
    }
    for (const run of await runsOf(a)) {
      expect(run.lowerBound).toBeLessThanOrEqual(run.metres);
      expect(run.proven).toBe(true);
    }
    expect((await desk.refused('changeWave', { id: b, body: { picking: 'single' } })).code).toBe('wave-state');
    await desk.get('reopenWave', { id: b });
    expect(await stateOf(b)).toBe('gathering');
    expect(await runsOf(b)).toEqual([]);
    await desk.get('changeWave', { id: b, body: { picking: 'single', team: 'north', people: 3 } });
    const { wave } = await desk.get('planWave', { id: b });
    expect(wave).toMatchObject({ picking: 'single', runs: wave.orders, people: 3, foreseen: { people: 3 } });
    expect((await runsOf(b)).every((r) => r.orders === 1 && r.team === 'north')).toBe(true);
    await desk.get('startWave', { id: b });
    expect((await desk.refused('reopenWave', { id: b })).facts).toMatchObject({ state: 'started' });
  });

  it('split an order that no cart takes whole over runs that each hold, as the preview says, and bring it together at the bench', async () => {
    const [cart] = await relay.query<{ weight: number; volume: number }>(
      `select max_weight_g as weight, max_volume_cm3 as volume from cart_type t
       where exists (select 1 from cart c where c.type_id = t.id) order by t.positions desc limit 1`,
    );
    // The item of which what is free is heaviest beside the cart, and as much of it as three carts take.
    const [item] = await relay.query<{ sku: string; weight: number; volume: number; free: number }>(
      `select i.sku, i.weight_g as weight, i.length_mm::float8 * i.width_mm * i.height_mm / 1000 as volume, sum(t.on_hand - t.reserved)::int as free
       from stock_total t join item i on i.id = t.item_id where not i.tracks_serial and not i.tracks_lot
       group by i.id order by i.weight_g * sum(t.on_hand - t.reserved) desc limit 1`,
    );
    const perCart = Math.min(Math.floor(cart!.weight / item!.weight), Math.floor(cart!.volume / item!.volume));
    const units = Math.min(item!.free, 2 * perCart + 1);
    const trips = Math.ceil(units / perCart);
    expect(trips).toBeGreaterThan(1);
    const large = await takeIn(desk, { number: 'LARGE', lines: [[item!.sku, units]] });
    const preview = await desk.get('previewRelease', { body: { orders: [large] } });
    expect(preview).toMatchObject({ runs: trips, split: [{ order: 'LARGE', runs: trips, over: false }] });
    const { wave } = await gather([large]);
    await desk.get('planWave', { id: wave });
    const { orders, runs } = await desk.get('wave', { id: wave });
    expect(orders).toEqual([expect.objectContaining({ number: 'LARGE', trips, units })]);
    expect(runs.reduce((n, r) => n + r.metres, 0)).toBeCloseTo(preview.metres);
    for (const run of runs) expect(run.units).toBeLessThanOrEqual(perCart);
    const { entries } = await desk.get('trail', { id: large });
    expect(entries.find((e) => e.kind === 'order-larger')!.facts).toMatchObject({ runs: trips });
    // The parts meet at the bench, each on a cart of its own.
    await desk.get('startWave', { id: wave });
    const carts = await relay.query<{ code: string }>(
      `select code from cart where not retired and code like 'CART-%' order by code desc`,
    );
    for (const [i, run] of runs.entries()) await pickAll(picker, run.id, carts[i]!.code);
    const { bench } = await desk.get('benchOrder', { id: large });
    expect(bench.loose.reduce((n, l) => n + l.units, 0)).toBe(units);
  });

  it('are merged, split by orders or by runs, and put in another order', async () => {
    const [a, b] = [await planned(5), (await gather(next(5))).wave];
    const before = (await desk.get('waves')).waves;
    const units = (id: string) => before.find((w) => w.id === id)!.units;
    const { wave: merged } = await desk.get('mergeWaves', { id: b, body: { waves: [a] } });
    expect(merged).toMatchObject({ state: 'gathering', units: units(a) + units(b), runs: 0 });
    expect(await stateOf(a)).toBe('cancelled');
    expect((await desk.refused('mergeWaves', { id: b, body: { waves: [b] } })).code).toBe('nothing-to-merge');

    const { orders } = await desk.get('wave', { id: b });
    const apart = await desk.get('splitWave', { id: b, body: { orders: orders.slice(0, 3).map((o) => o.id) } });
    expect((await desk.get('wave', { id: apart.wave })).orders.map((o) => o.id).sort()).toEqual(
      orders
        .slice(0, 3)
        .map((o) => o.id)
        .sort(),
    );
    expect((await desk.refused('splitWave', { id: b, body: { orders: [] } })).code).toBe('nothing-to-split');

    await desk.get('changeWave', { id: b, body: { picking: 'single' } });
    await desk.get('planWave', { id: b });
    const [run, ...rest] = await runsOf(b);
    const { wave: alone } = await desk.get('splitWave', { id: b, body: { runs: [run!.id] } });
    expect((await runsOf(alone)).map((r) => r.id)).toEqual([run!.id]);
    expect((await runsOf(b)).map((r) => r.id).sort()).toEqual(rest.map((r) => r.id).sort());
    expect(await stateOf(alone)).toBe('planned');
    const [part, left] = [(await desk.get('wave', { id: alone })).wave, (await desk.get('wave', { id: b })).wave];
    expect(part.foreseen!.metres).toBeCloseTo(run!.metres);
    expect(left.foreseen!.metres).toBeCloseTo(rest.reduce((n, r) => n + r.metres, 0));

    const placed = (await desk.get('placeWave', { id: alone, body: { before: apart.wave } })).waves.map((w) => w.id);
    expect(placed.indexOf(alone)).toBe(placed.indexOf(apart.wave) - 1);
    const last = (await desk.get('placeWave', { id: alone, body: { before: null } })).waves.filter(
      (w) => w.state !== 'done' && w.state !== 'cancelled',
    );
    expect(last.at(-1)!.id).toBe(alone);
  });

  it('are planned again after a restart that cut the planning short', async () => {
    const { wave } = await gather(next(3));
    await relay.query(
      `insert into job (id, site_id, kind, of_id, person_id, state, at, actor, input, owner, lease)
       values ('job-cut', 'larkmoor', 'plan-wave', '${wave}', 'maren', 'running', now(),
         '{"personId":"maren","name":"Maren","siteId":"larkmoor","sessionId":"","rights":[],"device":"","requestId":""}', '{"replan":false}',
         'a server that ended', now() + interval '10 seconds')`,
    );
    expect((await desk.refused('planWave', { id: wave })).code).toBe('plan-running');
    await relay.platform.jobs.wake();
    expect(await stateOf(wave)).toBe('gathering');
    // Its lease runs out.
    await relay.query(`update job set lease = now() where id = 'job-cut'`);
    await relay.platform.jobs.wake();
    await relay.platform.jobs.over('larkmoor', 'job-cut');
    expect(await stateOf(wave)).toBe('planned');
    expect(await relay.query(`select state from job where id = 'job-cut'`)).toEqual([{ state: 'done' }]);
  });

  it('stay as they are when the making of their plan is stopped', async () => {
    const { wave } = await gather(next(40));
    const making = desk.refused('planWave', { id: wave });
    for (let tries = 0; (await desk.get('wave', { id: wave })).wave.planProgress === null && tries < 100; tries++)
      await new Promise((resolve) => setTimeout(resolve, 5));
    await desk.get('stopPlan', { id: wave });
    expect((await making).code).toBe('plan-stopped');
    expect(await stateOf(wave)).toBe('gathering');
    // Nothing is being planned any more: stopping it again changes nothing.
    await desk.get('stopPlan', { id: wave });
    expect(await stateOf(wave)).toBe('gathering');
    await desk.get('cancelWave', { id: wave });
  });
});

describe('runs that nobody has begun', () => {
  it('are replanned when an aisle is blocked, shown before and then done, what is begun left alone', async () => {
    const wave = await startWave(desk, next(30));
    const [begun] = (await picker.get('myRuns')).waiting.filter((r) => r.wave !== 0 && r.stops > 3);
    const { picks } = await picker.get('takeRun', { id: begun!.id, body: { cart: 'CART-01' } });
    await pickOne(picker, begun!.id, picks[0]!, 'CART-01');
    const before = await desk.get('floorLayout');
    const visited = new Map<string, number>();
    for (const run of await runsOf(wave))
      for (const p of (await desk.get('run', { id: run.id })).picks)
        visited.set(p.at.aisle, (visited.get(p.at.aisle) ?? 0) + 1);
    const aisle = [...visited].sort((a, b) => b[1] - a[1])[0]![0];
    const blocked: FloorLayout = { ...before, blocked: [{ aisle, from: 11, to: 12.5 }] };
    const changed = await desk.get('changeLayout', { body: blocked });
    expect(changed).toMatchObject({ before, waves: expect.any(Number) as number });
    expect(changed.waves).toBeGreaterThan(0);

    const look = await desk.get('previewReplan', { id: wave });
    expect(look.before.runs).toBe((await runsOf(wave)).filter((r) => r.state === 'waiting').length);
    expect(look.after.metres).toBeGreaterThan(0);
    const old = (await runsOf(wave)).filter((r) => r.state === 'waiting').map((r) => r.id);
    await desk.get('replan', { id: wave });
    const runs = await runsOf(wave);
    expect(runs.filter((r) => old.includes(r.id))).toEqual([]);
    expect(runs.find((r) => r.id === begun!.id)?.state ?? 'picking').toBe('picking');
    const fresh = runs.filter((r) => r.state === 'waiting');
    expect(fresh).toHaveLength(look.after.runs);
    const { columns } = { columns: new Map(before.aisles.map((a) => [a.id, a.x])) };
    for (const run of fresh) {
      const { path } = await desk.get('run', { id: run.id });
      // Nobody walks through what is blocked.
      path.forEach(([x, y], i) => {
        const from = path[i - 1];
        if (from && from[0] === x && x === columns.get(aisle)!)
          expect(Math.max(y, from[1]) <= 11 || Math.min(y, from[1]) >= 12.5).toBe(true);
      });
    }
    // What moved since is not overwritten: the preview must be computed again.
    expect((await desk.refused('replan', { id: wave })).code).toBe('plan-stale');
    await desk.get('changeLayout', { body: changed.before });
    expect(await desk.get('floorLayout')).toEqual(before);
  });

  it('that would walk to a bin behind a blocked stretch take another one, or go back to the Desk', async () => {
    const [at] = await relay.query<{ bin: string; aisle: string; y: number; sku: string }>(`
      select p.code as bin, p.aisle, p.y, i.sku from balance b join place p on p.id = b.place_id and p.kind = 'bin' and p.site_id = 'larkmoor'
      join item i on i.id = b.item_id where not i.tracks_lot and not i.tracks_serial and b.units > 2
        and (select count(*) from balance o join place q on q.id = o.place_id and q.kind = 'bin' where o.item_id = i.id) = 1
        and (select sum(r.units) from reservation r where r.item_id = i.id) is null order by p.code limit 1`);
    const order = await takeIn(desk, { number: 'BEHIND', lines: [[at!.sku, 1]] });
    const { wave } = await gather([order]);
    await desk.get('planWave', { id: wave });
    const layout = await desk.get('floorLayout');
    await desk.get('changeLayout', {
      body: { ...layout, blocked: [{ aisle: at!.aisle, from: at!.y - 0.5, to: at!.y + 0.5 }] },
    });
    expect(await desk.get('previewReplan', { id: wave })).toMatchObject({
      after: { runs: 0 },
      shorts: [{ order: 'BEHIND', sku: at!.sku, units: 1 }],
    });
    await desk.get('replan', { id: wave });
    expect((await desk.get('order', { id: order })).lines[0]!.released).toBe(0);
    expect(await stateOf(wave)).toBe('cancelled');
    await desk.get('changeLayout', { body: layout });
  });

  it('refuse a layout that is none, or that leaves bins outside', async () => {
    const layout = await desk.get('floorLayout');
    const refused = (part: Partial<FloorLayout>) => desk.refused('changeLayout', { body: { ...layout, ...part } });
    expect((await refused({ crossAisles: [0, 0] })).code).toBe('no-floor');
    expect((await refused({ start: { aisle: 'Q', y: 0 } })).code).toBe('no-floor');
    expect((await refused({ aisles: layout.aisles.slice(1) })).code).toBe('bins-off-floor');
    expect((await picker.refused('changeLayout', { body: layout })).status).toBe(403);
    expect(await desk.get('zoneBins', { body: { bins: ['A-01-1', 'A-01-2'], zone: 'glass' } })).toEqual({ changed: 2 });
    expect(await desk.get('zoneBins', { body: { bins: ['A-01-1', 'A-01-2'], zone: 'small' } })).toEqual({ changed: 2 });
  });

  it('count as hands who are there to work: who supervises does while a run is in hand, and for a while after', async () => {
    const here = async (name: string) => (await desk.get('crew')).people.find((p) => p.name === name)?.here;
    expect([await here('Maren Holt'), await here('Pico Lund')]).toEqual([false, true]);
    const wave = await startWave(desk, next(3));
    const [run] = await runsOf(wave);
    await desk.get('takeRun', { id: run!.id, body: { cart: 'CART-18' } });
    expect(await here('Maren Holt')).toBe(true);
    await desk.get('returnRun', { id: run!.id });
    expect(await here('Maren Holt')).toBe(false);
  });

  it('are listed as long as they are under way, however many were made since', async () => {
    const wave = await startWave(desk, next(3));
    await relay.query(`
      insert into wave select (jsonb_populate_record(w, jsonb_build_object('id', 'old-' || n, 'number', w.number + n, 'state', 'cancelled'))).*
      from wave w, generate_series(1, 205) n where w.id = '${wave}'`);
    const { waves } = await desk.get('waves');
    expect(waves.map((w) => w.id)).toContain(wave);
    await relay.query(`delete from wave where id like 'old-%'`);
  });

  it('go to a person, a team or whoever asks next, the urgent first', async () => {
    const wave = await startWave(desk, next(30));
    const [one, two] = await runsOf(wave);
    const offered = async () => (await picker.get('myRuns')).waiting.map((r) => r.id);
    const suri = (await desk.get('crew')).people.find((p) => p.name === 'Suri Okell')!;
    await desk.get('assignRuns', { body: { runs: [one!.id], person: suri.id } });
    expect(await offered()).not.toContain(one!.id);
    expect((await picker.refused('takeRun', { id: one!.id, body: { cart: 'CART-02' } })).facts).toMatchObject({
      picker: 'Suri Okell',
    });
    expect((await (await relay.as('suri')).get('myRuns')).waiting.map((r) => r.id)).toContain(one!.id);
    const waits = (await desk.get('crew')).people.find((p) => p.id === suri.id)!;
    expect(waits).toMatchObject({ queued: 1, run: null });
    expect(Date.parse(waits.ends!)).toBeGreaterThan(Date.now() + 30_000);
    await desk.get('assignRuns', { body: { runs: [one!.id], person: null, priority: 5 } });
    const { queues, people } = await desk.get('crew');
    expect(people.find((p) => p.id === suri.id)).toMatchObject({ queued: 0, ends: null });
    expect(queues.reduce((n, q) => n + q.waiting, 0)).toBe(
      (await relay.query(`select 1 from run where site_id = 'larkmoor' and state = 'waiting'`)).length,
    );
    expect((await offered())[0]).toBe(one!.id);
    if (two) {
      await desk.get('assignRuns', { body: { runs: [two.id], team: 'cold' } });
      expect(await offered()).not.toContain(two.id);
      await relay.query(`update membership set team = 'cold' where person_id = 'pico' and site_id = 'larkmoor'`);
      expect(await offered()).toContain(two.id);
    }
    expect((await desk.refused('assignRuns', { body: { runs: [one!.id], person: 'nobody' } })).status).toBe(404);
    expect((await picker.refused('assignRuns', { body: { runs: [one!.id], person: 'pico' } })).status).toBe(403);
  });

  it('lose orders to one another and to new ones, and take in others, each on the shortest walk', async () => {
    const wave = await planned(30);
    const runs = await runsOf(wave);
    const from = runs.find((r) => r.orders > 2)!;
    const order = async (run: string, at: number) => {
      const { positions } = await desk.get('run', { id: run });
      const [found] = await relay.query<{ id: string }>(
        `select id from customer_order where number = '${positions[at]!.order}'`,
      );
      return found!.id;
    };
    const moved = await order(from.id, 0);
    const { run: made } = await desk.get('moveBetweenRuns', { id: from.id, body: { orders: [moved], run: null } });
    const apart = await desk.get('run', { id: made });
    expect(apart).toMatchObject({ run: { orders: 1, proven: true, wave: from.wave }, positions: [{ number: 1 }] });
    const rest = await desk.get('run', { id: from.id });
    expect(rest.run.orders).toBe(from.orders - 1);
    expect(rest.picks.map((p) => p.step.id)).toHaveLength(from.picks - apart.picks.length);
    const { run: back } = await desk.get('moveBetweenRuns', { id: made, body: { orders: [moved], run: from.id } });
    expect(back).toBe(from.id);
    expect((await desk.get('run', { id: from.id })).run).toMatchObject({
      orders: from.orders,
      metres: expect.closeTo(from.metres, 3) as number,
    });
    expect((await runsOf(wave)).map((r) => r.id)).not.toContain(made);

    const full = runs.find((r) => r.orders === 12);
    const other = runs.find((r) => r.id !== full?.id && r.orders > 1);
    if (full && other)
      expect(
        (
          await desk.refused('moveBetweenRuns', {
            id: other.id,
            body: { orders: [await order(other.id, 0)], run: full.id },
          })
        ).code,
      ).toBe('run-full');
    const { wave: light } = await gather([await takeIn(desk, { number: 'LIGHT', lines: [['BR-001', 2]] })]);
    await desk.get('planWave', { id: light });
    const elsewhere = (await runsOf(light))[0]!;
    expect(
      (await desk.refused('moveBetweenRuns', { id: from.id, body: { orders: [moved], run: elsewhere.id } })).code,
    ).toBe('other-wave');

    const extra = await takeIn(desk, { number: 'EXTRA', lines: [['BR-001', 1]] });
    expect((await desk.refused('addOrders', { id: elsewhere.id, body: { orders: [extra] } })).code).toBe(
      'not-gathered',
    );
    const { wave: small } = await gather([extra]);
    await desk.get('addOrders', { id: elsewhere.id, body: { orders: [extra] } });
    expect((await desk.get('run', { id: elsewhere.id })).run.orders).toBe(elsewhere.orders + 1);
    expect(await stateOf(small)).toBe('cancelled');
  });
});
