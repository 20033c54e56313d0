export { adaptLine, type Adapted, type LineUnderWay } from './adapt.ts';
export type { IntakeError, IntakeExpectation, LineDraft, OrderDraft } from './draft.ts';
export { readOrdersCsv, readOrderTable, unreadable, type ReadOrders } from './csv.ts';
export { readOrdersJson } from './json.ts';
export { isIsoDate, orderColumns, type DraftedOrder } from './rows.ts';
export { shareSplit, type SplitPart } from './split.ts';
export { readOrderUbl } from './ubl.ts';
export {
  checkOrders,
  compareOrder,
  type Comparison,
  type Difference,
  type ExistingOrder,
  type Known,
  type KnownItem,
} from './check.ts';
