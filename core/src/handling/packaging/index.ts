export {
  accountings,
  filledBy,
  freeOf,
  mustLook,
  packagingReasons,
  proposeOrder,
  takeOut,
  type Accounting,
  type PackagingReason,
  type PackagingStock,
} from './packaging.ts';
