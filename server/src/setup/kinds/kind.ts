import type { Row, RowOutcome, SheetError, SheetExpectation } from '@hand-relay/core/sheets';
import type { Actor, Change, Db, Tx } from '../../platform/index.ts';
import type { Wanted } from './beyond.ts';

/** One kind of master data in the database: how its rows are read, looked at and written. */
export interface Kind {
  /** Every row of the site in the words of its sheet, with `retired`; secrets are left out. */
  read(on: Db | Tx, siteId: string): Promise<Row[]>;
  /** What is wrong with rows that are new or changed, as far as only the house can tell. */
  faults(on: Db | Tx, siteId: string, rows: readonly RowOutcome[]): Promise<SheetError[]>;
  /** What an actor may not write because it is beyond their own rights, retired or not. */
  beyond?(on: Db | Tx, actor: Actor, rows: readonly Wanted[]): Promise<SheetError[]>;
  /** What forbids that rows are retired: `row` is the place in the list given. */
  keeps(on: Db | Tx, siteId: string, rows: readonly Row[]): Promise<SheetError[]>;
  /** Writes rows whole, retired or not. */
  write(change: Change, rows: readonly Row[]): Promise<void>;
}

/** Collects faults at the row and column that they are in. */
export function faultsOf(
  rows: readonly RowOutcome[],
  look: (
    values: Row,
    fail: (column: string, expected: SheetExpectation, facts?: Record<string, string | number>) => void,
    row: RowOutcome,
  ) => void,
): SheetError[] {
  const errors: SheetError[] = [];
  for (const row of rows)
    look(
      row.values,
      (column, expected, facts) =>
        errors.push({
          row: row.row,
          column,
          value: String(row.values[column] ?? ''),
          expected,
          ...(facts ? { facts } : {}),
        }),
      row,
    );
  return errors;
}

export const nothing = () => Promise.resolve([]);
