export { allocate, allocateBeside, type Allocated, type Method, type Settled } from './allocate.ts';
export { deskPolicies, policies, servings, type DeskPolicy, type Policy, type Serving } from './policies/index.ts';
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
  type LineAllocation,
  type Supply,
} from './problem.ts';
