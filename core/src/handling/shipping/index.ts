export { consume, type Reserved } from './consume.ts';
export {
  judgeShipment,
  type Rest,
  type ShipLine,
  type ShipRefusal,
  type ShipState,
  type ShipVerdict,
} from './judge.ts';
export { closingOf, demandKinds, type Closing, type DemandKind } from './kinds.ts';
