import { checkBooks } from './books.ts';
import { openTest, type Person, type TestRelay } from './relay.ts';
import { takeIn } from './steps.ts';

let relay: TestRelay;
let desk: Person;
let picker: Person;
let open: string[];
beforeAll(async () => {
  relay = await openTest();
  [desk, picker] = [await relay.as('maren'), await relay.as('pico')];
  for (const person of [desk, picker]) await person.get('switchSite', { body: { site: 'fennock' } });
  const { rows } = await desk.get('orders', { query: { limit: 1000 } });
  open = rows.filter((r) => Number(r[10]) > 0).map((r) => r[0] as string);
});
afterEach(() => checkBooks(relay, expect.getState().currentTestName ?? ''));
afterAll(() => relay.close());

const next = (count: number) => open.splice(0, count);
const numbersOf = async (run: string) =>
  (
    await relay.query<{ n: number }>(
      `select b.sequence as n from pick k join place b on b.id = k.bin_id where k.run_id = '${run}' and k.state <> 'out' order by k.sequence`,
    )
  ).map((r) => r.n);
const rising = (list: number[]) => list.every((n, i) => i === 0 || list[i - 1]! <= n);

/** Picks all of a run as the depot does: bin and item, in whichever order. */
async function pickThrough(run: string): Promise<void> {
  const { picks } = await picker.get('run', { id: run });
  for (const { step } of picks) {
    const input = (what: object) => picker.get('runInput', { id: run, body: { pick: step.id, input: what } });
    let answer = await input({ kind: 'scan', text: step.bin });
    if (answer.verdict !== 'done') answer = await input({ kind: 'count', units: step.units });
    if (answer.verdict !== 'done' && step.item.tracksLot) answer = await input({ kind: 'scan', text: step.lot! });
    if (answer.verdict !== 'done')
      answer = await input({ kind: 'scan', text: `${step.position.cart}-${step.position.number}` });
    if (answer.verdict !== 'done') throw new Error(JSON.stringify(answer));
  }
}

