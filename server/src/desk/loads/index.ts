export { loadRoutes } from './routes.ts';
export { endEmptyLoads, endLoadOf, leaveOnLoad, runLoads } from './life.ts';
