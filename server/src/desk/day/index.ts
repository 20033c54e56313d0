export { dayRoutes } from './routes.ts';
