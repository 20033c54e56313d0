export { surplusRoutes } from './routes.ts';
