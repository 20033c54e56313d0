export { waveRoutes } from './routes.ts';
export { endWaveIfDone, giveBack } from './state.ts';
export { runSummaries } from './summary.ts';
