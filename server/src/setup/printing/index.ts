export { printingRoutes } from './routes.ts';
export { printAtClosing, printPalletAtClosing, printAtStart } from './jobs.ts';
