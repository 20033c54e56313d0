export { takeBack, workStates, type Unpicked } from './takeBack.ts';
export { planWave, type PlannedPick, type PlannedRun, type WaveNeed, type WavePlan, type WaveProblem } from './plan.ts';
