export { printingRoutes } from './routes.ts';
export { printAtStart } from './jobs.ts';
