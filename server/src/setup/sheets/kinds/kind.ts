import { sql, type SQL } from 'drizzle-orm';
import type { Row, RowOutcome, SheetError, SheetExpectation } from '@hand-relay/core/reading/sheets';
import type { Actor, Change, Db, Tx } from '../../../platform/index.ts';
import type { Wanted } from './beyond.ts';

/** One kind of master data in the database: how its rows are read, looked at and written. */
export interface Kind {
  /**
   * Rows of the site in the words of its sheet, with `retired`; secrets are left out.
   *
   * @param only rows by whose keys it may read fewer than all: a list of fifty thousand is not read for one of them
   */
  read(on: Db | Tx, siteId: string, only?: readonly Row[]): Promise<Row[]>;
  /** What is wrong with rows that are new or changed, as far as only the house can tell. */
  faults(on: Db | Tx, siteId: string, rows: readonly RowOutcome[]): Promise<SheetError[]>;
  /** What an actor may not write because it is beyond their own rights, retired or not. */
  beyond?(on: Db | Tx, actor: Actor, rows: readonly Wanted[]): Promise<SheetError[]>;
  /** What forbids that rows are retired: `row` is the place in the list given. */
  refusesRetiring(on: Db | Tx, siteId: string, rows: readonly Row[]): Promise<SheetError[]>;
  /** Writes rows whole, retired or not. */
  write(change: Change, rows: readonly Row[]): Promise<void>;
}

/** Most rows that are read by their keys; beyond, all are read. */
const BY_KEY = 500;

/** Those rows of a statement whose column is one of some rows' own, by the index behind it. */
export function only(statement: SQL, column: string, list: readonly Row[] | undefined): SQL {
  if (!list || list.length > BY_KEY) return statement;
  const keys = [...new Set(list.map((row) => String(row[column])))].join(SEPARATOR);
  return sql`select * from (${statement}) q where q.${sql.identifier(column)} = any(string_to_array(${keys}, ${SEPARATOR}))`;
}
/** The unit separator of ASCII: no key holds it. */
const SEPARATOR = '\u001f';

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
