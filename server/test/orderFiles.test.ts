import exceljs from 'exceljs';
import { openTest, type Person, type TestRelay } from './relay.ts';

const heading = [
  'order',
  'channel',
  'customer',
  'due',
  'ship_to_name',
  'street',
  'postcode',
  'city',
  'country',
  'line',
  'item',
  'quantity',
];
const cells = (order: string, line: number, item: string, quantity: number | string) => [
  order,
  'account',
  'C1030',
  new Date('2026-12-01T00:00:00Z'),
  'Juniper Orchards',
  '5 Weir Street',
  'ZA1 2BC',
  'Dunmere',
  'GB',
  line,
  item,
  quantity,
];
async function workbook(...rows: unknown[][]): Promise<string> {
  const book = new exceljs.Workbook();
  book.addWorksheet('Orders').addRows([heading, ...rows]);
  return Buffer.from(await book.xlsx.writeBuffer()).toString('base64');
}
const base64 = (text: string | Uint8Array) => Buffer.from(text as never).toString('base64');

describe('order files', () => {
  let relay: TestRelay;
  let desk: Person;
  beforeAll(async () => {
    relay = await openTest();
    desk = await relay.as('maren');
  });
  afterAll(() => relay.close());
  const look = (file: string) => desk.get('intake', { body: { mode: 'preview', document: 'theirs', file } });

  it('are taken from a workbook, dates and numbers as a spreadsheet has them', async () => {
    const file = await workbook(
      cells('X-1', 1, 'HT-003', 2),
      cells('X-1', 2, 'HT-004', 3),
      cells('X-2', 1, 'HT-003', 1),
    );
    const preview = await look(file);
    expect(preview.errors).toEqual([]);
    expect(preview.orders.map((o) => [o.number, o.lines, o.outcome])).toEqual([
      ['X-1', 2, 'new'],
      ['X-2', 1, 'new'],
    ]);
    await desk.get('intake', { body: { mode: 'take', document: 'theirs.xlsx', file } });
    const { id } = await desk.get('find', { query: { code: 'ORDER-X-1' } });
    expect(await desk.get('order', { id: id! })).toMatchObject({ due: '2026-12-01', document: 'theirs.xlsx' });
    expect((await look(file)).orders.every((o) => o.outcome === 'same')).toBe(true);
  });

  it.each([
    [
      'a workbook with a word for a number',
      () => workbook(cells('X-3', 1, 'HT-003', 'many')),
      { row: 2, column: 'quantity', expected: 'a-whole-number' },
    ],
    [
      'a workbook without a column',
      async () => {
        const book = new exceljs.Workbook();
        book.addWorksheet('Orders').addRows([heading.slice(1), ['web']]);
        return Buffer.from(await book.xlsx.writeBuffer()).toString('base64');
      },
      { row: 1, column: 'order', expected: 'a-column' },
    ],
    [
      'an archive that is no workbook',
      () => base64(new Uint8Array([0x50, 0x4b, 3, 4, 1, 2, 3])),
      { expected: 'a-readable-file' },
    ],
    ['JSON that breaks off', () => base64('[{"number"'), { expected: 'json' }],
    [
      'JSON with an item nobody knows',
      () =>
        base64(
          JSON.stringify([
            {
              number: 'J-1',
              channel: 'web',
              customer: 'C1030',
              due: '2026-12-01',
              shipTo: { name: 'A', country: 'GB' },
              lines: [{ line: 1, sku: 'NOPE', quantity: 1 }],
            },
          ]),
        ),
      { column: 'item', value: 'NOPE', expected: 'a-known-item' },
    ],
    [
      'XML of another kind',
      () => base64('<?xml version="1.0"?><Invoice/>'),
      { column: 'Invoice', expected: 'an-order' },
    ],
    ['XML that breaks off', () => base64('<Order><ID>1</ID>'), { expected: 'xml' }],
    ['a picture', () => base64(new Uint8Array([0x89, 0x50, 0x4e, 0x47, 0, 0, 0, 0])), {}],
  ])('say where %s is wrong, and nothing of it is written', async (_, file, expected) => {
    const before = await relay.query('select count(*)::int as n from customer_order');
    const { errors, orders } = await look(await file());
    expect(orders).toEqual([]);
    expect(errors[0]).toMatchObject(expected);
    expect(await relay.query('select count(*)::int as n from customer_order')).toEqual(before);
  });

  it('are one thing or another, never two at once', async () => {
    const body = { mode: 'preview', csv: 'a', file: base64('b') };
    expect((await desk.refused('intake', { body })).fields[0]!.message).toBe('one of csv, orders and file');
  });
});
