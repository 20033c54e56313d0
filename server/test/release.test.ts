import { checkBooks } from './books.ts';
import { openTest, type Person, type TestRelay } from './relay.ts';
import { pickOne, startWave, takeIn } from './steps.ts';

describe('what a release promises', () => {
  let relay: TestRelay;
  let [desk, picker] = [] as unknown as [Person, Person];
  beforeAll(async () => {
    relay = await openTest();
    [desk, picker] = await Promise.all([relay.as('maren'), relay.as('pico')]);
  });
  afterAll(() => relay.close());
  afterEach(() => checkBooks(relay, expect.getState().currentTestName!));

  /** Units of an item that nobody was promised, by lot, the first to expire first. */
  const free = (sku: string) =>
    relay.query<{ lot: string; units: number; days: number }>(`
      select t.lot, t.on_hand - t.reserved as units, l.best_before - current_date as days
      from stock_total t join item i on i.id = t.item_id left join lot l on l.item_id = t.item_id and l.lot = t.lot
      where i.sku = '${sku}' and t.on_hand > t.reserved order by l.best_before`);
  const reserved = (order: string) =>
    relay.query<{ lot: string; units: number }>(
      `select r.lot, r.units from reservation r join order_line l on l.id = r.line_id where l.order_id = '${order}' and r.units > 0 order by r.lot`,
    );

  it('takes the lot that expires first, and goes on with the next', async () => {
    const [first, second] = await free('SY-002');
    const order = await takeIn(desk, { number: 'FEFO', lines: [['SY-002', first!.units + 5]] });
    await desk.get('release', { body: { orders: [order] } });
    expect(await reserved(order)).toEqual(
      [
        { lot: first!.lot, units: first!.units },
        { lot: second!.lot, units: 5 },
      ].sort((a, b) => (a.lot < b.lot ? -1 : 1)),
    );
  });

  it('the order page, the list and the preview give one figure, by the days the customer asks for the item, also when the order is overdue', async () => {
    const lots = await free('FD-001');
    const days = lots.at(-1)!.days;
    await relay.query(
      `insert into minimum_shelf_life (customer_id, item_id, days) select c.id, i.id, ${days} from customer c, item i where c.number = 'C1030' and i.sku = 'FD-001'`,
    );
    const yesterday = new Date(Date.now() - 86_400_000).toISOString().slice(0, 10);
    const all = lots.reduce((n, l) => n + l.units, 0);
    const order = await takeIn(desk, { number: 'WISHED', due: yesterday, lines: [['FD-001', all]] });
    const keeps = lots.filter((l) => l.days >= days).reduce((n, l) => n + l.units, 0);
    expect(keeps).toBeLessThan(all);
    expect((await desk.get('order', { id: order })).lines[0]!.free).toBe(keeps);
    expect((await desk.get('previewRelease', { body: { orders: [order] } })).units).toBe(keeps);
    await relay.query(`delete from minimum_shelf_life where days = ${days}`);
  });

  it("passes over a lot that will not last as long as the customer's class asks", async () => {
    const lasting = async (sku: string) => {
      const lots = await free(sku);
      return { sku, soon: lots.find((l) => l.days < 60), later: lots.find((l) => l.days > 90) };
    };
    const found = await Promise.all(
      relay.scenario.items.filter((i) => i.family.tracksLot && i.sku !== 'SY-002').map((i) => lasting(i.sku)),
    );
    const { sku, soon, later } = found.find((f) => f.soon && f.later)!;
    // Customers of class A ask for sixty days, those of class C for none.
    const strict = await takeIn(desk, { number: 'SHELF-A', customer: 'C1001', lines: [[sku, 1]] });
    const easy = await takeIn(desk, { number: 'SHELF-C', customer: 'C1030', lines: [[sku, 1]] });
    await desk.get('release', { body: { orders: [strict, easy] } });
    expect(await reserved(strict)).toEqual([{ lot: later!.lot, units: 1 }]);
    expect(await reserved(easy)).toEqual([{ lot: soon!.lot, units: 1 }]);
    // Due far ahead, no lot of today lasts until then.
    const far = await takeIn(desk, { number: 'SHELF-FAR', due: '2099-01-01', lines: [[sku, 1]] });
    expect(await desk.get('previewRelease', { body: { orders: [far] } })).toMatchObject({
      orders: 0,
      units: 0,
      nothing: ['SHELF-FAR'],
      shorts: [{ sku, asked: 1, gets: 0 }],
    });
    expect((await desk.refused('release', { body: { orders: [far] } })).code).toBe('nothing-to-release');
  });

  it('gives a ship-complete order all or nothing, and leaves what it cannot use to others', async () => {
    const [jar] = await free('JR-020');
    const whole = await takeIn(desk, {
      number: 'WHOLE',
      shipComplete: true,
      priority: 1,
      lines: [
        ['JR-020', jar!.units + 1],
        ['HT-001', 1],
      ],
    });
    const part = await takeIn(desk, { number: 'PART', priority: 9, lines: [['JR-020', jar!.units]] });
    const preview = await desk.get('previewRelease', { body: { orders: [whole, part] } });
    expect(preview).toMatchObject({ orders: 1, ordersComplete: 1, units: jar!.units, nothing: ['WHOLE'] });
    await desk.get('release', { body: { orders: [whole, part] } });
    expect(await reserved(whole)).toEqual([]);
    expect(await reserved(part)).toEqual([{ lot: '', units: jar!.units }]);
  });

  it('serves the higher priority first where both cannot be served, and tells who goes short', async () => {
    const [lid] = await free('LD-003');
    const low = await takeIn(desk, { number: 'LOW', priority: 6, lines: [['LD-003', lid!.units]] });
    const high = await takeIn(desk, { number: 'HIGH', priority: 2, lines: [['LD-003', lid!.units - 2]] });
    const { preview } = await desk.get('release', { body: { orders: [low, high] } });
    expect(preview.shorts).toEqual([expect.objectContaining({ order: 'LOW', asked: lid!.units, gets: 2 })]);
    expect((await desk.get('order', { id: high })).lines[0]).toMatchObject({ reserved: lid!.units - 2, free: 0 });
  });

  it('previews without keeping anything', async () => {
    const order = await takeIn(desk, { number: 'LOOK', lines: [['BR-001', 2]] });
    const before = await relay.query('select * from reservation order by line_id, wave_id, lot');
    const preview = await desk.get('previewRelease', { body: { orders: [order] } });
    expect(preview).toMatchObject({ orders: 1, lines: 1, units: 2, runs: 1 });
    expect(preview.metres).toBeGreaterThan(0);
    expect(preview.weightG).toBe(
      2 * (await relay.query<{ weight_g: number }>("select weight_g from item where sku = 'BR-001'"))[0]!.weight_g,
    );
    expect(await relay.query('select * from reservation order by line_id, wave_id, lot')).toEqual(before);
    expect((await desk.get('order', { id: order })).waves).toEqual([]);
  });

  it('goes through gathering, planned, started and done, and refuses every other way', async () => {
    const order = await takeIn(desk, {
      number: 'STATES',
      lines: [
        ['QC-001', 3],
        ['WK-001', 1],
      ],
    });
    const { wave, number } = await desk.get('release', { body: { orders: [order] } });
    expect(await desk.refused('startWave', { id: wave })).toMatchObject({
      code: 'wave-state',
      facts: { state: 'gathering', number },
    });
    expect((await desk.get('planWave', { id: wave, key: 'plan-it' })).wave).toMatchObject({
      state: 'planned',
      runs: 1,
    });
    // The same request again gets its answer; another is told.
    expect((await desk.get('planWave', { id: wave, key: 'plan-it' })).wave.state).toBe('planned');
    expect((await desk.refused('planWave', { id: wave })).facts).toEqual({ state: 'planned', number });
    expect((await picker.get('myRuns')).waiting.filter((r) => r.wave === number)).toEqual([]);
    await desk.get('startWave', { id: wave });
    const run = (await picker.get('myRuns')).waiting.find((r) => r.wave === number)!;
    const { picks } = await picker.get('takeRun', { id: run.id, body: { cart: 'CART-01' } });
    await pickOne(picker, run.id, picks[0]!, 'CART-01');
    expect(await desk.refused('cancelWave', { id: wave })).toMatchObject({
      code: 'wave-begun',
      facts: { runs: [{ number: run.number, picker: 'Pico Lund' }] },
    });
    expect((await picker.refused('returnRun', { id: run.id })).code).toBe('run-begun');
    // Begun or not, an order leaves its run: what of it lies on the cart is put back by a trip of its own.
    await desk.get('takeOut', { id: run.id, body: { order } });
    const { trips } = await picker.get('putAways');
    expect(trips.find((t) => t.run === run.id)).toMatchObject({ goods: [{ units: picks[0]!.step.units }] });
    expect((await desk.get('wave', { id: wave })).wave.state).toBe('done');
    expect((await desk.refused('cancelWave', { id: wave })).code).toBe('wave-state');
    expect(await reserved(order)).toEqual([]);
  });

  it('loses an order as a whole, out of one wave alone, as far as nobody has begun it', async () => {
    const [one, two] = [
      await takeIn(desk, {
        number: 'OUT-1',
        lines: [
          ['HT-003', 2],
          ['HT-004', 1],
        ],
      }),
      await takeIn(desk, { number: 'OUT-2', lines: [['HT-003', 1]] }),
    ];
    const { wave } = await desk.get('release', { body: { orders: [one, two] } });
    const other = await takeIn(desk, { number: 'OUT-3', lines: [['HT-003', 1]] });
    await desk.get('release', { body: { orders: [other] } });
    const out = await desk.get('unrelease', { body: { orders: [one, other], wave } });
    expect(out.lines.map((l) => l.units).sort()).toEqual([1, 2]);
    expect((await desk.get('wave', { id: wave })).orders.map((o) => o.number)).toEqual(['OUT-2']);
    expect((await desk.get('order', { id: other })).lines[0]).toMatchObject({ released: 1 });
    expect((await desk.refused('unrelease', { body: { wave } })).fields).toMatchObject([{ path: 'lines' }]);
  });

  it('is planned and started at once where somebody asks for it who may run waves', async () => {
    const id = await takeIn(desk, { number: 'AT-ONCE', lines: [['HT-003', 1]] });
    const { wave } = await desk.get('release', { body: { orders: [id], start: true } });
    const jobs = () =>
      relay.query<{ state: string }>(`select state from job where of_id = '${wave}' and state = 'running'`);
    while ((await jobs()).length > 0) await new Promise((done) => setTimeout(done, 50));
    expect((await desk.get('wave', { id: wave })).wave.state).toBe('started');
    const { runs } = await desk.get('wave', { id: wave });
    expect(runs.map((r) => r.state)).toEqual(['waiting']);
    // A role that releases and does not run waves.
    await relay.query(`update role set rights = array_append(rights, 'orders.release') where name = 'service'`);
    const service = await relay.as('tobi');
    const other = await takeIn(desk, { number: 'AT-ONCE-2', lines: [['HT-003', 1]] });
    const no = await service.refused('release', { body: { orders: [other], start: true } });
    expect(no).toMatchObject({ status: 403, facts: { needs: ['waves.run'] } });
    expect((await desk.get('order', { id: other })).waves).toEqual([]);
  });

  it('makes runs that obey the cart, visits each bin once in a run, and walks where the plan says', async () => {
    const { rows } = await desk.get('orders');
    const orders = rows.filter((r) => Number(r[10]) > 0).slice(0, 60);
    const wave = await startWave(
      desk,
      orders.map((r) => r[0] as string),
    );
    const { runs, wave: summary } = await desk.get('wave', { id: wave });
    expect(runs.length).toBeGreaterThan(3);
    let units = 0;
    for (const { id } of runs) {
      const { run, picks, positions } = await desk.get('run', { id });
      expect(positions.length).toBeLessThanOrEqual(12);
      expect(new Set(positions.map((p) => p.number)).size).toBe(positions.length);
      const visits = picks.map((p) => p.step.bin).filter((bin, i, all) => bin !== all[i - 1]);
      expect(new Set(visits).size).toBe(visits.length);
      expect(visits).toHaveLength(run.stops);
      units += picks.reduce((n, p) => n + p.step.units, 0);
      const orderOf = new Map(positions.map((p) => [p.number, p.order]));
      for (const p of picks) expect(orderOf.get(p.step.position.number)).toBe(p.order.number);
    }
    expect(units).toBe(summary.units);
    const weights = await relay.query<{ weight: number }>(
      `select sum(k.units * i.weight_g)::int as weight from pick k join run r on r.id = k.run_id join item i on i.id = k.item_id where r.wave_id = '${wave}' group by r.id having count(distinct k.order_id) > 1`,
    );
    for (const { weight } of weights) expect(weight).toBeLessThanOrEqual(260_000);
  });

  it('knows no wave, order or run that is not there', async () => {
    for (const [name, what] of [
      ['wave', 'wave'],
      ['order', 'order'],
      ['run', 'run'],
    ] as const)
      expect(await desk.refused(name, { id: 'none-such' })).toMatchObject({
        status: 404,
        code: 'not-found',
        facts: { what },
      });
    expect((await desk.refused('planWave', { id: 'none-such' })).status).toBe(404);
    expect((await desk.refused('cancelRest', { id: 'none-such', body: { reason: 'none' } })).status).toBe(404);
  });
});
