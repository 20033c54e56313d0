import { expect } from '@playwright/test';
import { readFileSync } from 'node:fs';
import { person, test } from './people.ts';

const head = 'item,name,length_mm,width_mm,height_mm,weight_g';
const jar = 'Q-1,Quince jar,80,80,110,210';

/** Files as they come from spreadsheets of other people: what each is, where it goes, and what must be said of it. */
const refused: [what: string, sheet: string, file: string, bytes: Buffer, said: RegExp[]][] = [
  ['of another shape', 'items', 'orders.csv', Buffer.from('order,channel\nA,web\n'), [/Column missing/]],
  ['that is a picture', 'items', 'photo.csv', Buffer.from([0x89, 0x50, 0x4e, 0x47, 0, 0]), [/a CSV or XLSX file/]],
  ['that is a broken workbook', 'items', 'a.xlsx', Buffer.from([0x50, 0x4b, 3, 4, 9, 9]), [/a CSV or XLSX file/]],
  ['with nothing in it', 'items', 'empty.csv', Buffer.from(' \n'), [/a CSV or XLSX file/]],
  ['with one key twice', 'customers', 'c.csv', Buffer.from('customer,name\nX,One\nX,Two\n'), [/duplicate of/]],
  [
    'with a date that is day and month either way',
    'stock',
    'stock.csv',
    Buffer.from('bin,item,units,lot,best_before\nM-01-1,PP-001,4,L1,03/04/2027\n'),
    [/day and month either way round/],
  ],
  [
    'with a barcode of a wrong check digit',
    'items',
    'gtin.csv',
    Buffer.from(`${head},gtin\n${jar},9521234001011\n`),
    [/its right check digit/],
  ],
  ['with a count of words', 'stock', 'w.csv', Buffer.from('bin,item,units\nG-01-1,JR-001,many\n'), [/a whole number/]],
  [
    'that names a bin nobody knows',
    'stock',
    'b.csv',
    Buffer.from('bin,item,units\nZZ-9,JR-001,4\n'),
    [/one that is listed under/],
  ],
  ['with a role that may nothing', 'roles', 'r.csv', Buffer.from('role,pick\nidler,no\n'), [/at least one thing/]],
  [
    'of a million rows',
    'customers',
    'million.csv',
    Buffer.from(`customer,name\n${'C,N\n'.repeat(1_000_000)}`),
    [/at most [\d,]+ rows in one file/],
  ],
];

/** Files in another encoding or spelling, which are taken as they are meant. */
const taken: [what: string, sheet: string, bytes: Buffer, said: string][] = [
  ['UTF-8 with a mark', 'customers', Buffer.from('\ufeffcustomer,name\nU-1,Köhler & Söhne\n'), 'Köhler & Söhne'],
  [
    'UTF-16',
    'customers',
    Buffer.from('\ufeffcustomer\tname\nU-2,Bäckerei\n'.replace(',', '\t'), 'utf16le'),
    'Bäckerei',
  ],
  [
    'Windows-1252 with semicolons',
    'customers',
    Buffer.from('customer;name\nU-3;Caf\xe9 Fl\xe8che \x80 5\n', 'latin1'),
    'Café Flèche € 5',
  ],
  [
    'decimal commas',
    'items',
    Buffer.from(`${head.replaceAll(',', ';')};value\nQ-2;Quince;80;80;110;210;1,25\n`),
    '1.25',
  ],
  [
    'headings of other names',
    'items',
    Buffer.from('SKU,Description,L,W,H,Grams\nQ-3,Medlar jar,80,80,110,210\n'),
    'Medlar jar',
  ],
];

test('every file that cannot be taken says what is wrong in it, where, and nothing of it is written', async ({
  browser,
}) => {
  const page = await person(browser, { name: 'maren' });
  const choose = async (sheet: string, file: string, buffer: Buffer) => {
    await page.goto(`/setup/${sheet}/import`);
    const chooser = page.waitForEvent('filechooser');
    await page.getByRole('button', { name: 'Choose a file' }).click();
    await (await chooser).setFiles({ name: file, mimeType: 'text/csv', buffer });
  };
  for (const [what, sheet, file, bytes, said] of refused)
    await test.step(`a file ${what}`, async () => {
      await choose(sheet, file, bytes);
      for (const words of said) await expect(page.getByText(words).first()).toBeVisible();
      await expect(page.getByText(new RegExp(`^${file.replace('.', '\\.')} `))).toBeVisible();
    });

  await test.step('what is wrong is saved as a file, and the good rows beside it are taken', async () => {
    await choose('items', 'half.csv', Buffer.from(`${head}\n${jar}\nQ-9,Bad one,80,wide,110,210\n`));
    const saved = page.waitForEvent('download');
    await page.getByRole('button', { name: 'Save errors as CSV' }).click();
    const text = readFileSync(await (await saved).path(), 'utf8');
    expect(text.split('\r\n')[1]).toMatch(/^3,.*wide/);
    await page.getByRole('button', { name: 'Import 1 row' }).click();
    await expect(page.getByText('1 row imported.')).toBeVisible();
  });

  for (const [what, sheet, bytes, said] of taken)
    await test.step(`a file in ${what}`, async () => {
      await choose(sheet, 'theirs.csv', bytes);
      await expect(page.getByText(said, { exact: false }).first()).toBeVisible();
      await expect(page.getByRole('button', { name: 'Import 1 row' })).toBeEnabled();
    });
});
