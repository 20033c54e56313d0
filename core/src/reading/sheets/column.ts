/** What a cell can hold once it is read. Dates are ISO dates, times HH:MM; null is an empty cell. */
export type Value = string | number | boolean | null;

/** What a column holds, and what is allowed in it. */
export type ColumnType =
  | { kind: 'text'; most?: number; upper?: boolean; lower?: boolean }
  | { kind: 'whole'; least?: number; most?: number }
  /** Kept as a whole number of the unit's `scale`th part: 2.50 with scale 100 is 250. */
  | { kind: 'decimal'; scale: number; least?: number; most?: number }
  | { kind: 'date' }
  | { kind: 'time' }
  | { kind: 'yes-no' }
  | { kind: 'choice'; of: readonly string[] }
  /** Several of a set, kept as one text with spaces between. */
  | { kind: 'choices'; of: readonly string[] }
  | { kind: 'gtin' };

export interface Column {
  name: string;
  type: ColumnType;
  /** An empty cell is refused. */
  needed?: boolean;
  /** What an empty cell stands for; null without it. */
  otherwise?: Value;
  /** Other headings by which the column is known. */
  also?: readonly string[];
  /** Headings that may mean the column and often mean something else: a person is asked. */
  maybe?: readonly string[];
  example: string;
  /** Kept once and never shown or saved to a file. */
  secret?: boolean;
}

/** One kind of master data: its columns, and those whose values together name a row. */
export interface Sheet {
  name: string;
  columns: readonly Column[];
  key: readonly string[];
  /** Whether all sites of a house share its rows. */
  shared?: boolean;
}

export type Row = Record<string, Value>;

/** Machine word for what was expected in a cell; the interface words it. */
export type SheetExpectation =
  | 'a-column'
  /** Of codes, which are pointed out and taken all the same. */
  | 'typed-by-scanner'
  | 'no-other-kind'
  | 'no-other-code'
  | 'a-file'
  | 'fewer-rows'
  | 'a-smaller-file'
  | 'a-simpler-file'
  | 'a-value'
  | 'a-shorter-text'
  | 'a-whole-number'
  | 'a-number'
  | 'a-number-from'
  /** A mark that may divide thousands or decimals. */
  | 'one-number-only'
  | 'a-date'
  | 'one-date-only'
  | 'a-time'
  | 'yes-or-no'
  | 'one-of'
  | 'a-gtin'
  | 'a-pin'
  | 'a-password'
  | 'a-supervisor'
  | 'within-own-rights'
  | 'of-this-site-alone'
  | 'not-of-another-site'
  | 'one-word'
  | 'a-right'
  | 'within-life'
  | 'once'
  | 'a-known'
  | 'not-with'
  | 'together'
  | 'nothing-there'
  | 'no-door'
  | 'benches-for'
  | 'benches-alone'
  | 'scale-address'
  | 'whole-cartons'
  | 'another-unit'
  | 'as-it-is';

/** Something wrong in a file, at its place. Rows count from 1 with the heading as row 1; 0 is the whole file. */
export interface SheetError {
  row: number;
  column: string;
  value: string;
  expected: SheetExpectation;
  /** What would be right, where it can be listed. */
  facts?: Record<string, string | number>;
}

/** The text that names a row of a sheet. */
export function keyOf(sheet: Sheet, row: Row): string {
  return sheet.key.map((name) => String(row[name] ?? '')).join('\u0000');
}
