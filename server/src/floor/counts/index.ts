export { countRoutes } from './routes.ts';
