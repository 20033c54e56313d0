export { printingRoutes } from './routes.ts';
export { printAtClosing, printAtStart } from './jobs.ts';
