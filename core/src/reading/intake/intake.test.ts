import fc from 'fast-check';
import Papa from 'papaparse';
import {
  adaptLine,
  checkOrders,
  compareOrder,
  orderSheet,
  readOrdersCsv as readCsv,
  readOrdersJson,
  readOrderTable,
  readOrderUbl,
  shareSplit,
} from './index.ts';
import { tableOf, type Table } from '../sheets/index.ts';

const row = (more: Record<string, string> = {}) => ({
  order: 'T-1',
  channel: 'web',
  customer: 'C1001',
  reference: '',
  due: '2026-03-02',
  priority: '',
  ship_complete: '',
  ship_to_name: 'A, B & "Co"',
  street: '1 Road',
  postcode: 'ZA1',
  city: 'Dunmere',
  country: 'gb',
  order_note: '',
  line: '1',
  item: 'JR-001',
  quantity: '2',
  pack: '',
  line_note: '',
  ...more,
});
const csv = (...rows: Record<string, string>[]) =>
  Papa.unparse({ fields: orderSheet.columns.map((c) => c.name), data: rows }, { newline: '\r\n' });
const options = { senders: [], today: '2026-03-01' };
const readOrdersCsv = (text: string) => readCsv(text, options);
const errors = (text: string) =>
  readOrdersCsv(text).errors.map(({ row, column, expected }) => ({ row, column, expected }));

describe('an order file', () => {
  it('is read with quotes, line ends of any kind, a byte order mark, and semicolons', () => {
    const text = csv(row(), row({ line: '2', item: 'JR-002', pack: 'inner' }), row({ order: 'T-2' }));
    const [first, second] = readOrdersCsv(text).orders;
    expect(first!.draft).toMatchObject({
      number: 'T-1',
      priority: 5,
      shipTo: { name: 'A, B & "Co"', country: 'GB' },
      lines: [{ line: 1 }, { line: 2, pack: 'inner' }],
    });
    expect(second).toMatchObject({ row: 4, lineRows: [4] });
    const other = Papa.unparse(
      {
        fields: orderSheet.columns.map((c) => c.name),
        data: [row(), row({ line: '2', item: 'JR-002', pack: 'inner' }), row({ order: 'T-2' })],
      },
      { newline: '\n', delimiter: ';' },
    );
    expect(readOrdersCsv(`\uFEFF${other}`).orders).toEqual(readOrdersCsv(text).orders);
  });

  it.each<[string, string, { row: number; column: string; expected: string }]>([
    ['an empty file', '', { row: 0, column: '', expected: 'csv' }],
    ['a missing column', 'order,channel\r\nT-1,web', { row: 1, column: 'customer', expected: 'a-column' }],
    ['a missing value', csv(row({ item: '' })), { row: 2, column: 'item', expected: 'a-value' }],
    ['a date that could be two', csv(row({ due: '02/03/2026' })), { row: 2, column: 'due', expected: 'one-date-only' }],
    [
      'a thousand or one and a bit',
      csv(row({ quantity: '1.000' })),
      { row: 2, column: 'quantity', expected: 'one-number-only' },
    ],
    [
      'a day that is not in the calendar',
      csv(row({ due: '2026-02-30' })),
      { row: 2, column: 'due', expected: 'a-date' },
    ],
    [
      'a quantity that is none',
      csv(row({ quantity: '-2' })),
      { row: 2, column: 'quantity', expected: 'a-whole-number' },
    ],
    ['a decimal quantity', csv(row({ quantity: '1,5' })), { row: 2, column: 'quantity', expected: 'a-whole-number' }],
    ['a pack of another name', csv(row({ pack: 'crate' })), { row: 2, column: 'pack', expected: 'a-pack-of-the-item' }],
    ['a priority out of range', csv(row({ priority: '0' })), { row: 2, column: 'priority', expected: 'one-to-nine' }],
    [
      'neither yes nor no',
      csv(row({ ship_complete: 'maybe' })),
      { row: 2, column: 'ship_complete', expected: 'yes-or-no' },
    ],
    [
      'a country in words',
      csv(row({ country: 'Atlantis' })),
      { row: 2, column: 'country', expected: 'a-country-code' },
    ],
    [
      'two values for one order',
      csv(row(), row({ line: '2', due: '2026-03-03' })),
      { row: 3, column: 'due', expected: 'one-value-per-order' },
    ],
    ['a line twice', csv(row(), row()), { row: 3, column: 'line', expected: 'a-line-once' }],
    ['a short row', `${csv(row())}\r\nT-9,web`, { row: 3, column: '', expected: 'as-many-fields-as-headings' }],
    ['an open quote', `${csv(row())}\r\n"T-9`, { row: 3, column: '', expected: 'csv' }],
    [
      'a text too long',
      csv(row({ order_note: 'x'.repeat(501) })),
      { row: 2, column: 'order_note', expected: 'at-most-length' },
    ],
  ])('tells of %s at its place', (_, text, expected) => expect(errors(text)).toContainEqual(expected));

  it('keeps the good orders when others are bad, and none that is half bad', () => {
    const { orders, errors: found } = readOrdersCsv(
      csv(row(), row({ order: 'T-2' }), row({ order: 'T-2', line: '2', quantity: 'x' })),
    );
    expect(orders.map((o) => o.draft.number)).toEqual(['T-1']);
    expect(found).toEqual([{ row: 4, column: 'quantity', value: 'x', expected: 'a-whole-number', order: 'T-2' }]);
  });

  it('never throws, whatever it is', () => {
    fc.assert(fc.property(fc.string({ maxLength: 200 }), (text) => Array.isArray(readOrdersCsv(text).errors)));
    fc.assert(
      fc.property(fc.string({ maxLength: 60 }), (text) => Array.isArray(readOrdersCsv(csv(row()) + text).errors)),
    );
  });
});

