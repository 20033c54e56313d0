export { runRoutes } from './routes.ts';
