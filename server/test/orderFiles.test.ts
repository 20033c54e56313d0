import exceljs from 'exceljs';
import { existsSync, mkdtempSync, readdirSync, readFileSync, utimesSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { turnOrderFolder } from '../src/desk/intake/index.ts';
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

  /** As another system writes it: a title, names of its own, German dates and numbers, no channel and no address. */
  const foreign = (order: string, quantity: string) =>
    base64(
      `Bestellungen vom Freitag\r\n\r\nBeleg;Kundennummer;Artikelnummer;Menge;Versand;Bemerkung\r\n${order};C1030;HT-003;${quantity};02.12.2026;Klingeln\r\n;;HT-004;3;;\r\n`,
    );
  const layout = {
    matching: { order: 'Beleg', due: 'Versand', order_note: 'Bemerkung' },
    values: { channel: 'field' },
    decimals: 'comma' as const,
  };

  it('of any layout are matched once, and remembered by their sender', async () => {
    const first = await look(foreign('F-1', '2,0'));
    expect(first.file).toMatchObject({ sender: '', guesses: ['order', 'order_note'], matching: { due: null } });
    expect(first.errors.map((e) => [e.row, e.column, e.expected])).toEqual([
      [1, 'channel', 'a-column'],
      [1, 'due', 'a-column'],
    ]);
    const body = { mode: 'take', document: 'freitag.csv', file: foreign('F-1', '2,0'), layout, sender: 'Hofladen' };
    expect(await desk.get('intake', { body })).toMatchObject({
      errors: [],
      orders: [{ number: 'F-1', outcome: 'new' }],
    });
    const { id } = await desk.get('find', { query: { code: 'ORDER-F-1' } });
    const order = await desk.get('order', { id: id! });
    expect(order).toMatchObject({ due: '2026-12-02', channel: 'field', note: 'Klingeln' });
    expect(order.lines.map((l) => l.asked)).toEqual([2, 3]);
    // The address is the customer's own.
    const [own] = await relay.query<{ city: string }>("select city from customer where number = 'C1030'");
    expect(order.shipTo.city).toBe(own!.city);
    expect(await look(foreign('F-2', '1.200'))).toMatchObject({
      errors: [],
      file: { sender: 'Hofladen', guesses: [], decimals: 'comma' },
      orders: [{ number: 'F-2', outcome: 'new', lines: 2 }],
    });
    expect((await desk.get('orderSenders')).senders).toMatchObject([{ name: 'Hofladen', person: 'Maren Holt' }]);
    // A sender is known by a name whatever its case; forgotten, the file asks again.
    await desk.get('forgetSender', { body: { name: 'HOFLADEN' } });
    expect((await look(foreign('F-2', '2'))).file!.sender).toBe('');
    expect(await desk.refused('forgetSender', { body: { name: 'Hofladen' } })).toMatchObject({ code: 'not-found' });
  });

  it('can be undone while nothing of them was released: new orders are gone, changed ones as they were', async () => {
    const take = (file: string) =>
      desk.get('intake', { body: { mode: 'take', document: 'undo.csv', file, layout, sender: 'Hofladen' } });
    const state = () =>
      relay.query<Record<string, unknown>>(
        `select o.number, o.version, o.document, o.tags, l.line, l.asked from customer_order o join order_line l on l.order_id = o.id
         where o.number like 'F-%' order by 1, 5`,
      );
    await take(foreign('F-3', '4'));
    await relay.query("update customer_order set tags = '{urgent}' where number = 'F-3'");
    const before = await state();
    await take(foreign('F-4', '1'));
    const { orders } = await take(foreign('F-3', '9'));
    expect(orders[0]!.outcome).toBe('changed');
    const [changed, made] = (await desk.get('orderImports', { query: { find: 'UNDO' } })).imports;
    expect(changed).toMatchObject({ changed: 1, new: 0, state: 'done', sender: 'Hofladen', source: 'screen' });
    expect(await desk.get('undoImport', { id: changed!.id })).toEqual({ removed: 0, restored: 1 });
    expect(await desk.get('undoImport', { id: made!.id })).toEqual({ removed: 1, restored: 0 });
    const without = (rows: Record<string, unknown>[]) => rows.map(({ version: _, ...row }) => row);
    expect(without(await state())).toEqual(without(before));
    expect(await desk.refused('undoImport', { id: made!.id })).toMatchObject({ code: 'undone-already' });
    // Its file can be imported again, as new.
    expect((await take(foreign('F-4', '1'))).orders[0]!.outcome).toBe('new');
    const { id } = await desk.get('find', { query: { code: 'ORDER-F-4' } });
    await desk.get('release', { body: { orders: [id!], lines: [], wave: null } });
    const [last] = (await desk.get('orderImports', {})).imports;
    expect(last!.state).toBe('under-way');
    expect(await desk.refused('undoImport', { id: last!.id })).toMatchObject({
      code: 'import-under-way',
      facts: { orders: 'F-4' },
    });
  });

  it('are taken from a folder: what is wrong is refused with its errors beside it, the rest is taken', async () => {
    const base = mkdtempSync(join(tmpdir(), 'orders-'));
    await turnOrderFolder(relay.platform, base);
    const [site] = await relay.query<{ code: string }>(
      "select s.code from site s join customer_order o on o.site_id = s.id where o.number = 'X-1'",
    );
    const folder = join(base, site!.code);
    const put = (name: string, bytes: string | Uint8Array, secondsAgo = 60) => {
      writeFileSync(join(folder, name), bytes);
      const at = Date.now() / 1000 - secondsAgo;
      utimesSync(join(folder, name), at, at);
    };
    const bytes = (file: string) => Buffer.from(file, 'base64');
    put('a.csv', bytes(foreign('F-5', '2')));
    put('b.xlsx', bytes(await workbook(cells('F-6', 1, 'HT-003', 1), cells('F-7', 1, 'NOPE', 1))));
    put('notes.pdf', 'no orders');
    put('still-writing.csv', bytes(foreign('F-8', '2')), 0);
    expect(await turnOrderFolder({ ...relay.platform, clock: () => new Date() }, base)).toBe(2);
    expect(readdirSync(join(folder, 'imported'))).toEqual(['a.csv']);
    expect(readdirSync(join(folder, 'refused')).sort()).toEqual(['b.xlsx', 'b.xlsx.errors.csv']);
    expect(readFileSync(join(folder, 'refused', 'b.xlsx.errors.csv'), 'utf8')).toContain(
      '3,item,NOPE,a-known-item,F-7',
    );
    expect(existsSync(join(folder, 'notes.pdf')) && existsSync(join(folder, 'still-writing.csv'))).toBe(true);
    const numbers = await relay.query<{ number: string }>(
      "select number from customer_order where number in ('F-5', 'F-6', 'F-7', 'F-8') order by 1",
    );
    expect(numbers.map((o) => o.number)).toEqual(['F-5', 'F-6']);
    // The same file again changes nothing, and takes no other file's place.
    put('a.csv', bytes(foreign('F-5', '2')));
    await turnOrderFolder({ ...relay.platform, clock: () => new Date() }, base);
    expect(readdirSync(join(folder, 'imported')).sort()).toEqual(['a (2).csv', 'a.csv']);
    const [again, refused] = (await desk.get('orderImports', {})).imports;
    expect(again).toMatchObject({ person: 'Order folder', new: 0, same: 1, source: 'folder' });
    expect(refused).toMatchObject({ document: 'b.xlsx', faults: 1, errors: [{ order: 'F-7' }] });
  });
});
