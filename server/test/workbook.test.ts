import { strToU8, zipSync, type Zippable } from 'fflate';
import exceljs from 'exceljs';
import { openComputation, type Computation } from '../src/platform/index.ts';
import { readWorkbook, WorkbookTooLarge, workbookLimits } from '../src/platform/workbook.ts';

const MAIN = 'http://schemas.openxmlformats.org/spreadsheetml/2006/main';
const RELATIONS = 'http://schemas.openxmlformats.org/officeDocument/2006/relationships';
const relations = (...list: [id: string, type: string, target: string][]) =>
  strToU8(
    `<Relationships xmlns="x">${list.map(([id, type, target]) => `<Relationship Id="${id}" Type="${RELATIONS}/${type}" Target="${target}"/>`).join('')}</Relationships>`,
  );

/** A workbook written by hand: what no library of ours would write. */
function workbook(sheet: string, more: Zippable = {}): Uint8Array {
  return zipSync({
    '_rels/.rels': relations(['r1', 'officeDocument', 'xl/workbook.xml']),
    'xl/workbook.xml': strToU8(
      `<workbook xmlns="${MAIN}" xmlns:r="${RELATIONS}"><sheets><sheet name="A" sheetId="1" r:id="r1"/></sheets></workbook>`,
    ),
    'xl/_rels/workbook.xml.rels': relations(
      ['r1', 'worksheet', 'worksheets/sheet1.xml'],
      ['r2', 'sharedStrings', '/xl/sharedStrings.xml'],
      ['r3', 'styles', 'styles.xml'],
    ),
    'xl/worksheets/sheet1.xml': strToU8(`<worksheet xmlns="${MAIN}"><sheetData>${sheet}</sheetData></worksheet>`),
    ...more,
  });
}

describe('a workbook', () => {
  it('gives what its cells show, as a library writes them', async () => {
    const book = new exceljs.Workbook();
    book.addWorksheet('Empty');
    const sheet = book.addWorksheet('Data');
    sheet.getCell('B2').value = 'a & <b>';
    sheet.getCell('D2').value = 12.5;
    sheet.getCell('E2').value = true;
    sheet.getCell('B4').value = new Date(Date.UTC(2026, 2, 9));
    sheet.getCell('C4').value = { formula: 'D2*2', result: 25 };
    sheet.getCell('D4').value = { richText: [{ text: 'rich ' }, { font: { bold: true }, text: 'text' }] };
    sheet.getCell('E4').value = { text: 'link', hyperlink: 'https://example.org' };
    sheet.getCell('F4').value = 45_000;
    sheet.getCell('F4').numFmt = '#,##0 "days"';
    sheet.getCell('G4').value = 0.75;
    sheet.getCell('G4').numFmt = 'hh:mm';
    const bytes = new Uint8Array(await book.xlsx.writeBuffer());
    expect(await readWorkbook(bytes)).toEqual([
      { row: 2, cells: [null, 'a & <b>', null, 12.5, true] },
      { row: 4, cells: [null, new Date(Date.UTC(2026, 2, 9)), 25, 'rich text', 'link', 45_000, '18:00'] },
    ]);
  });

  it('is read where rows and cells leave out where they stand, and where names have prefixes', async () => {
    const bytes = workbook(
      '<row><c t="inlineStr"><is><t>item</t></is></c><c><v>3</v></c></row><row/><row r="9"><c r="C9" t="s"><v>1</v></c><c><v>4</v></c></row>',
      {
        'xl/sharedStrings.xml': strToU8(
          '<x:sst xmlns:x="y"><x:si><x:t>no</x:t></x:si><x:si><x:t>y_x0041_</x:t><x:rPh><x:t>guide</x:t></x:rPh></x:si></x:sst>',
        ),
      },
    );
    expect(await readWorkbook(bytes)).toEqual([
      { row: 1, cells: ['item', 3] },
      { row: 9, cells: [null, null, 'yA', 4] },
    ]);
  });

  it('counts days as the workbook does', async () => {
    const styles = strToU8('<styleSheet><cellXfs><xf numFmtId="0"/><xf numFmtId="14"/></cellXfs></styleSheet>');
    const bytes = workbook('<row r="1"><c s="1"><v>1</v></c><c s="1"><v>61</v></c><c><v>61</v></c></row>', {
      'xl/styles.xml': styles,
    });
    expect(await readWorkbook(bytes)).toEqual([
      { row: 1, cells: [new Date(Date.UTC(1900, 0, 1)), new Date(Date.UTC(1900, 2, 1)), 61] },
    ]);
  });

  it('with one cell far away costs no more than that cell', async () => {
    const rows = await readWorkbook(workbook('<row r="100000"><c r="Z100000"><v>1</v></c></row>'));
    expect(rows).toHaveLength(1);
    expect(rows[0]).toMatchObject({ row: 100_000 });
    expect(rows[0]!.cells).toHaveLength(26);
  });

  it.each([
    ['bytes', workbook(`<row><c t="str"><v>${'x'.repeat(3_000_000)}</v></c></row>`), { bytes: 1_000_000 }],
    ['cells', workbook(`${'<row><c r="CV1"><v>1</v></c></row>'.repeat(30)}`), { cells: 2_000 }],
    ['columns', workbook('<row><c r="XFD1"><v>1</v></c></row>'), {}],
    [
      'text',
      workbook('<row><c t="s"><v>0</v></c></row>'.repeat(3_000), {
        'xl/sharedStrings.xml': strToU8(`<sst><si><t>${'x'.repeat(50_000)}</t></si></sst>`),
      }),
      {},
    ],
  ] as const)('with too many %s is refused with the limit', async (what, bytes, limits) => {
    const refused = readWorkbook(bytes, { ...workbookLimits, ...limits });
    await expect(refused).rejects.toThrow(WorkbookTooLarge);
    await expect(refused).rejects.toMatchObject({ what });
  });
});

describe('a file that somebody sends', () => {
  let compute: Computation;
  beforeAll(() => {
    compute = openComputation();
  });
  afterAll(() => compute.close());
  const read = (bytes: Uint8Array) => compute.readFile({ name: 'sent.xlsx', bytes, sheet: 'items', matching: {} });

  it('is refused in words when it unpacks to more than the machine has, and the next one is read', async () => {
    // 310 MB of the same letter are less than 2 MB, packed in haste.
    const strings = new Uint8Array(310_000_000).fill(120);
    strings.set(strToU8('<sst><si><t>'));
    const bomb = workbook('', { 'xl/sharedStrings.xml': [strings, { level: 1 }] });
    expect(bomb.length).toBeLessThan(2_000_000);
    expect((await read(bomb)).errors).toMatchObject([{ expected: 'a-smaller-file' }]);
    expect((await read(workbook('<row><c t="str"><v>item</v></c></row>'))).heading).toEqual(['item']);
  });

  it.each([
    ['a broken archive', workbook('<row/>').slice(0, 300)],
    ['no workbook', zipSync({ 'a.txt': strToU8('hello') })],
    ['a workbook of broken XML', workbook('<row><c></row>')],
    ['a sheet that is not there', zipSync({ 'xl/workbook.xml': strToU8('<workbook><sheets/></workbook>') })],
  ])('is refused when it is %s', async (_, bytes) => {
    expect((await read(bytes)).errors).toMatchObject([{ row: 0, expected: 'a-file' }]);
  });
});