describe('runs that chain', () => {
  it('are walked by the numbers of the bins, begin where the last ended, and turn round where that is less walk', async () => {
    // Three bins along the first aisle, as in the example "direction in turn" (common practice, no source).
    const along = await relay.query<{ sku: string; y: number }>(`
      select min(i.sku) as sku, p.y from balance b join place p on p.id = b.place_id and p.site_id = 'fennock' and p.aisle = 'N1'
      join item i on i.id = b.item_id join stock_total t on t.item_id = i.id and t.site_id = 'fennock'
      where b.units > 8 and t.on_hand - t.reserved > 8
        and (select count(*) from balance o join place q on q.id = o.place_id and q.site_id = 'fennock' where o.item_id = i.id) = 1
      group by p.y order by p.y`);
    const bins = [along[0]!, along[Math.floor(along.length / 2)]!, along.at(-1)!];
    const lists = [bins, bins.slice(2), bins.slice(1)];
    const orders: string[] = [];
    for (const [i, list] of lists.entries())
      orders.push(await takeIn(desk, { number: `TURN-${i + 1}`, lines: list.map((b) => [b.sku, 1]) }));
    const { wave } = await desk.get('release', { body: { orders } });
    await desk.get('changeWave', { id: wave, body: { picking: 'single' } });
    await desk.get('planWave', { id: wave });
    await desk.get('startWave', { id: wave });
    const walked: number[][] = [];
    for (let taken = 0; taken < 3; taken++) {
      const [run] = (await picker.get('myRuns')).waiting;
      const detail = await picker.get('takeRun', { id: run!.id, body: { cart: `TROLLEY-${taken + 1}` } });
      walked.push(detail.picks.map((k) => k.at.y));
      // The walk drawn goes the way in which it is picked, and nothing is walked back between runs.
      const [first, last] = [detail.picks[0]!.at, detail.picks.at(-1)!.at];
      expect([detail.path[0]![1], detail.path.at(-1)![1]]).toEqual([first.y, last.y]);
      expect(detail.run.approach).toBeCloseTo(taken === 0 ? bins[0]!.y : 0);
      await pickThrough(run!.id);
      await picker.get('leaveRun', { id: run!.id, body: { lane: 'NORTH-1' } });
    }
    const [low, middle, high] = bins.map((b) => b.y);
    expect(walked).toEqual([[low, middle, high], [high], [high, middle]]);
  });

  it('go always the same way where the site wants it so', async () => {
    const { settings } = await desk.get('siteSettings');
    await desk.get('changeSiteSettings', { body: { ...settings, walking: { ...settings.walking, direction: 'one' } } });
    const { wave } = await desk.get('release', { body: { orders: next(8) } });
    await desk.get('planWave', { id: wave });
    await desk.get('startWave', { id: wave });
    const { runs } = await desk.get('wave', { id: wave });
    const cart = ['TROLLEY-4', 'TROLLEY-5'];
    for (const [i, run] of runs.slice(0, 2).entries()) {
      await picker.get('takeRun', { id: run.id, body: { cart: cart[i]! } });
      expect(rising(await numbersOf(run.id))).toBe(true);
    }
    await desk.get('changeSiteSettings', { body: settings });
  });

  it('chain over departures only where the site says so, and take no cart where it asks for none', async () => {
    const { settings } = await desk.get('siteSettings');
    const set = (walking: Partial<typeof settings.walking>, askCart: boolean) =>
      desk.get('changeSiteSettings', {
        body: { ...settings, askCart, walking: { ...settings.walking, ...walking } },
      });
    await set({ acrossDepartures: true }, true);
    const { wave } = await desk.get('release', { body: { orders: next(2) } });
    await desk.get('changeWave', { id: wave, body: { picking: 'single' } });
    await desk.get('planWave', { id: wave });
    await desk.get('startWave', { id: wave });
    const { runs } = await desk.get('wave', { id: wave });
    await desk.get('assignRuns', { body: { runs: runs.map((r) => r.id), person: 'pico' } });
    const offered = async () => (await picker.get('myRuns')).waiting.slice(0, 2).map((r) => r.id);
    const walk = await offered();
    expect([...walk].sort()).toEqual(runs.map((r) => r.id).sort());
    // The one that is the longer walk leaves first.
    await relay.query(`update customer_order set leaves_at = case
        when id in (select order_id from run_position where run_id = '${walk[1]!}') then now() + interval '1 hour' else now() + interval '3 hours' end
      where id in (select order_id from run_position where run_id in ('${walk.join("','")}'))`);
    expect(await offered()).toEqual(walk);
    await set({ acrossDepartures: false }, true);
    expect(await offered()).toEqual([...walk].reverse());
    expect((await picker.refused('takeRun', { id: walk[0]!, body: {} })).code).toBe('cart-asked');
    await set({}, false);
    const taken = await picker.get('takeRun', { id: walk[0]!, body: {} });
    expect(taken.run).toMatchObject({ state: 'picking', picker: 'Pico Lund' });
    const free = await relay.query(`select 1 from cart where site_id = 'fennock' and code = '${taken.run.cart!}'`);
    expect(free).toHaveLength(1);
    await picker.get('returnRun', { id: walk[0]! });
    await desk.get('changeSiteSettings', { body: settings });
  });
});

