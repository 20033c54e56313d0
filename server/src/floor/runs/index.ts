export { moveAway } from './moveAway.ts';
export { runRoutes } from './routes.ts';