const address = { name: 'Own', street: '9 Quay', postcode: 'ZZ9', city: 'Ownham', country: 'IE' };

describe('looking up and comparing', () => {
  const known = {
    customers: new Map([['C1001', { number: 'C1001', address }]]),
    channels: new Set(['web']),
    sites: new Set(['FK1']),
    items: new Map([['JR-001', { id: 'i1', sku: 'JR-001', packs: { unit: 1 }, level: null, service: false }]]),
  };
  const read = (...rows: Record<string, string>[]) => readOrdersCsv(csv(...rows)).orders;

  it.each([
    [row({ customer: 'C9' }), 'customer', 'a-known-customer'],
    [row({ item: 'QQ' }), 'item', 'a-known-item'],
    [row({ channel: 'fax' }), 'channel', 'a-known-channel'],
    [row({ pack: 'inner' }), 'pack', 'a-pack-of-the-item'],
  ])('an unknown name keeps the order out', (bad, column, expected) => {
    const { orders, errors: found } = checkOrders(read(bad), known);
    expect(orders).toEqual([]);
    expect(found).toMatchObject([{ row: 2, column, expected }]);
  });

  it('tells a repeat from a change, and a change from one under way', () => {
    const was = read(row(), row({ line: '2', quantity: '5' }))[0]!.draft;
    const now = read(row(), row({ line: '2', quantity: '7' }), row({ line: '3' }))[0]!.draft;
    const existing = (released: number, open = true, split = false, worked: [number, string][] = []) => ({
      draft: was,
      released: new Map([[1, released]]),
      split,
      worked: new Map(worked),
      open,
    });
    expect(compareOrder(was, undefined)).toEqual({ outcome: 'new' });
    expect(compareOrder(was, existing(2))).toEqual({ outcome: 'same' });
    expect(compareOrder(now, existing(0))).toEqual({
      outcome: 'changed',
      differences: [
        { field: 'line 2 quantity', before: '5', after: '7' },
        { field: 'line 3', before: '', after: '2 × JR-001' },
      ],
    });
    // Work under way follows a change of quantity, not one of customer or item; a closed order follows none.
    expect(compareOrder(now, existing(1)).outcome).toBe('adapts');
    // Parts that were split off are orders of their own: the whole is not simply overwritten.
    expect(compareOrder(now, existing(0, true, true)).outcome).toBe('adapts');
    // What went back to Desk has a history: its lines adapt too, and keep their item.
    expect(compareOrder(now, existing(0, true, false, [[1, 'JR-001']])).outcome).toBe('adapts');
    const others = { ...now, lines: now.lines.map((l) => ({ ...l, sku: 'X' })) };
    expect(compareOrder(others, existing(0, true, false, [[1, 'JR-001']])).outcome).toBe('under-way');
    // A line that is gone upstream is in no document, but its number is not free for another item.
    const worked = existing(0, true, false, [[3, 'FR-031']]);
    expect(compareOrder(now, worked).outcome).toBe('under-way');
    expect(compareOrder(others, existing(0)).outcome).toBe('changed');
    expect(compareOrder({ ...now, customer: 'C9' }, existing(1)).outcome).toBe('under-way');
    expect(compareOrder({ ...now, lines: now.lines.map((l) => ({ ...l, sku: 'X' })) }, existing(1)).outcome).toBe(
      'under-way',
    );
    expect(compareOrder(now, existing(0, false)).outcome).toBe('under-way');
  });
});

