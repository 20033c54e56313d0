export { quickRoutes } from './routes.ts';
