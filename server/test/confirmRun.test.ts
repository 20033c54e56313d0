import type { RunDetail } from '@hand-relay/contract';
import { checkBooks } from './books.ts';
import { openTest, type Person, type TestRelay } from './relay.ts';
import { pickOne, startWave, takeIn, type Wanted } from './steps.ts';

describe('a run that is confirmed at once', () => {
  let relay: TestRelay;
  let [desk, picker, service] = [] as unknown as Person[];
  beforeAll(async () => {
    relay = await openTest();
    [desk, picker, service] = await Promise.all((['maren', 'pico', 'tobi'] as const).map((id) => relay.as(id)));
  });
  afterAll(() => relay.close());
  afterEach(() => checkBooks(relay, expect.getState().currentTestName!));

  const runOf = async (number: string, lines: Wanted['lines']): Promise<{ order: string; run: RunDetail }> => {
    const order = await takeIn(desk!, { number, lines });
    const { runs } = await desk!.get('wave', { id: await startWave(desk!, [order]) });
    return { order, run: await desk!.get('run', { id: runs[0]!.id }) };
  };
  const confirm = (run: RunDetail, body: object) =>
    desk!.get('confirmRun', { id: run.run.id, body: { lane: 'LANE-2', ...body } });
  const no = (run: RunDetail, body: object, by = desk!) =>
    by.refused('confirmRun', { id: run.run.id, body: { lane: 'LANE-2', ...body } });

  it('is picked as planned, except what is short, which goes back to the Desk with its reason', async () => {
    const { order, run } = await runOf('AT-1', [
      ['HT-003', 4],
      ['JR-004', 3],
    ]);
    const [pick] = run.picks.filter((p) => p.step.item.sku === 'JR-004');
    const except = [{ pick: pick!.step.id, units: 1, reason: 'not-enough', note: 'two broken' }];
    const [pico] = (await desk!.get('crew')).people.filter((p) => p.name.startsWith('Pico'));
    const done = await confirm(run, { cart: 'CART-03', picker: pico!.id, except });
    expect(done.run).toMatchObject({ state: 'left', cart: 'CART-03', lane: 'LANE-2', picker: pico!.name });
    expect(done.picks.map((p) => [p.step.item.sku, p.state, p.picked]).sort()).toEqual([
      ['HT-003', 'done', 4],
      ['JR-004', 'short', 1],
    ]);
    const after = await desk!.get('order', { id: order });
    expect(after.lines.map((l) => [l.sku, l.picked, l.released])).toEqual([
      ['HT-003', 4, 4],
      ['JR-004', 1, 1],
    ]);
    const { exceptions } = await desk!.get('exceptions');
    expect(exceptions.find((e) => e.order?.id === order)).toMatchObject({
      kind: 'short',
      units: 2,
      note: 'two broken',
    });
    expect((await desk!.get('trail', { id: order })).entries.map((e) => e.kind)).toEqual(
      expect.arrayContaining(['picked', 'short', 'run-confirmed', 'cart-left']),
    );
    // It waits at a bench like any other.
    expect((await desk!.get('bench')).runs.map((r) => r.id)).toContain(run.run.id);
    expect((await no(run, { cart: 'CART-04' })).code).toBe('run-state');
  });

  it('ends what a picker has begun by scans, and leaves what they did', async () => {
    const { order, run } = await runOf('AT-2', [
      ['HT-003', 2],
      ['HT-004', 1],
    ]);
    const taken = await picker!.get('takeRun', { id: run.run.id, body: { cart: 'CART-05' } });
    await pickOne(picker!, run.run.id, taken.picks[0]!, 'CART-05');
    const done = await confirm(run, {});
    expect(done.run).toMatchObject({ state: 'left', cart: 'CART-05' });
    expect((await desk!.get('order', { id: order })).lines.map((l) => l.picked)).toEqual([2, 1]);
    const who = await relay.query<{ by: string }>(
      `select distinct confirmed_by as by from pick where run_id = '${run.run.id}'`,
    );
    expect(who).toHaveLength(1);
  });

  it('says at the exception what cannot be, and changes nothing', async () => {
    const [item] = await relay.query<{ sku: string }>(
      `select i.sku from item i join stock_total t on t.item_id = i.id where i.tracks_serial and t.on_hand - t.reserved > 3 order by 1 limit 1`,
    );
    const { order, run } = await runOf('AT-3', [
      ['HT-003', 2],
      [item!.sku, 2],
    ]);
    const of = (sku: string) => run.picks.find((p) => p.step.item.sku === sku)!.step;
    const plain = { pick: of('HT-003').id, units: 2 };
    const withCart = (except: object[]) => ({ cart: 'CART-06', except });
    expect(await no(run, withCart([{ ...plain, units: 3 }]))).toMatchObject({
      code: 'confirm-too-much',
      fields: [{ path: 'except.0.units' }],
    });
    expect(await no(run, withCart([{ ...plain, units: 1 }]))).toMatchObject({
      code: 'confirm-why',
      fields: [{ path: 'except.0.reason' }],
    });
    expect((await no(run, withCart([{ ...plain, lot: 'NONE' }]))).code).toBe('confirm-lot');
    expect((await no(run, withCart([{ ...plain, pick: 'nothing' }]))).code).toBe('not-found');
    expect((await no(run, withCart([]))).code).toBe('confirm-serials');
    expect((await no(run, { ...withCart([]), lane: 'NOWHERE' }, service)).status).toBe(403);
    const step = of(item!.sku);
    const serials = step.serialsInBin.slice(0, 2);
    const wrong = [{ pick: step.id, units: 2, serials: [serials[0], 'OTHER'] }];
    expect(await no(run, withCart(wrong))).toMatchObject({ fields: [{ path: 'except.0.serials' }] });
    await desk!.get('holdOrder', { id: order, body: { reason: 'Customer rang', stops: ['picking'] } });
    expect((await no(run, withCart([{ ...wrong[0]!, serials }]))).code).toBe('order-held');
    for (const { id } of (await desk!.get('holds', { id: order })).holds)
      await desk!.get('liftHold', { id, body: { reason: 'All clear' } });
    expect((await desk!.get('run', { id: run.run.id })).run).toMatchObject({ state: 'waiting', cart: null });
    const done = await confirm(run, withCart([{ ...wrong[0]!, serials }]));
    expect(done.picks.every((p) => p.state === 'done')).toBe(true);
  });

  it('takes any cart that is free and large enough where none is named, another for each run', async () => {
    const runs = await Promise.all(['AT-4', 'AT-5'].map((number) => runOf(number, [['HT-003', 1]])));
    const done = await Promise.all(runs.map(({ run }) => confirm(run, {})));
    const carts = done.map((d) => d.run.cart!);
    expect(new Set(carts).size).toBe(2);
    // No other free cart of fewer places is left.
    const smaller = await relay.query(
      `select 1 from cart c join cart_type t on t.id = c.type_id where not c.retired
         and t.positions < (select max(u.positions) from cart d join cart_type u on u.id = d.type_id where d.code in ('${carts.join("','")}'))
         and not exists (select 1 from run r where r.cart_code = c.code and r.state in ('waiting', 'picking', 'left'))
         and c.site_id = 'larkmoor'`,
    );
    expect(smaller).toEqual([]);
    const { run } = await runOf('AT-6', [['HT-003', 1]]);
    await relay.query(
      'update cart set retired = true where code not in (select cart_code from run where cart_code is not null)',
    );
    expect((await no(run, {})).code).toBe('no-free-cart');
    expect((await desk!.get('run', { id: run.run.id })).run).toMatchObject({ state: 'waiting', cart: null });
    await relay.query('update cart set retired = false');
  });
});
