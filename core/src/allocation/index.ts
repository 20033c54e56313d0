export {
  allocateBeside,
  allocateByPriority,
  daysBetween,
  lotServes,
  type Demand,
  type DemandLine,
  type LinePromise,
  type Supply,
} from './allocate.ts';