describe('a trip that a picker gathers', () => {
  it('is made of orders that wait, picked by who made it, and put back while it is not begun', async () => {
    const { wave } = await desk.get('release', { body: { orders: next(4) } });
    const { orders, positions } = await picker.get('waitingOrders');
    expect(orders.map((o) => o.run)).toContain(null);
    expect(positions).toBe(4);
    const mine = orders.filter((o) => o.run === null).slice(0, 2);
    const made = await picker.get('gatherTrip', { body: { orders: mine.map((o) => o.id) } });
    const { run, positions: places } = await picker.get('run', { id: made.run });
    expect(run).toMatchObject({ number: made.number, state: 'waiting', orders: 2, assigned: 'Pico Lund' });
    expect(places.map((p) => p.order).sort()).toEqual(mine.map((o) => o.number).sort());
    expect((await picker.get('waitingOrders')).orders.filter((o) => o.run === null)).toHaveLength(2);
    // What lies on somebody's trip is nobody else's to gather.
    expect((await desk.refused('gatherTrip', { body: { orders: [mine[0]!.id] } })).code).toBe('not-waiting');
    await picker.get('putTripBack', { id: made.run });
    expect((await picker.get('waitingOrders')).orders.map((o) => o.id)).toEqual(
      expect.arrayContaining(mine.map((o) => o.id)),
    );
    expect((await picker.refused('putTripBack', { id: made.run })).code).toBe('run-state');
    await desk.get('cancelWave', { id: wave });
  });

  it('takes orders out of runs that nobody has begun, which go on with what is left', async () => {
    const { wave } = await desk.get('release', { body: { orders: next(6) } });
    await desk.get('planWave', { id: wave });
    await desk.get('startWave', { id: wave });
    const { runs } = await desk.get('wave', { id: wave });
    const full = runs.find((r) => r.orders > 1)!;
    const { orders } = await picker.get('waitingOrders');
    const one = orders.find((o) => o.run === full.number)!;
    const made = await picker.get('gatherTrip', { body: { orders: [one.id] } });
    expect((await picker.get('run', { id: made.run })).run).toMatchObject({ orders: 1, picking: 'single' });
    const rest = await picker.get('run', { id: full.id });
    expect(rest.run.orders).toBe(full.orders - 1);
    expect(rest.picks.map((p) => p.order.number)).not.toContain(one.number);
    const detail = await picker.get('takeRun', { id: made.run, body: { cart: 'TROLLEY-6' } });
    expect(detail.run.state).toBe('picking');
    await pickThrough(made.run);
  });

  it('is for sites that allow it, and for supervisors', async () => {
    const { settings } = await desk.get('siteSettings');
    await desk.get('changeSiteSettings', { body: { ...settings, ownTrips: false } });
    expect((await picker.get('myRuns')).ownTrips).toBe(false);
    const { orders } = await picker.get('waitingOrders');
    expect((await picker.refused('gatherTrip', { body: { orders: [orders[0]!.id] } })).code).toBe('no-own-trips');
    expect((await desk.get('myRuns')).ownTrips).toBe(true);
    await desk.get('changeSiteSettings', { body: settings });
  });
});

describe('a consolidated run', () => {
  it('takes what several orders need from one bin at once, onto a cart without places, and undoes it at once', async () => {
    for (const person of [desk, picker]) await person.get('switchSite', { body: { site: 'larkmoor' } });
    const orders: string[] = [];
    for (const [i, units] of [2, 3, 4].entries())
      orders.push(await takeIn(desk, { number: `TOGETHER-${i + 1}`, lines: [['BR-001', units]] }));
    const { wave } = await desk.get('release', { body: { orders } });
    await desk.get('changeWave', { id: wave, body: { picking: 'consolidate' } });
    await desk.get('planWave', { id: wave });
    await desk.get('startWave', { id: wave });
    const [run, ...others] = (await desk.get('wave', { id: wave })).runs;
    expect(others).toEqual([]);
    const { picks, positions } = await picker.get('takeRun', { id: run!.id, body: { cart: 'CART-01' } });
    expect(positions.map((p) => p.units).sort()).toEqual([2, 3, 4]);
    expect(picks.map((p) => [p.step.units, p.together])).toEqual([[9, true]]);
    const [pick] = picks;
    const input = (what: object) => picker.get('runInput', { id: run!.id, body: { pick: pick!.step.id, input: what } });
    const picked = async () => {
      const found = await relay.query<{ order: string; picked: number }>(
        `select o.number as "order", l.picked from order_line l join customer_order o on o.id = l.order_id where o.number like 'TOGETHER-%'`,
      );
      return positions.map((p) => found.find((f) => f.order === p.order)!.picked);
    };
    await input({ kind: 'scan', text: pick!.step.bin });
    // The bin holds less than the three ask: the first are served, the last goes without.
    const short = await input({ kind: 'short', units: 6, reason: 'not-enough' });
    const done = short.verdict === 'done' ? short : await input({ kind: 'count', units: 6 });
    expect(done).toMatchObject({ verdict: 'done', units: 6, runComplete: true });
    let left = 6;
    expect(await picked()).toEqual(
      positions.map((p) => {
        const own = Math.min(left, p.units);
        left -= own;
        return own;
      }),
    );
    expect(await picker.get('undoPick', { id: run!.id })).toEqual({ pick: pick!.step.id });
    expect(await picked()).toEqual([0, 0, 0]);
    await input({ kind: 'scan', text: pick!.step.bin });
    expect(await input({ kind: 'count', units: 9 })).toMatchObject({ verdict: 'done', units: 9 });
    expect(await picked()).toEqual(positions.map((p) => p.units));
    await picker.get('leaveRun', { id: run!.id, body: { lane: 'LANE-2' } });
  });
});

