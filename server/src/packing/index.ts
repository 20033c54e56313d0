export { packingRoutes } from './routes.ts';
