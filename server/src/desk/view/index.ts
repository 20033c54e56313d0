export { deskRoutes } from './routes.ts';
