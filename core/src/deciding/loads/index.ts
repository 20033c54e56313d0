export {
  fillOf,
  fitting,
  loadLimits,
  palletsOf,
  type Fill,
  type Over,
  type Pallet,
  type Share,
  type Vehicle,
} from './fill.ts';
export { addressKey, areaOf, numberStops, type Address } from './stops.ts';
