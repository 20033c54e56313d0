import { keyOf, type Row, type Sheet, type Value } from './column.ts';
import type { ReadRow } from './read.ts';

export interface SheetDifference {
  column: string;
  before: Value;
  after: Value;
}

export type RowOutcome =
  | { outcome: 'new'; row: number; key: string; values: Row }
  | { outcome: 'same'; row: number; key: string; values: Row }
  | { outcome: 'changed'; row: number; key: string; values: Row; differences: SheetDifference[] };

/**
 * Sets rows beside what is there. A column that the file does not have leaves what is there as it is; a secret is a
 * change whenever one is given.
 *
 * @param there what the house has, by key; a row that was retired comes back as a change
 */
export function compareRows(sheet: Sheet, rows: readonly ReadRow[], there: ReadonlyMap<string, Row>): RowOutcome[] {
  return rows.map(({ row, values: given }) => {
    const key = keyOf(sheet, given);
    const old = there.get(key);
    if (!old) {
      const values: Row = {};
      for (const c of sheet.columns) values[c.name] = given[c.name] ?? emptyOf(c);
      return { outcome: 'new', row, key, values };
    }
    const values = { ...old, ...given };
    const differences: SheetDifference[] = [];
    for (const { name, secret } of sheet.columns) {
      if (!(name in given)) continue;
      if (secret) {
        if (given[name]) differences.push({ column: name, before: '', after: '•••' });
      } else if ((old[name] ?? null) !== (given[name] ?? null) && !((old[name] ?? null) === null && given[name] === ''))
        differences.push({ column: name, before: old[name] ?? null, after: given[name] ?? null });
    }
    if (old['retired'] === true) {
      values['retired'] = false;
      differences.push({ column: 'retired', before: true, after: false });
    }
    return differences.length === 0
      ? { outcome: 'same', row, key, values }
      : { outcome: 'changed', row, key, values, differences };
  });
}

/**
 * A row as it is when its insert was undone: its key and what no row can be without; the rest as if nobody had ever
 * written it, so that the next import of the row does not bring old values back.
 */
export function forgotten(sheet: Sheet, row: Row): Row {
  const values: Row = { retired: true };
  for (const c of sheet.columns) {
    if (c.secret) continue;
    values[c.name] = c.needed || sheet.key.includes(c.name) ? (row[c.name] ?? emptyOf(c)) : emptyOf(c);
  }
  return values;
}

function emptyOf({ otherwise, type }: Sheet['columns'][number]): Value {
  return otherwise ?? (type.kind === 'text' ? '' : type.kind === 'yes-no' ? false : null);
}
