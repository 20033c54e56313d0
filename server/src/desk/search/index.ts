export { searchRoutes } from './routes.ts';
