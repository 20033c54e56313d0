import { checkBooks } from './books.ts';
import { openTest, type Person, type TestRelay } from './relay.ts';
import { pickedOrder, takeIn } from './steps.ts';

describe('pack rules', () => {
  let relay: TestRelay;
  let [desk, picker, packer] = [] as unknown as [Person, Person, Person];
  beforeAll(async () => {
    relay = await openTest();
    [desk, picker, packer] = await Promise.all([relay.as('maren'), relay.as('pico'), relay.as('ada')]);
  });
  afterAll(() => relay.close());
  afterEach(() => checkBooks(relay, expect.getState().currentTestName!));

  const row = (more: object) => ({ item: 'JR-003', per_carton: 12, ...more });
  const write = (...list: object[]) => desk.get('changeSheet', { id: 'packrules', body: { rows: list as never[] } });
  const scan = (id: string, text: string) =>
    packer.get('packInput', { id, body: { bench: 'BENCH-1', input: { kind: 'scan', text } } });
  const put = (id: string, units: number) =>
    packer.get('packInput', {
      id,
      body: { bench: 'BENCH-1', input: { kind: 'put', item: 'item-jr-003', lot: null, units } },
    });
  const plan = async (id: string) =>
    (await packer.get('packPlan', { id, query: {} })).cartons.map((c) => [c.code, c.rule?.units ?? null]);

  it('are listed for items, customers, countries and cartons that there are, in whole cartons', async () => {
    const { errors } = await desk.get('changeSheet', {
      id: 'packrules',
      body: {
        rows: [
          row({ item: 'NO-1' }),
          row({ customer: 'C9', carton: 'BOX-9' }),
          row({ per_pallet: 130 }),
          row({ per_carton: 0 }),
        ] as never[],
      },
    });
    expect(errors.map((e) => [e.row, e.column, e.expected])).toEqual([
      [4, 'per_carton', 'a-number-from'],
      [1, 'item', 'a-known'],
      [2, 'customer', 'a-known'],
      [2, 'carton', 'a-known'],
      [3, 'per_pallet', 'whole-cartons'],
    ]);
  });

  it('decide at the bench how many go into which carton, and the release preview counts them', async () => {
    await write(row({ carton: 'BOX-L', per_pallet: 24 }), row({ country: 'GB', per_carton: 9, carton: 'BOX-M' }));
    const asked = await takeIn(desk, { number: 'PR-0', lines: [['JR-003', 30]] });
    expect((await desk.get('previewRelease', { body: { orders: [asked] } })).cartons).toBe(4);
    // The country's rule before that for all; a customer's before both.
    const order = await pickedOrder(desk, picker, 'CART-01', {
      number: 'PR-1',
      lines: [
        ['JR-003', 30],
        ['HT-001', 2],
      ],
    });
    const [rest] = (await plan(order)).slice(-1);
    expect(await plan(order)).toEqual([...[9, 9, 9, 3].map((units) => ['BOX-M', units]), rest]);
    expect(rest![1]).toBeNull();
    await write(row({ customer: 'C1030', per_carton: 12, carton: 'BOX-L' }));
    expect((await plan(order)).slice(0, 3)).toEqual([12, 12, 6].map((units) => ['BOX-L', units]));
    // What is in the open carton counts, and what a rule would have next is foreseen from it.
    await scan(order, 'BOX-L');
    await put(order, 5);
    expect((await plan(order))[0]).toEqual(['BOX-L', 12]);
    await put(order, 7);
    await scan(order, 'DO-CLOSE');
    expect((await plan(order)).slice(0, 2)).toEqual([12, 6].map((units) => ['BOX-L', units]));
    const next = await packer.get('packPlan', { id: order, query: {} });
    expect(next.choices).toEqual([]);
    expect(next.cartons[0]!.places).toHaveLength(12);
    expect(next.cartons[0]!.rule).toEqual({ item: 'item-jr-003', units: 12, perCarton: 12 });
  });

  it('say how many units stand on one pallet', async () => {
    const order = await pickedOrder(desk, picker, 'CART-02', {
      number: 'PR-2',
      customer: 'C1001',
      lines: [['JR-003', 36]],
    });
    // One rule for a customer and a country, the most exact of all.
    await write(row({ customer: 'C1001', country: 'GB', per_carton: 6, carton: 'BOX-M', per_pallet: 24 }));
    expect(await plan(order)).toEqual(Array(6).fill(['BOX-M', 6]));
    for (let n = 0; n < 6; n++) {
      await scan(order, 'BOX-M');
      await put(order, 6);
      await scan(order, 'DO-CLOSE');
    }
    const { types } = await packer.get('pallets');
    const body = { type: types.find((t) => t.name === 'Euro pallet')!.id, orders: [order], station: 'BENCH-1' };
    expect(await packer.get('openPallet', { body })).toMatchObject({ planned: 4, pallets: 2, bound: 2 });
    // Without the rule all stand on one.
    await desk.get('retireSheetRows', {
      id: 'packrules',
      body: { rows: [{ item: 'JR-003', customer: 'C1001', country: 'GB' }] as never[], retired: true },
    });
    expect(await packer.get('openPallet', { body: { ...body, station: 'BENCH-2' } })).toMatchObject({ pallets: 1 });
  });
});
