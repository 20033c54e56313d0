export {
  allocate,
  allocateBeside,
  policies,
  type Allocated,
  type Method,
  type Policy,
  type Settled,
} from './allocate.ts';
export { completeOrders, faultsOf } from './check.ts';
export { levelsOf, mostServed, type ItemLevels } from './contest.ts';
export { Shelf, sum } from './shelf.ts';
export {
  firstServed,
  goodUntil,
  lotServes,
  NO_DATE,
  type Demand,
  type DemandLine,
  type LinePromise,
  type Supply,
} from './problem.ts';
