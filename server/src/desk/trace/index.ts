export { pickTimes, spanOf, within, type Span } from './picks.ts';
export { traceRoutes } from './routes.ts';
