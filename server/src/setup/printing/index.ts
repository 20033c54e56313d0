export { printingRoutes } from './routes.ts';
