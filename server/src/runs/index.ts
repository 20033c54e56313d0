export { runRoutes } from './routes.ts';
export { endEmptyRuns } from './take.ts';
