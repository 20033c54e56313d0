import fc from 'fast-check';
import Papa from 'papaparse';
import { mapFloor } from '../../walking/floor/index.ts';
import {
  compareRows,
  csvOf,
  dateOrder,
  decodeText,
  keyOf,
  makeFloor,
  guessedColumns,
  matchColumns,
  nextAisle,
  readCell,
  readDate,
  readNumber,
  readSheet,
  samplesOf,
  sheetNames,
  sheets,
  tableOfCsv,
  type Column,
  type FloorPattern,
  type Row,
  type Sheet,
  type Table,
  type Value,
} from './index.ts';

const unknown = { dates: 'unknown', decimals: 'unknown' } as const;
const tableOf = (text: string) => tableOfCsv(text) as Table;

describe('numbers as people write them', () => {
  it.each([
    ['1234', 1234],
    ['-3', -3],
    ['1,5', 1.5],
    ['1.5', 1.5],
    ['1,234.5', 1234.5],
    ['1.234,5', 1234.5],
    ["1'234.5", 1234.5],
    ['1 234,5', 1234.5],
    ['1.234.567', 1234567],
    ['1,234,567', 1234567],
    [',5', 0.5],
  ])('%s', (text, number) => expect(readNumber(text)).toBe(number));
  it.each(['', 'many', '1,2,3', '1.23.4', '12,34.5', '1.234,5,6', '--1', '1e3', '.'])('but not %s', (text) =>
    expect(readNumber(text)).toBeUndefined(),
  );

  it('read back from any of the ways in which a language writes them', () => {
    fc.assert(
      fc.property(
        fc.constantFrom('en-GB', 'de-DE', 'fr-FR', 'de-CH', 'sv-SE'),
        fc.integer({ min: -99_999_999, max: 99_999_999 }),
        (language, cents) => {
          const text = new Intl.NumberFormat(language, { minimumFractionDigits: 2 }).format(cents / 100);
          expect(readNumber(text.replace('−', '-').replaceAll('’', "'"))).toBeCloseTo(cents / 100);
        },
      ),
    );
  });

  it('refuse a whole number that could be a thousand times too large', () => {
    const column: Column = { name: 'units', type: { kind: 'whole' }, example: '' };
    expect(readCell('1,234', column, unknown)).toEqual({ expected: 'one-number-only' });
    expect(readCell('1234', column, unknown)).toEqual({ value: 1234 });
    expect(readCell('-1', column, unknown)).toMatchObject({ expected: 'a-number-from' });
  });
});

describe('dates as people write them', () => {
  it('are read by the order that the column itself shows', () => {
    expect(dateOrder(['03/04/2027', '25/12/2027'])).toBe('day-first');
    expect(dateOrder(['03/04/2027', '12/25/2027'])).toBe('month-first');
    expect(dateOrder(['03/04/2027'])).toBe('unknown');
    expect(readDate('03/04/2027', 'day-first')).toBe('2027-04-03');
    expect(readDate('03/04/2027', 'month-first')).toBe('2027-03-04');
    expect(readDate('03/04/2027', 'unknown')).toBe('unknown');
    expect(readDate('04/04/2027', 'unknown')).toBe('2027-04-04');
    expect(readDate('20270403', 'unknown')).toBe('2027-04-03');
    expect(readDate('2027-04-03T10:00:00', 'unknown')).toBe('2027-04-03');
    expect(readDate('31.2.27', 'day-first')).toBeUndefined();
    expect(readDate('2027-02-30', 'unknown')).toBeUndefined();
  });

  it('are the same day in every form', () => {
    fc.assert(
      fc.property(fc.date({ min: new Date('2000-01-01'), max: new Date('2090-01-01'), noInvalidDate: true }), (at) => {
        const iso = at.toISOString().slice(0, 10);
        const [y, m, d] = iso.split('-') as [string, string, string];
        expect(readDate(`${d}.${m}.${y}`, 'day-first')).toBe(iso);
        expect(readDate(`${Number(d)}/${Number(m)}/${y}`, 'day-first')).toBe(iso);
        expect(readDate(`${m}/${d}/${y}`, 'month-first')).toBe(iso);
      }),
    );
  });
});

