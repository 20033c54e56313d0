import { sheetNames } from '@hand-relay/core/reading/sheets';
import { openTest, type Person, type TestRelay } from './relay.ts';

describe('channels and customer classes of the house', () => {
  let relay: TestRelay;
  let desk: Person;
  beforeAll(async () => {
    relay = await openTest();
    desk = await relay.as('maren');
  });
  afterAll(() => relay.close());
  const put = (sheet: string, ...rows: Record<string, string | number>[]) =>
    desk.get('changeSheet', { id: sheet, body: { rows } });
  const order = (number: string, channel: string, item: string, units: number) => ({
    number,
    channel,
    customer: 'C1030',
    due: '2026-12-01',
    shipTo: { name: 'Juniper', street: '1 Hill', postcode: 'A1', city: 'Dunmere', country: 'GB' },
    lines: [{ line: 1, sku: item, quantity: units }],
  });
  const take = (...orders: ReturnType<typeof order>[]) => desk.get('intake', { body: { mode: 'take', orders } });

  it('are any number, named and ranked, and an order comes in by a new one at once', async () => {
    expect((await take(order('CH-1', 'market', 'HT-003', 1))).errors[0]).toMatchObject({
      column: 'channel',
      expected: 'a-known-channel',
    });
    expect(await put('channels', { channel: 'Market', name: 'Market place', rank: 1 })).toMatchObject({ changed: 1 });
    expect((await take(order('CH-1', 'market', 'HT-003', 1))).orders[0]).toMatchObject({ outcome: 'new' });
    const { channels, classes } = await desk.get('deskPlaces');
    expect(channels.map((c) => c.code)).toEqual(['account', 'market', 'field', 'web']);
    expect(channels[1]).toEqual({ code: 'market', name: 'Market place', retired: false });
    expect(classes.map((c) => c.code)).toEqual(['A', 'B', 'C']);
    const { orders } = await desk.get('outlook', { query: { channel: 'market|web' } });
    expect(orders.length).toBeGreaterThan(1);
    // Setup counts every list that it shows.
    const { counts } = await desk.get('setupOverview');
    expect(sheetNames.filter((name) => !(name in counts))).toEqual([]);
    expect([counts['channels'], counts['classes']]).toEqual([4, 3]);
    // A list of the house is not retired from under an order, and a name that nobody has is no class.
    const retire = (channel: string) =>
      desk.get('retireSheetRows', { id: 'channels', body: { rows: [{ channel, name: 'x', rank: 1 }], retired: true } });
    expect((await retire('market')).errors).toMatchObject([{ column: 'channel', expected: 'nothing-there' }]);
    await put('channels', { channel: 'fair', name: 'Trade fair', rank: 9 });
    expect(await retire('fair')).toMatchObject({ changed: 1 });
    expect((await desk.get('deskPlaces')).channels.at(-1)).toMatchObject({ code: 'fair', retired: true });
    expect((await take(order('CH-2', 'fair', 'HT-003', 1))).errors[0]).toMatchObject({ expected: 'a-known-channel' });
  });

  it('decide who gets what falls short, by the rank that the house gives them', async () => {
    const [scarce] = await relay.query<{ sku: string; free: number }>(
      `select i.sku, sum(t.on_hand - t.reserved)::int as free from item i join stock_total t on t.item_id = i.id
       where not i.tracks_serial and not exists (select 1 from order_line l where l.item_id = i.id)
       group by i.sku having sum(t.on_hand - t.reserved) between 2 and 500 order by 1 limit 1`,
    );
    const { sku, free } = scarce!;
    expect((await put('customers', { customer: 'NEW', name: 'New', class: 'Z' })).errors).toMatchObject([
      { column: 'class', expected: 'a-known' },
    ]);
    await put('classes', { class: 'z', name: 'Founders', rank: 9 });
    const customer = (number: string, name: string, grade: string) => ({
      customer: number,
      name,
      class: grade,
      country: 'GB',
    });
    await put('customers', customer('Z-1', 'Zeta', 'Z'), customer('Z-2', 'None', ''), customer('Z-3', 'Cee', 'C'));
    // The one without a class asks first and most urgently.
    for (const [number, who, priority] of [
      ['CL-2', 'Z-2', 1],
      ['CL-3', 'Z-3', 5],
      ['CL-1', 'Z-1', 9],
    ] as const)
      await take({ ...order(number, 'web', sku, free), customer: who, priority } as ReturnType<typeof order>);
    const [item] = await relay.query<{ id: string }>(`select id from item where sku = '${sku}'`);
    const getsIt = async (policy: string) => {
      const { askers } = await desk.get('itemAvailability', { id: item!.id, query: { policy } });
      expect(askers.map((a) => a.gets).sort((a, b) => b - a)).toEqual([free, 0, 0]);
      // Those served first are listed first.
      expect(askers[0]!.gets).toBe(free);
      return askers[0]!.number;
    };
    expect(await getsIt('priority')).toBe('CL-2');
    expect(await getsIt('customer-class')).toBe('CL-3');
    expect(await getsIt('order-age')).toBe('CL-2');
    await put('classes', { class: 'Z', name: 'Founders', rank: 1 }, { class: 'A', name: 'Class A', rank: 2 });
    expect(await getsIt('customer-class')).toBe('CL-1');
    const { tallies } = await desk.get('comparePolicies', { body: {} });
    expect(tallies.map((t) => t.policy)).toHaveLength(6);
    expect(tallies[1]!.byClass['Z']).toEqual({ orders: 1, complete: 1 });
    expect(tallies[0]!.byClass['Z']).toEqual({ orders: 1, complete: 0 });
  });
});
