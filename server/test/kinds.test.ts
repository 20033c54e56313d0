import { checkBooks } from './books.ts';
import { openTest, type Person, type TestRelay } from './relay.ts';
import { packAll, pickedOrder, takeIn, type Wanted } from './steps.ts';

describe('kinds of demand', () => {
  let relay: TestRelay;
  let [desk, picker, packer, dock] = [] as unknown as Person[];
  let carts = 0;
  beforeAll(async () => {
    relay = await openTest();
    [desk, picker, packer, dock] = await Promise.all(
      (['maren', 'pico', 'ada', 'len'] as const).map((id) => relay.as(id)),
    );
  });
  afterAll(() => relay.close());
  afterEach(() => checkBooks(relay, expect.getState().currentTestName!));
  /** Picks, packs and confirms an order, with a tracking number where one is asked for. */
  const ship = async (wanted: Wanted & { kind?: string; toSite?: string }, tracking = true) => {
    const order = await pickedOrder(desk!, picker!, `CART-0${++carts}`, wanted);
    await packAll(packer!, order);
    const [shipment] = (await desk!.get('order', { id: order })).shipments;
    if (tracking) await dock!.get('tracking', { id: shipment!.id, body: { from: 'carrier' } });
    await dock!.get('confirm', { id: shipment!.id, body: { rest: null } });
    const { shipments } = await dock!.get('shipmentsJson');
    return shipments.find((s) => s.order === wanted.number)!;
  };

  it('end each in its own way: invoiced now, never again, arriving elsewhere, issued here without a carrier', async () => {
    const lines: Wanted['lines'] = [['HT-003', 2]];
    expect(await ship({ number: 'K-ORDER', lines })).toMatchObject({ kind: 'order', invoice: true });
    expect(await ship({ number: 'K-INVOICED', lines, kind: 'invoiced' })).toMatchObject({
      kind: 'invoiced',
      invoice: false,
    });
    const moved = await ship({ number: 'K-MOVE', lines, kind: 'transfer', toSite: 'FK1' });
    expect(moved).toMatchObject({ kind: 'transfer', invoice: false });
    const coming = await relay.query<{ units: number; source: string; reference: string }>(
      `select e.units, e.source, e.reference from expected_supply e join site s on s.id = e.site_id where s.code = 'FK1'`,
    );
    expect(coming).toEqual([
      { units: 2, source: 'transfer', reference: expect.stringContaining(moved.shipment) as string },
    ]);
    const issued = await ship({ number: 'K-MAKE', lines, kind: 'production' }, false);
    expect(issued).toMatchObject({ kind: 'production', invoice: false, tracking: '' });
  });

  it('reach a site that was made today: like this one, with its people, and numbers of its own', async () => {
    const { site } = await desk!.get('site');
    const make = (code: string, more: object = {}) =>
      desk!.get('makeSite', { body: { code, site: { ...site, name: `Store ${code}` }, ...more } });
    const { site: made } = await make('wh9', { people: true });
    expect((await desk!.refused('makeSite', { body: { code: 'WH9', site } })).fields[0]).toMatchObject({
      path: 'code',
    });
    expect(await picker!.refused('makeSite', { body: { code: 'WH8', site } })).toMatchObject({ code: 'not-allowed' });
    const rows = (table: string, columns: string) =>
      relay.query<{ at: boolean }>(
        `select ${columns} from ${table} where site_id = '${made}' except select ${columns} from ${table} where site_id = (select id from site where code = 'LM1')`,
      );
    for (const [table, columns] of [
      ['role', 'name, rights'],
      ['hold_rule', 'name, text, conditions, stops, lifters'],
      ['membership', 'person_id, roles'],
    ] as const)
      expect(await rows(table, columns)).toEqual([]);
    // One company prefix, but no unit of the two sites can have the same number.
    const extensions = await relay.query<{ digit: number }>(
      `select sscc_extension as digit from site where gs1_prefix = '${site.gs1Prefix}'`,
    );
    expect(new Set(extensions.map((e) => e.digit)).size).toBe(extensions.length);

    const moved = await ship({ number: 'K-WH9', lines: [['HT-003', 3]], kind: 'transfer', toSite: 'WH9' });
    await desk!.get('switchSite', { body: { site: made } });
    const [supply] = (await desk!.get('sheetRows', { id: 'supply' })).rows;
    expect(supply).toMatchObject({ item: 'HT-003', units: 3, source: 'transfer' });
    expect(supply!['reference']).toContain(moved.shipment);
    expect((await desk!.get('orders')).total).toBe(0);
    const { site: fresh } = await make('NEW1', { like: 'new' });
    const roles = await relay.query<{ name: string }>(`select name from role where site_id = '${fresh}' order by name`);
    expect(roles.map((r) => r.name)).toContain('administrator');
    // Ten sites number their units by one prefix; the eleventh needs its own.
    for (let n = extensions.length + 1; n < 10; n++) await make(`X${n}`);
    expect((await desk!.refused('makeSite', { body: { code: 'X11', site } })).fields[0]).toMatchObject({
      path: 'gs1Prefix',
    });
    await make('X11', { site: { ...site, gs1Prefix: '' } });
    await desk!.get('switchSite', { body: { site: 'larkmoor' } });
  });

  it('ask for no parcel number where no carrier takes the goods', async () => {
    const wanted: Wanted = { number: 'K-ISSUE', lines: [['HT-003', 1]], kind: 'production' };
    const order = await pickedOrder(desk!, picker!, `CART-0${++carts}`, wanted);
    await packAll(packer!, order);
    const [shipment] = (await desk!.get('order', { id: order })).shipments;
    expect(await dock!.get('shipment', { id: shipment!.id })).toMatchObject({ needsTracking: false });
    expect((await dock!.refused('tracking', { id: shipment!.id, body: { from: 'carrier' } })).code).toBe('no-tracking');
    await dock!.get('confirm', { id: shipment!.id, body: { rest: null } });
  });

  it('are checked as they come in: a transfer needs another site, and nothing else has one', async () => {
    const order = {
      number: 'K-BAD',
      channel: 'web',
      customer: 'C1030',
      due: '2026-12-01',
      lines: [{ line: 1, sku: 'HT-003', quantity: 1 }],
    };
    const shipTo = { name: 'A', street: 'B', postcode: 'C', city: 'D', country: 'GB' };
    for (const [kind, toSite] of [
      ['transfer', 'NOWHERE'],
      ['transfer', ''],
      ['order', 'FK1'],
    ] as const) {
      const { errors } = await desk!.get('intake', {
        body: { mode: 'preview', orders: [{ ...order, shipTo, kind, toSite }] },
      });
      expect(errors).toMatchObject([{ column: 'to_site', expected: 'another-site' }]);
    }
    const wrong = await desk!.refused('intake', {
      body: { mode: 'preview', orders: [{ ...order, shipTo, kind: 'gift' }] },
    });
    expect(wrong.fields[0]!.path).toBe('orders.0.kind');
  });

  it('leave services and charges on the order and out of everything that is picked', async () => {
    const { rows } = await desk!.get('sheetRows', { id: 'items' });
    const like = rows.find((r) => r['item'] === 'HT-003')!;
    const none = { gtin: '', inner_units: null, inner_gtin: '', outer_units: null, outer_gtin: '' };
    await desk!.get('changeSheet', {
      id: 'items',
      body: { rows: [{ ...like, ...none, item: 'GIFT-WRAP', name: 'Gift wrapping', service: true }] },
    });
    const wanted: Wanted = {
      number: 'K-CHARGE',
      lines: [
        ['HT-003', 1],
        ['GIFT-WRAP', 1],
      ],
    };
    const order = await takeIn(desk!, wanted);
    const detail = await desk!.get('order', { id: order });
    expect([detail.lines.length, detail.charges.map((c) => c.sku)]).toEqual([1, ['GIFT-WRAP']]);
    expect((await desk!.get('previewRelease', { body: { orders: [order] } })).ordersComplete).toBe(1);
    expect((await ship(wanted)).lines).toHaveLength(1);
    expect((await desk!.get('order', { id: order })).status).toBe('closed');
    const alone = await takeIn(desk!, { number: 'K-ALONE', lines: [['GIFT-WRAP', 1]] });
    expect((await desk!.get('order', { id: alone })).status).toBe('closed');
  });
});
