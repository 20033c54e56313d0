export { adaptLine, type Adapted, type LineUnderWay } from './adapt.ts';
export type { IntakeError, IntakeExpectation, LineDraft, OrderDraft } from './draft.ts';
export { orderSheet } from './columns.ts';
export { readOrdersCsv } from './csv.ts';
export { unreadable, type ReadOrders } from './read.ts';
export {
  orderHeadingScore,
  plainLayout,
  readOrderTable,
  type OrderFileLayout,
  type OrderLayout,
  type OrderSender,
} from './layout.ts';
export { readOrdersJson } from './json.ts';
export { isIsoDate, type DraftedOrder } from './rows.ts';
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