describe('a line of which parts were split off', () => {
  const part = fc
    .record({ asked: fc.nat(20), picked: fc.nat(20) })
    .map((p) => ({ ...p, picked: Math.min(p.picked, p.asked) }));
  it('shares what the document asks: all of it and nothing more, from what waits first, picked units last', () => {
    fc.assert(
      fc.property(fc.nat(60), part, fc.array(part, { maxLength: 3 }), (wanted, own, others) => {
        const parts = others.map((p, i) => ({ ...p, order: `part ${i}` }));
        const shared = shareSplit(wanted, own, parts);
        const all = [own, ...parts];
        const shares = [shared.own, ...parts.map((p) => shared.parts.get(p.order)!)];
        expect(shares.reduce((n, s) => n + s, 0)).toBe(wanted);
        const before = all.reduce((n, p) => n + p.asked, 0);
        const picked = all.reduce((n, p) => n + p.picked, 0);
        if (wanted >= before) expect(shares.slice(1)).toEqual(parts.map((p) => p.asked));
        if (wanted >= picked) expect(shares.every((s, i) => s >= all[i]!.picked)).toBe(true);
        else expect(shares.every((s, i) => s <= all[i]!.picked)).toBe(true);
        // The order itself gives nothing while a part still waits unpicked.
        if (wanted < before && shared.own < own.asked && shared.own >= own.picked)
          expect(parts.every((p) => shared.parts.get(p.order)! <= p.picked)).toBe(true);
      }),
    );
  });
});

