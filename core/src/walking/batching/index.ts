export { batch, batchMethods, type Batched, type BatchMethod, type BatchOptions } from './batch.ts';
export { timesOf, type TimedRun } from './goal.ts';
export {
  faultsOf,
  fits,
  nothingWeighed,
  weigh,
  weightOf,
  type BatchOrder,
  type CartLimits,
  type Crew,
  type Weighed,
} from './problem.ts';
