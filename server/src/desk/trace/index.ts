export { traceRoutes } from './routes.ts';