describe('a line under way', () => {
  it.each([
    [
      { asked: 10, cancelled: 0, released: 8, picked: 3, shipped: 0 },
      12,
      { asked: 12, cancelled: 0, back: 0, surplus: 0 },
    ],
    [
      { asked: 10, cancelled: 0, released: 8, picked: 3, shipped: 0 },
      9,
      { asked: 10, cancelled: 1, back: 0, surplus: 0 },
    ],
    [
      { asked: 10, cancelled: 0, released: 8, picked: 3, shipped: 0 },
      5,
      { asked: 10, cancelled: 5, back: 3, surplus: 0 },
    ],
    [
      { asked: 10, cancelled: 0, released: 8, picked: 3, shipped: 0 },
      0,
      { asked: 10, cancelled: 7, back: 5, surplus: 3 },
    ],
    [
      { asked: 10, cancelled: 4, released: 6, picked: 6, shipped: 0 },
      10,
      { asked: 10, cancelled: 0, back: 0, surplus: 0 },
    ],
    // Two have left: one can still be put back.
    [
      { asked: 10, cancelled: 0, released: 3, picked: 3, shipped: 2 },
      1,
      { asked: 10, cancelled: 7, back: 0, surplus: 1 },
    ],
    [
      { asked: 10, cancelled: 0, released: 3, picked: 3, shipped: 3 },
      1,
      { asked: 10, cancelled: 7, back: 0, surplus: 0 },
    ],
  ])('%j asked for %i becomes %j', (line, wanted, expected) => expect(adaptLine(line, wanted)).toEqual(expected));

  it('never asks less than is picked, never keeps released more than is asked, and accounts for every picked unit', () => {
    const amounts = fc
      .tuple(fc.integer({ min: 1, max: 50 }), fc.nat(50), fc.nat(50), fc.nat(50), fc.nat(50))
      .map(([asked, a, b, c, d]) => {
        const cancelled = Math.min(a, asked - 1);
        const released = Math.min(b, asked - cancelled);
        const picked = Math.min(c, released);
        return { asked, cancelled, released, picked, shipped: Math.min(d, picked) };
      });
    fc.assert(
      fc.property(amounts, fc.nat(60), (line, wanted) => {
        const { asked, cancelled, back, surplus } = adaptLine(line, wanted);
        const open = asked - cancelled;
        expect(open).toBe(Math.max(wanted, line.picked));
        expect(line.released - back).toBeLessThanOrEqual(open);
        expect(line.released - back).toBeGreaterThanOrEqual(line.picked);
        expect(surplus).toBe(Math.max(0, Math.min(line.picked - wanted, line.picked - line.shipped)));
      }),
    );
  });
});

