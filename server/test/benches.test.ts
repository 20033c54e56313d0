import { checkBooks } from './books.ts';
import { openTest, type Person, type TestRelay } from './relay.ts';
import { pickOne, startWave, takeIn } from './steps.ts';

describe('carts at benches', () => {
  let relay: TestRelay;
  let [desk, picker, packer] = [] as unknown as [Person, Person, Person];
  beforeAll(async () => {
    relay = await openTest();
    [desk, picker, packer] = await Promise.all([relay.as('maren'), relay.as('pico'), relay.as('ada')]);
  });
  afterAll(() => relay.close());
  afterEach(() => checkBooks(relay, expect.getState().currentTestName!));

  const places = (...list: object[]) => desk.get('changeSheet', { id: 'places', body: { rows: list as never[] } });
  const bench = (place: string, more: object) => ({ place, kind: 'bench', name: place, ...more });
  /** A run of one order on a cart, all picked. */
  async function picked(number: string, cart: string) {
    const order = await takeIn(desk, { number, lines: [['HT-001', 1]] });
    const { runs } = await desk.get('wave', { id: await startWave(desk, [order]) });
    const run = runs[0]!.id;
    for (const pick of (await picker.get('takeRun', { id: run, body: { cart } })).picks)
      await pickOne(picker, run, pick, cart);
    return { order, run };
  }
  const detail = (run: string) => picker.get('run', { id: run });
  const waiting = async (order: string) =>
    (await packer.get('bench')).runs.find((r) => r.orders.some((o) => o.id === order))!;

  it('say what they are for: benches alone, for carriers and zones that there are', async () => {
    const { errors } = await places(
      { place: 'LANE-1', kind: 'lane', name: 'Lane 1', for_carrier: 'Skylark Parcels' },
      bench('BENCH-2', { for_carrier: 'Nobody', for_zone: 'nowhere' }),
      { place: 'DOOR-1', kind: 'door', name: 'Door 1', fits: 3 },
    );
    expect(errors.map((e) => [e.row, e.column, e.expected])).toEqual([
      [1, 'for_carrier', 'benches-for'],
      [2, 'for_carrier', 'a-known'],
      [2, 'for_zone', 'a-known'],
      [3, 'fits', 'no-door'],
    ]);
  });

  it('are proposed by what they are for, are left there by the scan of the bench, and wait for that bench', async () => {
    const first = await picked('BP-1', 'CART-01');
    expect((await detail(first.run)).proposedLane).toMatch(/^LANE-/);
    await places(bench('BENCH-2', { for_carrier: 'Skylark Parcels', fits: 1 }), bench('BENCH-3', { from_litres: 500 }));
    const { proposedLane, lanes } = await detail(first.run);
    expect(proposedLane).toBe('BENCH-2');
    expect(lanes.find((l) => l.code === 'BENCH-2')).toMatchObject({ carts: 0, fits: 1 });
    await picker.get('noteForBench', { id: first.run, body: { order: first.order, note: 'One lid is scratched' } });
    await picker.get('leaveRun', { id: first.run, body: { lane: 'bench-2' } });
    expect(await waiting(first.order)).toMatchObject({
      lane: 'BENCH-2',
      atBench: true,
      urgent: false,
      notes: ['BP-1: One lid is scratched'],
    });
    // Where the planned place does not matter nobody is bothered: no exception for a cart at a bench.
    expect((await desk.get('exceptions')).exceptions.filter((e) => e.kind === 'cart')).toEqual([]);
    const second = await picked('BP-2', 'CART-02');
    expect((await detail(second.run)).lanes.find((l) => l.code === 'BENCH-2')).toMatchObject({ carts: 1, fits: 1 });
    await picker.get('leaveRun', { id: second.run, body: { lane: 'LANE-2' } });
    expect(await waiting(second.order)).toMatchObject({ lane: 'LANE-2', atBench: false, notes: [] });
  });
});
