export { freeOrders, keepsAtIntake, reservedOf, reserveOrders, trimKept } from './reserve.ts';
export { waveRoutes } from './routes.ts';
export { endEmptyRuns, endWaveIfDone, giveBack } from './state.ts';
export { runSummaries } from './summary.ts';
export { lockStock } from './release.ts';
export { takeUnitsBack } from './takeBack.ts';
export { allocate } from './demand.ts';
export { binStock } from './problem.ts';
