export { shipPackaging } from './change.ts';
export { outOfStock } from './read.ts';
export { packagingRoutes } from './routes.ts';
