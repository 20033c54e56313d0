export { palletRoutes } from './routes.ts';
