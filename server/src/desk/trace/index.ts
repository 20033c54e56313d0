export { pickTimes } from './picks.ts';
export { traceRoutes } from './routes.ts';
