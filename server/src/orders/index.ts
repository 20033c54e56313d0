export { closeIfDone } from './cancel.ts';
export { orderRoutes } from './routes.ts';
