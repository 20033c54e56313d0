export { pickings, usualWalking, type Carry, type Picking, type Walking } from '../choices/index.ts';
export { eitherWay } from './chained.ts';
export { planWave, type PlanOptions } from './plan.ts';
export {
  HIGH_LEVEL,
  type PlannedPick,
  type PlannedRun,
  type WaveBin,
  type WaveNeed,
  type WavePlan,
  type WaveProblem,
} from './problem.ts';
export { routeRun, type RoutedRun, type RunStop } from './routeRun.ts';
export { unrelease, workStates, type Unpicked } from './unrelease.ts';
