export { wayRoutes } from './routes.ts';
export { wayOf } from './ways.ts';
