export { eitherWay } from './chained.ts';
export { planWave, type PlanOptions } from './plan.ts';
export {
  HIGH_LEVEL,
  pickings,
  usualWalking,
  type Carry,
  type Picking,
  type Walking,
  type PlannedPick,
  type PlannedRun,
  type WaveBin,
  type WaveNeed,
  type WavePlan,
  type WaveProblem,
} from './problem.ts';
export { routeRun, type RoutedRun, type RunStop } from './routeRun.ts';
export { takeBack, workStates, type Unpicked } from './takeBack.ts';
