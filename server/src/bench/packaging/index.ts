export { shipPackaging } from './change.ts';
export { noteClosed, noteReopened } from './due.ts';
export { postDaysOver, runPackaging } from './overnight.ts';
export { outOfStock } from './read.ts';
export { packagingRoutes } from './routes.ts';