describe('files', () => {
  it('are text in the encoding that wrote them, or no text', () => {
    const read = (...bytes: number[]) => decodeText(Uint8Array.from(bytes));
    expect(read(0xef, 0xbb, 0xbf, 0x61)).toEqual({ text: 'a', encoding: 'utf-8' });
    expect(read(0xc3, 0xbc)).toEqual({ text: 'ü', encoding: 'utf-8' });
    expect(read(0x80, 0xfc)).toEqual({ text: '€ü', encoding: 'windows-1252' });
    expect(read(0xfe, 0xff, 0, 0x61)).toEqual({ text: 'a', encoding: 'utf-16be' });
    expect(read(0x50, 0, 0x51)).toBeUndefined();
  });

  it('find their mark by the heading, keep the row of each line, and leave empty lines out', () => {
    expect(tableOf('a;b\n\n1;2\n;\n"3;4";5\n')).toEqual({
      heading: ['a', 'b'],
      rows: [
        { row: 3, cells: ['1', '2'] },
        { row: 5, cells: ['3;4', '5'] },
      ],
    });
    expect(tableOfCsv('')).toMatchObject({ expected: 'a-file' });
    expect(tableOfCsv('a,b\n"1,2\n')).toMatchObject({ expected: 'a-file' });
  });

  it('match columns by any name they are known by, or as a person chose', () => {
    const heading = ['Article Number', 'Description', 'Length', 'WIDTH', 'h', 'Weight (g)', 'x'];
    expect(matchColumns(sheets.items, heading)).toMatchObject({
      item: 'Article Number',
      name: 'Description',
      length_mm: 'Length',
      width_mm: 'WIDTH',
      height_mm: 'h',
      weight_g: 'Weight (g)',
      gtin: null,
    });
    expect(matchColumns(sheets.items, heading, { item: 'x', name: null })).toMatchObject({ item: 'x', name: null });
    expect(matchColumns(sheets.items, heading, { item: 'gone' })['item']).toBe('Article Number');
    // The column of that very name comes first, and no heading goes to two columns.
    expect(matchColumns(sheets.zones, ['description', 'name', 'zone'])).toMatchObject({ zone: 'zone', name: 'name' });
    expect(matchColumns(sheets.items, heading, { gtin: 'Description' })).toMatchObject({
      gtin: 'Description',
      name: null,
    });
  });

  it('ask where a heading often means something else, two may be meant, or the cells do not fit', () => {
    const table = tableOf(
      'Item;Name;Title;L;W;H;Weight;Charge;Lot tracked\nA;One;Jar;1;1;1;heavy;L-2209;yes\nB;Two;Lid;1;1;1;light;L-2210;no\n' +
        'C;Three;Pan;1;1;1;9;;\nD;Four;Cup;1;1;1;;L-2209;\n',
    );
    const matching = matchColumns(sheets.items, table.heading);
    expect(matching).toMatchObject({ service: 'Charge', lots: 'Lot tracked', weight_g: 'Weight', name: 'Name' });
    expect(guessedColumns(sheets.items, table, matching)).toEqual(['weight_g', 'service']);
    // What a person said is no guess any more.
    const kept = { service: 'Charge', weight_g: 'Weight' };
    expect(guessedColumns(sheets.items, table, matching, kept)).toEqual([]);
    const left = matchColumns(sheets.items, table.heading, { service: null });
    expect([left['service'], guessedColumns(sheets.items, table, left)]).toEqual([null, ['weight_g']]);
    const two = tableOf('Item;Description;Product\nA;One;Two\n');
    expect(guessedColumns(sheets.items, two, matchColumns(sheets.items, two.heading))).toEqual(['name']);
    expect(samplesOf(table)).toMatchObject({ Item: ['A', 'B', 'C'], Charge: ['L-2209', 'L-2210'] });
  });
});

