export type { IntakeError, IntakeExpectation, LineDraft, OrderDraft } from './draft.ts';
export { isIsoDate, orderColumns, readOrdersCsv, type DraftedOrder } from './csv.ts';
export {
  checkOrders,
  compareOrder,
  type Comparison,
  type Difference,
  type ExistingOrder,
  type Known,
  type KnownItem,
} from './check.ts';
