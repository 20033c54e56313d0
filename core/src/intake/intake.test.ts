import fc from 'fast-check';
import Papa from 'papaparse';
import { checkOrders, compareOrder, orderColumns, readOrdersCsv } from './index.ts';

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
  Papa.unparse({ fields: Object.keys(orderColumns), data: rows }, { newline: '\r\n' });
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
        fields: Object.keys(orderColumns),
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
    ['a date of another form', csv(row({ due: '02.03.2026' })), { row: 2, column: 'due', expected: 'a-date' }],
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
    ['a pack of another name', csv(row({ pack: 'box' })), { row: 2, column: 'pack', expected: 'a-pack-of-the-item' }],
    ['a priority out of range', csv(row({ priority: '0' })), { row: 2, column: 'priority', expected: 'one-to-nine' }],
    [
      'neither yes nor no',
      csv(row({ ship_complete: 'maybe' })),
      { row: 2, column: 'ship_complete', expected: 'yes-or-no' },
    ],
    ['a country in words', csv(row({ country: 'Wales' })), { row: 2, column: 'country', expected: 'a-country-code' }],
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

describe('looking up and comparing', () => {
  const known = {
    customers: new Set(['C1001']),
    channels: new Set(['web']),
    items: new Map([['JR-001', { id: 'i1', packs: { unit: 1 } }]]),
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
    const existing = (released: number) => ({ draft: was, released: new Map([[1, released]]) });
    expect(compareOrder(was, undefined)).toEqual({ outcome: 'new' });
    expect(compareOrder(was, existing(2))).toEqual({ outcome: 'same' });
    expect(compareOrder(now, existing(0))).toEqual({
      outcome: 'changed',
      differences: [
        { field: 'line 2 quantity', before: '5', after: '7' },
        { field: 'line 3', before: '', after: '2 × JR-001' },
      ],
    });
    expect(compareOrder(now, existing(1)).outcome).toBe('under-way');
  });
});
