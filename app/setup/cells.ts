import {
  cellOf,
  sheets,
  type Column,
  type Row,
  type Sheet,
  type SheetDifference,
  type SheetName,
  type Value,
} from '@hand-relay/core/reading/sheets';
import type { SheetErrorAnswer } from '@hand-relay/contract';
import { i18n, number } from '../text/index.ts';

/** The sheet of an address, or undefined where there is none of that name. */
export function sheetOf(id: string): Sheet | undefined {
  return Object.hasOwn(sheets, id) ? sheets[id as SheetName] : undefined;
}

export const columnName = (column: string) => i18n.t(`setup.column.${column}`, { defaultValue: column });

/** A value as the table shows it. */
export function shown(column: Column, row: Row): string {
  const value = row[column.name];
  if (value === null || value === undefined || value === '') return '–';
  if (typeof value === 'boolean') return i18n.t(value ? 'setup.yes' : 'setup.no');
  if (column.type.kind === 'whole') return number(Number(value));
  return String(cellOf(column, row));
}

/** A value as a field of the form begins with it. */
export function typed(column: Column, row: Row): string {
  return String(cellOf(column, row));
}

export const isNumber = (column: Column) => column.type.kind === 'whole' || column.type.kind === 'decimal';

/** What was expected in a cell, in words. */
export function expectation({ expected, facts }: Pick<SheetErrorAnswer, 'expected' | 'facts'>): string {
  const what = facts?.['what'];
  const kind = facts?.['kind'];
  return i18n.t(`setup.expected.${expected}`, {
    ...facts,
    ...(typeof kind === 'string' ? { kindName: i18n.t(`codeKind.${kind}`) } : {}),
    ...(typeof what === 'string' ? { what: i18n.t(`setup.sheet.${what}`, { defaultValue: what }).toLowerCase() } : {}),
  });
}

/** What changes in a cell, both values as people write them. */
export function differenceText(sheet: Sheet, { column, before, after }: SheetDifference): string {
  const found = sheet.columns.find((c) => c.name === column);
  const text = (value: Value) =>
    found ? shown(found, { [column]: value }) : value === true ? i18n.t('setup.yes') : i18n.t('setup.no');
  return `${columnName(column)}: ${text(before)} → ${text(after)}`;
}
