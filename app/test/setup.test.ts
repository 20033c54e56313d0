import { setupColumns } from '../setup/setupGroups.ts';
import { sheetNames, sheets, type Column, type Sheet } from '@hand-relay/core/reading/sheets';
import { arrange } from '../setup/arrange.ts';
import { columnName, differenceText, expectation, sheetOf, shown, typed } from '../setup/cells.ts';
import { i18n } from '../text/index.ts';

const all = { find: '', retired: false, sort: 'item', down: false };
const rows = [
  { item: 'A-10', name: 'Round jar', weight_g: 900, retired: false },
  { item: 'A-9', name: 'Lid', weight_g: 1200, retired: false },
  { item: 'B-1', name: 'Old lid', weight_g: null, retired: true },
];
const items = (wish: Partial<typeof all>) => arrange(rows, { ...all, ...wish }).map((r) => r['item']);

describe('a list of master data', () => {
  it('is sorted as people count, numbers as numbers, and finds in any column', () => {
    expect(items({})).toEqual(['A-9', 'A-10']);
    expect(items({ down: true })).toEqual(['A-10', 'A-9']);
    expect(items({ sort: 'weight_g' })).toEqual(['A-10', 'A-9']);
    expect(items({ find: 'LID' })).toEqual(['A-9']);
    expect(items({ find: '900' })).toEqual(['A-10']);
    expect(items({ find: 'nothing' })).toEqual([]);
    expect(items({ retired: true })).toEqual(['B-1']);
    expect(rows.map((r) => r.item)).toEqual(['A-10', 'A-9', 'B-1']);
  });

  it('shows what a person reads, and lets them type what a file would hold', () => {
    const column = (of: Partial<Column>): Column => ({ name: 'x', type: { kind: 'text' }, example: '', ...of });
    const decimal = column({ type: { kind: 'decimal', scale: 100 } });
    expect([shown(decimal, { x: 1250 }), typed(decimal, { x: 1250 })]).toEqual(['12.50', '12.50']);
    const whole = column({ type: { kind: 'whole' } });
    expect([shown(whole, { x: 12500 }), typed(whole, { x: 12500 })]).toEqual(['12,500', '12500']);
    expect(shown(column({ type: { kind: 'yes-no' } }), { x: true })).toBe('yes');
    expect(shown(column({}), { x: null })).toBe('–');
    // A secret is neither shown nor typed back.
    expect(typed(column({ secret: true }), { x: 'hash' })).toBe('');
    expect(sheetOf('items')).toBe(sheets.items);
    expect(sheetOf('toString')).toBeUndefined();
  });
});

describe('the words of Setup', () => {
  it.each(sheetNames)('name the sheet of %s and every column of it', (name) => {
    for (const key of [`setup.sheet.${name}`, `setup.one.${name}`, `setup.about.${name}`])
      expect([key, i18n.exists(key)]).toEqual([key, true]);
    const sheet: Sheet = sheets[name];
    for (const { name: column } of sheet.columns)
      expect([column, i18n.exists(`setup.column.${column}`)]).toEqual([column, true]);
  });

  it('say what was expected, with what would be right', () => {
    expect(expectation({ expected: 'one-of', facts: { of: 'left, right' } })).toBe('one of left, right');
    expect(expectation({ expected: 'a-known', facts: { what: 'zones' } })).toBe('one that is listed under zones');
    expect(expectation({ expected: 'not-with', facts: { what: 'lots' } })).toBe('nothing here: the item has no lots');
    expect(expectation({ expected: 'a-number-from', facts: { least: 1, most: 9 } })).toBe('from 1 to 9');
    expect(differenceText(sheets.items, { column: 'weight_g', before: null, after: 210 })).toBe('Weight, g: – → 210');
    // As people write it: the value of a unit is kept in hundredths.
    expect(differenceText(sheets.items, { column: 'value', before: 650, after: 690 })).toBe(
      'Value of a unit: 6.50 → 6.90',
    );
    expect(differenceText(sheets.items, { column: 'service', before: false, after: true })).toBe('Service: no → yes');
    expect(columnName('a column of tomorrow')).toBe('a column of tomorrow');
  });
});

describe('the groups of Setup', () => {
  it('hold every list once', () => {
    const listed = setupColumns.flatMap((groups) =>
      groups.flatMap(({ entries }) => entries.flatMap((entry) => ('list' in entry ? [entry.list] : []))),
    );
    expect([...listed].sort()).toEqual([...sheetNames].sort());
  });
});