describe('other forms of an order', () => {
  const [fromCsv] = readOrdersCsv(
    csv(
      row({ channel: 'account', reference: 'PO 7', ship_complete: 'yes', order_note: 'Ring twice' }),
      row({
        channel: 'account',
        reference: 'PO 7',
        ship_complete: 'yes',
        order_note: 'Ring twice',
        line: '2',
        item: 'JR-002',
        quantity: '12',
        pack: 'outer',
        line_note: 'Glass',
      }),
    ),
  ).orders;
  const xml = (
    more: Record<string, string> = {},
    second = '<cbc:Quantity unitCode="CT">12.00</cbc:Quantity>',
  ) => `<?xml version="1.0"?>
    <Order xmlns="urn:oasis:names:specification:ubl:schema:xsd:Order-2"
      xmlns:cac="urn:oasis:names:specification:ubl:schema:xsd:CommonAggregateComponents-2"
      xmlns:cbc="urn:oasis:names:specification:ubl:schema:xsd:CommonBasicComponents-2">
      <cbc:UBLVersionID>2.1</cbc:UBLVersionID><cbc:ID>T-1</cbc:ID><cbc:IssueDate>2026-02-27</cbc:IssueDate>
      <cbc:Note>Ring twice</cbc:Note><cbc:CustomerReference>PO 7</cbc:CustomerReference>
      <cac:BuyerCustomerParty><cbc:SupplierAssignedAccountID>C1001</cbc:SupplierAssignedAccountID></cac:BuyerCustomerParty>
      <cac:Delivery>
        <cac:DeliveryAddress><cbc:StreetName>Road</cbc:StreetName><cbc:BuildingNumber>1</cbc:BuildingNumber><cbc:CityName>Dunmere</cbc:CityName>
          <cbc:PostalZone>ZA1</cbc:PostalZone><cac:Country><cbc:IdentificationCode>GB</cbc:IdentificationCode></cac:Country></cac:DeliveryAddress>
        <cac:RequestedDeliveryPeriod><cbc:EndDate>${more['due'] ?? '2026-03-02'}</cbc:EndDate></cac:RequestedDeliveryPeriod>
        <cac:DeliveryParty><cac:PartyName><cbc:Name>A, B &amp; "Co"</cbc:Name></cac:PartyName></cac:DeliveryParty>
      </cac:Delivery>
      <cac:OrderLine><cac:LineItem><cbc:ID>1</cbc:ID><cbc:Quantity unitCode="EA">2</cbc:Quantity>
        <cac:Item><cac:SellersItemIdentification><cbc:ID>JR-001</cbc:ID></cac:SellersItemIdentification></cac:Item></cac:LineItem></cac:OrderLine>
      <cac:OrderLine><cbc:Note>Glass</cbc:Note><cac:LineItem><cbc:ID>2</cbc:ID>${second}<cbc:PartialDeliveryIndicator>false</cbc:PartialDeliveryIndicator>
        <cac:Item><cac:SellersItemIdentification><cbc:ID>JR-002</cbc:ID></cac:SellersItemIdentification></cac:Item></cac:LineItem></cac:OrderLine>
    </Order>`;

  it('is the same order from JSON, a workbook and UBL 2.1 as from CSV', () => {
    const { draft } = fromCsv!;
    expect(readOrdersJson(JSON.stringify({ orders: [draft] })).orders[0]!.draft).toEqual(draft);
    expect(readOrdersJson(JSON.stringify([draft])).orders).toHaveLength(1);
    const cells = Papa.parse<string[]>(csv(row(), row({ line: '2' }))).data;
    const table = tableOf(cells.map((c, i) => ({ row: i + 1, cells: c }))) as Table;
    expect(readOrderTable(table, options).orders).toEqual(readOrdersCsv(csv(row(), row({ line: '2' }))).orders);
    const ubl = readOrderUbl(xml());
    expect(ubl.errors).toEqual([]);
    expect(ubl.orders[0]!.draft).toEqual({ ...draft, shipTo: { ...draft.shipTo, street: 'Road 1' } });
  });

  it('takes an order whose address is not complete: a rule of the site holds it', () =>
    expect(readOrdersCsv(csv(row({ street: '', postcode: '', city: '' }))).errors).toEqual([]));

  it.each([
    ['JSON that breaks off', () => readOrdersJson('[{"number": "T-1"'), { row: 0, expected: 'json' }],
    [
      'JSON without lines',
      () => readOrdersJson('[{"number": "T-1"}]'),
      { column: 'orders[0].lines', expected: 'a-list' },
    ],
    ['JSON that is no list', () => readOrdersJson('{"orders": 5}'), { column: 'orders', expected: 'a-list' }],
    [
      'a wrong quantity in JSON',
      () => {
        const { draft } = fromCsv!;
        const lines = draft.lines.map((l, i) => ({ ...l, quantity: i === 1 ? 1.5 : l.quantity }));
        return readOrdersJson(JSON.stringify([draft, { ...draft, number: 'T-2', lines }]));
      },
      { row: 4, column: 'orders[1].lines[1].quantity', value: '1.5', expected: 'a-whole-number', order: 'T-2' },
    ],
    ['XML that breaks off', () => readOrderUbl('<?xml version="1.0"?>\n<Order>\n<ID>1</ID>'), { expected: 'xml' }],
    [
      'XML with a document type',
      () => readOrderUbl(`<!DOCTYPE x>${xml().replace(/<\?.*\?>/, '')}`),
      { expected: 'xml' },
    ],
    ['another document of XML', () => readOrderUbl('<Invoice/>'), { column: 'Invoice', expected: 'an-order' }],
    [
      'a wrong day in UBL',
      () => readOrderUbl(xml({ due: '2.3.2026' })),
      {
        row: 1,
        column: 'Delivery/RequestedDeliveryPeriod/EndDate',
        value: '2.3.2026',
        expected: 'a-date',
        order: 'T-1',
      },
    ],
    [
      'a unit that nobody knows in UBL',
      () => readOrderUbl(xml({}, '<cbc:Quantity unitCode="TNE">1</cbc:Quantity>')),
      { row: 2, column: 'OrderLine[2]/LineItem/Quantity/@unitCode', value: 'TNE', expected: 'a-pack-of-the-item' },
    ],
  ])('tells where %s is wrong', (_, read, expected) => expect(read().errors[0]).toMatchObject(expected));
});
