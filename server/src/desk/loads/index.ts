export { loadRoutes } from './routes.ts';
