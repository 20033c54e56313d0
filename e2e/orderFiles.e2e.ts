import { expect } from '@playwright/test';
import { person, test, select } from './people.ts';

const due = new Date(Date.now() + 86_400_000).toISOString().slice(0, 10);
const head = [
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
const row = (order: string, item: string, quantity: string | number) => [
  order,
  'web',
  'C1030',
  due,
  'Juniper Orchards',
  '5 Weir Street',
  'ZA1 2BC',
  'Dunmere',
  'GB',
  1,
  item,
  quantity,
];
const json = (number: string, quantity: unknown) => ({
  number,
  channel: 'web',
  customer: 'C1030',
  due,
  shipTo: { name: 'Juniper Orchards', street: '5 Weir Street', postcode: 'ZA1 2BC', city: 'Dunmere', country: 'GB' },
  lines: [{ line: 1, sku: 'HT-003', quantity }],
});
const ubl = (number: string, quantity: string) => `<?xml version="1.0" encoding="UTF-8"?>
<Order xmlns="urn:oasis:names:specification:ubl:schema:xsd:Order-2"
  xmlns:cac="urn:oasis:names:specification:ubl:schema:xsd:CommonAggregateComponents-2"
  xmlns:cbc="urn:oasis:names:specification:ubl:schema:xsd:CommonBasicComponents-2">
  <cbc:ID>${number}</cbc:ID>
  <cac:AdditionalDocumentReference><cac:Attachment><cac:ExternalReference>
    <cbc:URI>https://docs.example/${number}</cbc:URI></cac:ExternalReference></cac:Attachment></cac:AdditionalDocumentReference>
  <cac:BuyerCustomerParty><cbc:SupplierAssignedAccountID>C1030</cbc:SupplierAssignedAccountID>
    <cac:Party><cac:PartyName><cbc:Name>Juniper Orchards</cbc:Name></cac:PartyName></cac:Party></cac:BuyerCustomerParty>
  <cac:Delivery><cac:DeliveryAddress><cbc:StreetName>Weir Street</cbc:StreetName><cbc:BuildingNumber>5</cbc:BuildingNumber>
    <cbc:CityName>Dunmere</cbc:CityName><cbc:PostalZone>ZA1 2BC</cbc:PostalZone>
    <cac:Country><cbc:IdentificationCode>GB</cbc:IdentificationCode></cac:Country></cac:DeliveryAddress>
    <cac:RequestedDeliveryPeriod><cbc:EndDate>${due}</cbc:EndDate></cac:RequestedDeliveryPeriod></cac:Delivery>
  <cac:OrderLine><cac:LineItem><cbc:ID>1</cbc:ID><cbc:Quantity unitCode="C62">${quantity}</cbc:Quantity>
    <cac:Item><cac:SellersItemIdentification><cbc:ID>HT-003</cbc:ID></cac:SellersItemIdentification></cac:Item></cac:LineItem></cac:OrderLine>
</Order>`;

test('an order file of each form: what is wrong in it is said at its place, and the good order beside it is taken', async ({
  browser,
}) => {
  const desk = await person(browser, { name: 'maren' });
  const workbook = async (cells: (string | number)[][]) => {
    const made = await desk.request.post('/api/workbook', {
      data: { cells },
      headers: { 'Idempotency-Key': `workbook-${cells.length}-${String(cells[1]?.[0])}` },
    });
    return made.body();
  };
  const choose = async (name: string, buffer: Buffer) => {
    await desk.goto('/desk/intake');
    const chooser = desk.waitForEvent('filechooser');
    await desk.getByRole('button', { name: 'Choose files' }).click();
    await (await chooser).setFiles({ name, mimeType: 'application/octet-stream', buffer });
    await expect(desk.getByText(new RegExp(`^${name.replace('.', '\\.')}: `))).toBeVisible();
  };
  const csv = (...rows: (string | number)[][]) => Buffer.from([head, ...rows].map((r) => r.join(',')).join('\r\n'));
  const files: [name: string, file: Buffer, at: RegExp, expected: string, takes: number][] = [
    ['half.csv', csv(row('F-CSV', 'HT-003', 2), row('F-BAD', 'HT-003', 'two')), /quantity/, 'a whole number from 1', 1],
    ['cut.csv', Buffer.from('order;channel\r\n"F-1;web'), /.*/, 'a CSV file with a heading row', 0],
    [
      'half.xlsx',
      await workbook([head, row('F-XLSX', 'HT-003', 2), row('F-BAD', 'NO-SUCH', 1)]),
      /item/,
      'the number or barcode of an item',
      1,
    ],
    ['cut.xlsx', Buffer.from([0x50, 0x4b, 3, 4, 9, 9]), /.*/, 'a CSV, XLSX, JSON or UBL file', 0],
    [
      'half.json',
      Buffer.from(JSON.stringify([json('F-JSON', 2), json('F-BAD', 'two')])),
      /orders\[1\]\.lines\[0\]\.quantity/,
      'a whole number from 1',
      1,
    ],
    ['cut.json', Buffer.from('[{"number": "F-2",'), /.*/, 'well-formed JSON', 0],
    ['good.xml', Buffer.from(ubl('F-UBL', '2')), /.*/, '', 1],
    ['half.xml', Buffer.from(ubl('F-UBL-2', '2.5')), /OrderLine\[1\]\/LineItem\/Quantity/, 'a whole number from 1', 0],
    ['cut.xml', Buffer.from(ubl('F-UBL-3', '2').slice(0, 400)), /.*/, 'well-formed XML', 0],
  ];
  for (const [name, file, at, expected, takes] of files)
    await test.step(name, async () => {
      await choose(name, file);
      if (expected !== '') {
        const fault = desk.getByRole('row').filter({ hasText: expected }).first();
        await expect(fault).toBeVisible();
        await expect(fault).toContainText(at);
      }
      const take = desk.getByRole('button', { name: /^Import \d+ orders?$/ });
      if (takes === 0) await expect(take).toBeDisabled();
      else {
        await take.click();
        await expect(desk.getByText('1 order imported.')).toBeVisible();
      }
    });
  await desk.goto('/desk?show=open&find=F-UBL');
  await desk.getByRole('link', { name: /^F-UBL,/ }).click();
  await expect(desk.getByRole('link', { name: 'good.xml' })).toBeVisible();
});

test('files of a sender with headings of its own are matched once, known the next time, and undone', async ({
  browser,
}) => {
  const desk = await person(browser, { name: 'maren' });
  const theirs = (order: string, quantity: string) => ({
    name: `${order}.csv`,
    mimeType: 'text/csv',
    buffer: Buffer.from(
      `Orders of the week\r\n\r\nNumber;Client;Part number;Qty;Leaves\r\n${order};C1030;HT-003;${quantity};31.12.2030\r\n;;HT-004;1;\r\n`,
    ),
  });
  const choose = async (...files: ReturnType<typeof theirs>[]) => {
    await desk.goto('/desk/intake');
    const chooser = desk.waitForEvent('filechooser');
    await desk.getByRole('button', { name: 'Choose files' }).click();
    await (await chooser).setFiles(files);
  };
  const take = desk.getByRole('button', { name: /^Import \d+ orders?$/ });
  await choose(theirs('S-1', '2,0'), theirs('S-2', '1.200'));
  // Both files are asked about at once: two headings to confirm, two columns missing.
  await expect(desk.getByText('2 headings to confirm')).toBeVisible();
  await desk.getByRole('button', { name: 'Yes, use it' }).first().click();
  await expect(desk.getByText('1 heading to confirm')).toBeVisible();
  await desk.getByRole('button', { name: 'Yes, use it' }).first().click();
  await select(desk.getByLabel('Column of the file for Channel').first(), 'Same for all rows');
  await select(desk.getByLabel('Channel, the same for all rows').first(), 'Field sales');
  await select(desk.getByLabel('Column of the file for Due date').first(), 'Leaves');
  // One file shows that decimals have a comma; in the other 1.200 could be either.
  await expect(desk.getByRole('row').filter({ hasText: 'a number without a mark for thousands' })).toContainText(
    '1.200',
  );
  await desk.getByRole('button', { name: 'Show all' }).last().click();
  await select(desk.getByLabel('Decimals'), 'Comma: 1.000,5');
  await expect(desk.getByText('S-2.csv: 1 new, 0 errors')).toBeVisible();
  await desk.getByRole('textbox', { name: 'Sender' }).first().fill('Weekly list');
  await take.click();
  await expect(desk.getByText('2 orders imported.')).toBeVisible();

  await choose(theirs('S-3', '4'));
  await expect(desk.getByText('Read as Weekly list writes')).toBeVisible();
  await expect(desk.getByText('S-3.csv: 1 new, 0 errors')).toBeVisible();
  await take.click();
  await expect(desk.getByText('1 order imported.')).toBeVisible();
  await desk.goto('/desk/intake');
  await desk.getByRole('textbox', { name: 'File or sender' }).fill('S-3');
  await expect(desk.getByText('S-1.csv · Weekly list')).toBeHidden();
  await desk.getByRole('button', { name: 'Undo' }).click();
  await expect(desk.getByText('S-3.csv undone: 1 removed, 0 restored.')).toBeVisible();
  await expect(desk.getByText('Undone', { exact: true })).toBeVisible();
  await desk.goto('/desk?show=open&find=S-');
  await expect(desk.getByRole('link', { name: /^S-2,/ })).toBeVisible();
  await expect(desk.getByRole('link', { name: /^S-3,/ })).toHaveCount(0);
});
