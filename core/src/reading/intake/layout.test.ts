import fc from 'fast-check';
import { countryCode } from './country.ts';
import { checkOrders, plainLayout, readOrdersCsv, type OrderLayout, type OrderSender } from './index.ts';

const today = '2026-03-01';
const read = (text: string, layout?: OrderLayout, senders: OrderSender[] = []) =>
  readOrdersCsv(text, { layout, senders, today });
const faults = (text: string, layout?: OrderLayout) =>
  read(text, layout).errors.map(({ row, column, expected }) => [row, column, expected]);

/** As a web shop of somebody else's making writes it: titles first, names of its own, one line of each order with a head. */
const SHOP = `Orders of the week;;;;;;
printed 27.02.2026, page 1;;;;;;

Auftrag;Kunden Nr;Firmenname;Artikel;Menge;Versand am;Land
A-7;C1001;Blum & Söhne;4012345000016;1.200;13.03.2026;Österreich
;;;JR-002;2,0;;
A-8;C1002;;JR-001;12;3. Mrz 26;
`;
const SHOP_LAYOUT: OrderLayout = {
  ...plainLayout,
  matching: { customer: 'Kunden Nr', due: 'Versand am', ship_to_name: 'Firmenname' },
  values: { channel: 'web' },
  decimals: 'comma',
};

describe('an order file of any layout', () => {
  it('is read below its titles, by names of its own, dates and numbers as they are written there', () => {
    const { orders, errors, layout } = read(SHOP, SHOP_LAYOUT);
    expect(errors).toEqual([]);
    expect(layout!.heading[0]).toBe('Auftrag');
    expect(orders.map((o) => [o.draft.number, o.row, o.lineRows])).toEqual([
      ['A-7', 5, [5, 6]],
      ['A-8', 7, [7]],
    ]);
    expect(orders[0]!.draft).toMatchObject({
      channel: 'web',
      due: '2026-03-13',
      shipTo: { name: 'Blum & Söhne', country: 'AT' },
      lines: [
        { line: 1, sku: '4012345000016', quantity: 1200 },
        { line: 2, sku: 'JR-002', quantity: 2 },
      ],
    });
    expect(orders[1]!.draft.due).toBe('2026-03-03');
  });

  it('asks for what it cannot know: which date, which number, which column', () => {
    const text = 'order,customer,channel,sku,qty,ship date\nA-1,C1,web,JR-001,"1,000",02/03/2026';
    expect(faults(text)).toEqual([
      [2, 'ship date', 'one-date-only'],
      [2, 'qty', 'one-number-only'],
    ]);
    const draft = (layout: Partial<OrderLayout>) => read(text, { ...plainLayout, ...layout }).orders[0]?.draft;
    expect(draft({ dates: 'day-first', decimals: 'point' })).toMatchObject({
      due: '2026-03-02',
      lines: [{ quantity: 1000 }],
    });
    expect(draft({ dates: 'month-first', decimals: 'comma' })).toMatchObject({
      due: '2026-02-03',
      lines: [{ quantity: 1 }],
    });
    expect(faults('order,customer,sku,qty\nA-1,C1,JR-001,2')).toEqual([
      [1, 'channel', 'a-column'],
      [1, 'due', 'a-column'],
    ]);
    const values = { channel: 'field', due: '+2' };
    const fixed = read('order,customer,sku,qty\nA-1,C1,JR-001,2', { ...plainLayout, values });
    expect(fixed.orders[0]!.draft).toMatchObject({ channel: 'field', due: '2026-03-03' });
  });

  it('goes by its sender, whose headings it has, and by none where two fit alike', () => {
    const heading = (text: string) => text.split('\n').find((line) => line.startsWith('Auftrag'))!;
    const shop: OrderSender = { name: 'Shop', layout: SHOP_LAYOUT };
    const other: OrderSender = { name: 'Other', layout: { ...plainLayout, matching: { customer: 'Kunde' } } };
    expect(heading(SHOP)).toContain('Kunden Nr');
    expect(read(SHOP, undefined, [other, shop])).toMatchObject({ errors: [], layout: { sender: 'Shop' } });
    const twin: OrderSender = { name: 'Twin', layout: SHOP_LAYOUT };
    expect(read(SHOP, undefined, [shop, twin]).layout!.sender).toBe('');
  });

  it('reads no optional column by a guess until a person says so', () => {
    const text = 'order,channel,customer,due,item,quantity,unit\nA-1,web,C1,2026-03-09,JR-001,2,carton';
    const first = read(text);
    expect(first.layout!.guesses).toEqual(['pack']);
    expect(first.orders[0]!.draft.lines[0]!.pack).toBe('unit');
    const confirmed = read(text, { ...plainLayout, matching: { pack: 'unit' } });
    expect(confirmed.layout!.guesses).toEqual([]);
    expect(confirmed.orders[0]!.draft.lines[0]!.pack).toBe('outer');
  });

  it('is the same whatever divides it, above it and around it', () => {
    const rows = [
      ['order', 'channel', 'customer', 'due', 'item', 'quantity'],
      ['A-1', 'web', 'C1', '2026-03-09', 'JR-001', '2'],
      ['A-1', 'web', 'C1', '2026-03-09', 'JR-002', '5'],
    ];
    const wanted = read(rows.map((r) => r.join(',')).join('\n')).orders.map((o) => o.draft);
    expect(wanted[0]!.lines).toHaveLength(2);
    fc.assert(
      fc.property(
        fc.constantFrom(',', ';', '\t', '|'),
        fc.constantFrom('\n', '\r\n'),
        fc.array(fc.string({ unit: fc.constantFrom(...'abc ,;'), maxLength: 30 }), { maxLength: 5 }),
        (mark, end, titles) => {
          const text = [...titles, ...rows.map((r) => r.join(mark))].join(end);
          expect(read(`\uFEFF${text}`).orders.map((o) => o.draft)).toEqual(wanted);
        },
      ),
    );
  });
});

