export {
  cellText,
  quoted,
  readCell,
  readDate,
  readNumber,
  dateOrder,
  writtenAs,
  type Cell,
  type DateOrder,
  type DecimalMark,
  type Written,
} from './cell.ts';
export {
  keyOf,
  type Column,
  type ColumnType,
  type Row,
  type Sheet,
  type SheetError,
  type SheetExpectation,
  type Value,
} from './column.ts';
export { compareRows, forgotten, type RowOutcome, type SheetDifference } from './compare.ts';
export { oddDensity, type OddDensity } from './density.ts';
export { decodeText, type Encoding } from './decode.ts';
export { sheets } from './kinds.ts';
export { sheetNames, type SheetName } from './names/index.ts';
export {
  guessedColumns,
  headingScore,
  matchColumns,
  readSheet,
  samplesOf,
  type Matching,
  type ReadRow,
} from './read.ts';
export { MOST_ROWS, tableOf, tableOfCsv, type HeadingScore, type Table } from './table.ts';
export { guard, unguard } from './guard.ts';
export { cellOf, csvOf } from './save.ts';
export { makeFloor, nextAisle, type FloorPattern, type MadeFloor } from './makeFloor.ts';
