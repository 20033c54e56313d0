export { wayRoutes } from './routes.ts';
export { standards } from './standards.ts';
export { wayOf } from './ways.ts';
