export {
  judgeShipment,
  type Rest,
  type ShipLine,
  type ShipRefusal,
  type ShipState,
  type ShipVerdict,
} from './judge.ts';