describe('items that are counted their own way', () => {
  it('are scanned one by one whatever the site does, as their sheet says', async () => {
    const { rows } = await desk.get('sheetRows', { id: 'items' });
    const row = rows.find((r) => r['item'] === 'BR-002')!;
    expect(row['counting'] ?? null).toBeNull();
    await desk.get('changeSheet', { id: 'items', body: { rows: [{ ...row, counting: 'each' }] } });
    const order = await takeIn(desk, {
      number: 'EACH-1',
      lines: [
        ['BR-002', 2],
        ['BR-001', 1],
      ],
    });
    const { wave } = await desk.get('release', { body: { orders: [order] } });
    await desk.get('planWave', { id: wave });
    await desk.get('startWave', { id: wave });
    const [run] = (await desk.get('wave', { id: wave })).runs;
    const { picks } = await picker.get('takeRun', { id: run!.id, body: { cart: 'CART-02' } });
    expect(Object.fromEntries(picks.map((p) => [p.step.item.sku, p.step.how.counting]))).toEqual({
      'BR-001': 'packs',
      'BR-002': 'each',
    });
    const pick = picks.find((p) => p.step.item.sku === 'BR-002')!;
    const input = (what: object) => picker.get('runInput', { id: run!.id, body: { pick: pick.step.id, input: what } });
    await input({ kind: 'scan', text: pick.step.bin });
    expect(await input({ kind: 'count', units: 2 })).toMatchObject({ verdict: 'refused', code: 'scan-each' });
  });
});

describe('goods that are easily taken for others', () => {
  it('are told apart on the card, and scanned one by one where the site wants it', async () => {
    for (const person of [desk, picker]) await person.get('switchSite', { body: { site: 'larkmoor' } });
    // Two makes of one frame, nothing but a word between them; the other's bin is put beside.
    const [pair] = await relay.query<{ sku: string; aisle: string; y: number; other: string; bin: string }>(`
      select i.sku, p.aisle, p.y, q.id as other, q.code as bin from item i join item o on o.name = replace(i.name, ', flat', ', wired')
      join balance b on b.item_id = i.id join place p on p.id = b.place_id and p.kind = 'bin' and p.site_id = 'larkmoor'
      join balance c on c.item_id = o.id join place q on q.id = c.place_id and q.kind = 'bin' and q.site_id = 'larkmoor'
      join stock_total t on t.item_id = i.id and t.site_id = 'larkmoor'
      where i.name like '%, flat' and t.on_hand - t.reserved > 9 and b.units > 9
        and (select count(*) from balance x join place y on y.id = x.place_id and y.site_id = 'larkmoor' where x.item_id = i.id) = 1
      order by i.sku, q.code limit 1`);
    await relay.query(`update place set aisle = '${pair!.aisle}', y = ${pair!.y} where id = '${pair!.other}'`);
    const run = async (number: string, cart: string) => {
      const order = await takeIn(desk, { number, lines: [[pair!.sku, 2]] });
      const { wave } = await desk.get('release', { body: { orders: [order] } });
      await desk.get('planWave', { id: wave });
      await desk.get('startWave', { id: wave });
      const [made] = (await desk.get('wave', { id: wave })).runs;
      return (await picker.get('takeRun', { id: made!.id, body: { cart } })).picks[0]!;
    };
    const told = await run('ALIKE-1', 'CART-03');
    expect(told.lookAlike).toMatchObject({ this: 'flat', other: 'wired' });
    expect(told.lookAlike!.bin).not.toBe('');
    expect(told.step.how.counting).toBe('packs');
    const { settings } = await desk.get('siteSettings');
    await desk.get('changeSiteSettings', { body: { ...settings, lookAlikes: 'each' } });
    expect((await run('ALIKE-2', 'CART-04')).step.how.counting).toBe('each');
    await desk.get('changeSiteSettings', { body: { ...settings, lookAlikes: 'off' } });
    expect((await run('ALIKE-3', 'CART-05')).lookAlike).toBeNull();
    await desk.get('changeSiteSettings', { body: settings });
  });
});
