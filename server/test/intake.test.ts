import { openTest, type Person, type TestRelay } from './relay.ts';

describe('taking in orders', () => {
  let relay: TestRelay;
  let desk: Person;
  let example: string;
  beforeAll(async () => {
    relay = await openTest();
    desk = await relay.as('maren');
    example = (await desk.ask('orderExample')).text;
  });
  afterAll(() => relay.close());
  const intake = (mode: 'preview' | 'take', csv: string, key?: string) =>
    desk.get('intake', { body: { mode, csv, document: 'orders.csv' }, ...(key ? { key } : {}) });
  const counts = async () =>
    (
      await relay.query<{ orders: number; lines: number; journal: number }>(
        `select (select count(*) from customer_order)::int as orders, (select count(*) from order_line)::int as lines, (select count(*) from journal)::int as journal`,
      )
    )[0]!;

  it('previews the example without writing, takes it once, and finds nothing new the second time', async () => {
    const before = await counts();
    const preview = await intake('preview', example);
    expect(preview).toMatchObject({
      taken: false,
      errors: [],
      orders: [
        { number: 'EXAMPLE-1', outcome: 'new', lines: 2 },
        { number: 'EXAMPLE-2', outcome: 'new', lines: 3 },
      ],
    });
    expect(await counts()).toEqual(before);
    await intake('take', example);
    const after = await counts();
    expect(after).toEqual({ orders: before.orders + 2, lines: before.lines + 5, journal: before.journal + 2 });
    expect((await intake('take', example)).orders.map((o) => o.outcome)).toEqual(['same', 'same']);
    expect(await counts()).toEqual(after);
  });

  it('takes a change, field by field, and lets released work adapt to it', async () => {
    const changed = example.replace(/(EXAMPLE-1.*?),2,unit,/, '$1,9,unit,');
    expect((await intake('preview', changed)).orders[0]).toMatchObject({
      outcome: 'changed',
      differences: [{ field: 'line 1 quantity', before: '2', after: '9' }],
    });
    await intake('take', changed);
    const [{ id }] = (await relay.query<{ id: string }>(
      `select id from customer_order where number = 'EXAMPLE-1'`,
    )) as [{ id: string }];
    expect((await desk.get('order', { id })).lines[0]).toMatchObject({ quantity: 9, asked: 9 });
    expect((await desk.get('trail', { id })).entries.map((e) => e.kind)).toEqual(['order-taken', 'order-changed']);
    await desk.get('release', { body: { orders: [id] } });
    expect((await intake('take', example)).orders[0]).toMatchObject({ outcome: 'adapts' });
    expect((await desk.get('order', { id })).lines[0]).toMatchObject({ quantity: 2 });
  });

  it('takes the good orders and lists what is wrong with the others, at its place', async () => {
    const bad = example
      .replaceAll('EXAMPLE-1', 'E-3')
      .replaceAll('EXAMPLE-2', 'E-4')
      .replace(/(E-4,account,)C\d+/g, '$1C9999');
    const result = await intake('take', bad);
    expect(result.orders.map((o) => [o.number, o.outcome])).toEqual([['E-3', 'new']]);
    expect(result.errors.map(({ row, column }) => [row, column])).toContainEqual([4, 'customer']);
  });

  it('takes JSON, and tells the path of a field that is wrong', async () => {
    const order = {
      number: 'J-1',
      channel: 'web',
      customer: 'C1001',
      due: '2026-12-01',
      shipTo: { name: 'A', street: 'B', postcode: 'C', city: 'D', country: 'GB' },
      lines: [{ line: 1, sku: 'JR-001', quantity: 3, pack: 'inner' }],
    };
    const taken = await desk.get('intake', { body: { mode: 'take', orders: [order] } });
    expect(taken).toMatchObject({ taken: true, orders: [{ number: 'J-1', outcome: 'new' }] });
    const [line] = await relay.query<{ asked: number }>(
      `select l.asked from order_line l join customer_order o on o.id = l.order_id where o.number = 'J-1'`,
    );
    expect(line!.asked).toBe(36);
    const problem = await desk.refused('intake', {
      body: { mode: 'take', orders: [{ ...order, lines: [{ line: 1, sku: 'JR-001', quantity: 0 }] }] },
    });
    expect(problem).toMatchObject({ status: 400, fields: [{ path: 'orders.0.lines.0.quantity' }] });
    expect((await desk.refused('intake', { body: { mode: 'take', orders: [order], surprise: 1 } })).code).toBe(
      'malformed',
    );
  });

  it('answers a repeat with the first answer', async () => {
    const file = example.replaceAll('EXAMPLE', 'REPEAT');
    const first = await intake('take', file, 'file-1');
    expect(first.orders[0]!.outcome).toBe('new');
    expect(await intake('take', file, 'file-1')).toEqual(first);
  });
});