describe('what a file names otherwise than the house', () => {
  const own = { name: 'Blum', street: '9 Quay', postcode: 'ZZ9', city: 'Ownham', country: 'IE' };
  const item = { id: 'i1', sku: 'JR-001', packs: { unit: 1, outer: 12 }, service: false };
  const known = {
    customers: new Map([['Blum', { number: 'C1', address: own }]]),
    channels: new Set(['web']),
    sites: new Set<string>(),
    items: new Map([
      ['JR-001', { ...item, level: null }],
      ['4012345000016', { ...item, level: 'outer' as const }],
    ]),
  };
  const checked = (row: string) =>
    checkOrders(read(`order,channel,due,customer,item,quantity,uom,street,country\n${row}`).orders, known).orders[0]!
      .draft;

  it('is found: a customer by name, an item by barcode, which says the pack unless the file does', () => {
    expect(checked('A-1,web,2026-03-09,Blum,4012345000016,2,,,')).toMatchObject({
      customer: 'C1',
      shipTo: own,
      lines: [{ sku: 'JR-001', pack: 'outer', quantity: 2 }],
    });
    expect(checked('A-1,web,2026-03-09,Blum,4012345000016,2,pcs,,').lines[0]!.pack).toBe('unit');
    // An address of its own is not completed with parts of another.
    expect(checked('A-1,web,2026-03-09,Blum,JR-001,2,,1 Hill,')).toMatchObject({
      shipTo: { name: 'Blum', street: '1 Hill', postcode: '', city: '', country: 'IE' },
    });
  });

  it.each([
    ['gb', 'GB'],
    ['UK', 'GB'],
    ['Deutschland', 'DE'],
    ['Germany', 'DE'],
    ['Republic of nowhere', undefined],
  ])('%s is the country %s', (text, code) => expect(countryCode(text)).toBe(code));
});