/** Values that a column can keep. */
function valueOf({ type, needed }: Column): fc.Arbitrary<Value> {
  const text = fc.stringMatching(/^[A-Za-z0-9ÄÖÜäöü"';,=+@ -]{1,12}$/).map((t) => t.trim() || 'x');
  switch (type.kind) {
    case 'text':
      return (type.upper ? text.map((t) => t.toUpperCase().slice(0, 2)) : text.map((t) => t.slice(0, 4))).map(
        (t) => (type.lower ? t.toLowerCase() : t).trim() || (type.lower ? 'x' : 'X'),
      );
    case 'whole':
    case 'decimal':
      return fc.integer({ min: type.least ?? 0, max: Math.min(type.most ?? 1e6, 1e6) });
    case 'date':
      return fc
        .date({ min: new Date('2020-01-01'), max: new Date('2060-01-01'), noInvalidDate: true })
        .map((d) => d.toISOString().slice(0, 10));
    case 'time':
      return fc
        .tuple(fc.nat(23), fc.nat(59))
        .map(([h, m]) => `${String(h).padStart(2, '0')}:${String(m).padStart(2, '0')}`);
    case 'yes-no':
      return fc.boolean();
    case 'choice':
      return fc.constantFrom(...type.of);
    case 'choices':
      return fc.subarray([...type.of], { minLength: 1 }).map((of) => of.join(' '));
    case 'gtin':
      return needed ? fc.constant('09521234001010') : fc.constantFrom('09521234001010', '06291041500213');
  }
}

describe.each(sheetNames)('the sheet of %s', (name) => {
  const sheet: Sheet = sheets[name];
  const row = fc.record(Object.fromEntries(sheet.columns.filter((c) => !c.secret).map((c) => [c.name, valueOf(c)])));
  const rows = fc.uniqueArray(row as fc.Arbitrary<Row>, {
    selector: (r) => keyOf(sheet, r).toUpperCase(),
    maxLength: 8,
  });

  it('reads back what it saves, and then finds nothing changed', () => {
    fc.assert(
      fc.property(rows, (list) => {
        const text = csvOf(sheet, list);
        // Nothing that a spreadsheet would compute, whoever wrote it into a name.
        for (const cell of Papa.parse<string[]>(text.slice(1), { delimiter: ',' }).data.flat())
          expect(cell).not.toMatch(/^[=+@\t\r]|^-(?!\d+([.,]\d+)?$)/);
        const table = tableOf(text.slice(1));
        const read = readSheet(sheet, table, matchColumns(sheet, table.heading));
        expect(read.errors).toEqual([]);
        const there = new Map(list.map((r) => [keyOf(sheet, r), r]));
        expect(compareRows(sheet, read.rows, there).map((r) => r.outcome)).toEqual(list.map(() => 'same'));
        for (const outcome of compareRows(sheet, read.rows, new Map())) expect(outcome.outcome).toBe('new');
      }),
      { numRuns: 40 },
    );
  });

  it('names every column once, and an example that it takes itself', () => {
    const names = sheet.columns.flatMap((c) => [c.name, ...(c.also ?? [])]);
    expect(new Set(names).size).toBe(names.length);
    for (const column of sheet.columns) {
      const read = readCell(column.example, column, unknown);
      expect([column.name, column.example === '' && !column.needed ? true : 'value' in read]).toEqual([
        column.name,
        true,
      ]);
    }
    for (const key of sheet.key) expect(sheet.columns.some((c) => c.name === key)).toBe(true);
  });
});

describe('a floor of a few numbers', () => {
  const pattern: FloorPattern = {
    firstAisle: 'A',
    aisles: 2,
    bays: 4,
    levels: 1,
    sides: 2,
    bayMetres: 1,
    aisleMetres: 3,
    crossEvery: 2,
    crossMetres: 2,
    naming: '{aisle}-{bay}-{level}',
    zone: 'z',
  };

  it('stands as told: bays along the aisles, cross aisles between them', () => {
    const { floor, bins } = makeFloor(pattern);
    expect(floor).toEqual({
      aisles: [
        { id: 'A', x: 0 },
        { id: 'B', x: 3 },
      ],
      crossAisles: [0, 4, 8],
    });
    expect(bins).toHaveLength(16);
    expect(bins.slice(0, 3).map((b) => [b['bin'], b['y_m'], b['side']])).toEqual([
      ['A-01-1', 150, 'left'],
      ['A-02-1', 150, 'right'],
      ['A-03-1', 250, 'left'],
    ]);
    expect(makeFloor({ ...pattern, firstAisle: '08', aisles: 3 }).floor.aisles.map((a) => a.id)).toEqual([
      '08',
      '09',
      '10',
    ]);
    expect(makeFloor({ ...pattern, firstAisle: 'Y', aisles: 3 }).floor.aisles.map((a) => a.id)).toEqual([
      'Y',
      'Z',
      'AA',
    ]);
  });

  it('has every bin on the floor and under a name of its own, whatever the numbers', () => {
    const any = fc.record({
      firstAisle: fc.constantFrom('A', 'Z', '01', '9'),
      aisles: fc.integer({ min: 1, max: 30 }),
      bays: fc.integer({ min: 1, max: 30 }),
      levels: fc.integer({ min: 1, max: 4 }),
      sides: fc.constantFrom(1 as const, 2 as const),
      bayMetres: fc.double({ min: 0.5, max: 4, noNaN: true }),
      aisleMetres: fc.double({ min: 1, max: 8, noNaN: true }),
      crossEvery: fc.nat(12),
      crossMetres: fc.double({ min: 1, max: 4, noNaN: true }),
    });
    fc.assert(
      fc.property(any, (of) => {
        const { floor, bins } = makeFloor({ ...pattern, ...of });
        expect(bins).toHaveLength(of.aisles * of.bays * of.sides * of.levels);
        expect(new Set(bins.map((b) => b['bin'])).size).toBe(bins.length);
        const map = mapFloor(floor);
        for (const b of bins)
          expect(
            map.distance(
              { aisle: floor.aisles[0]!.id, y: 0 },
              { aisle: b['aisle'] as string, y: Number(b['y_m']) / 100 },
            ),
          ).toBeGreaterThan(0);
      }),
      { numRuns: 40 },
    );
  });

  it('goes on behind the floor that is there, leaves room for its cross aisles, and refuses to overlap', () => {
    const there = {
      aisles: [
        { id: 'A', x: 0 },
        { id: 'B', x: 4 },
      ],
      crossAisles: [0, 5, 8],
    };
    const old = [
      { bin: 'B-07-1', aisle: 'B', y: 1.5 },
      { bin: 'B-01-1', aisle: 'B', y: 1.5 },
    ];
    const next = { ...pattern, firstAisle: nextAisle(there) };
    const { floor, bins } = makeFloor(next, there, old);
    // Half of what B takes (2 m), half of what a new aisle takes (1.5 m).
    expect(floor.aisles).toEqual([
      { id: 'C', x: 7.5 },
      { id: 'D', x: 10.5 },
    ]);
    // Bays from 1 m to 4 m, over the cross aisle from 4 m to 6 m, and the last from 6 m to 7 m.
    expect([...new Set(bins.map((b) => b['y_m']))]).toEqual([150, 250, 350, 650]);
    expect(floor.crossAisles).toEqual([0, 5, 8]);
    expect(makeFloor({ ...next, bays: 5, bayMetres: 2 }, there).floor.crossAisles).toEqual([0, 5, 8, 18]);
    // The same again is what is there already.
    const whole = {
      aisles: [...there.aisles, ...floor.aisles],
      crossAisles: there.crossAisles,
    };
    const made = bins.map((b) => ({ bin: String(b['bin']), aisle: String(b['aisle']), y: Number(b['y_m']) / 100 }));
    expect(makeFloor(next, whole, [...old, ...made])).toEqual({ floor, bins });
    expect(nextAisle(whole)).toBe('E');
    expect(nextAisle({ aisles: [{ id: 'MEZZ', x: 0 }], crossAisles: [] })).toBe('A');
    expect(nextAisle({ aisles: [{ id: '09', x: 0 }], crossAisles: [] })).toBe('10');
    for (const [of, why] of [
      [{ firstAisle: 'B' }, 'Aisle B exists already, with other bins such as B-07-1. Start with C.'],
      [{ firstAisle: 'B', startX: 30 }, 'Aisle B exists already, 4 m across. Start with C.'],
      [{ startX: 5 }, 'Aisle C at 5 m would lie on aisle B at 4 m: move the start.'],
      [{ startX: -4 }, 'Aisle D at -1 m would lie on aisle A at 0 m: move the start.'],
      [{ naming: 'B-{bay}-1', aisles: 1, sides: 1 as const }, 'Bin B-01-1 exists already, in aisle B'],
      [{ startX: NaN }, 'startX must lie between'],
      [{ zonesFrom: [{ aisle: 'F', zone: 'cold' }] }, 'zonesFrom names aisle F, which is none of the new ones.'],
    ] as const)
      expect(() => makeFloor({ ...next, ...of } as FloorPattern, there, old)).toThrow(why);
  });

  it('puts each aisle into its zone', () => {
    const { bins } = makeFloor({ ...pattern, aisles: 4, zonesFrom: [{ aisle: 'c', zone: 'cold' }] });
    expect([...new Set(bins.map((b) => `${String(b['aisle'])} ${String(b['zone'])}`))]).toEqual([
      'A z',
      'B z',
      'C cold',
      'D cold',
    ]);
  });

  it('refuses numbers that cannot be, by name', () => {
    expect(() => makeFloor({ ...pattern, aisles: 0 })).toThrow('aisles must lie between 1 and 200, received 0');
    expect(() => makeFloor({ ...pattern, naming: '{aisle}' })).toThrow('A is twice');
    expect(() => makeFloor({ ...pattern, firstAisle: '?' })).toThrow('received "?"');
  });
});
