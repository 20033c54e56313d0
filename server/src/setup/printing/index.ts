export { printingRoutes } from './routes.ts';
export { printAtClosing } from './atClosing.ts';
export { printPalletAtClosing, printAtStart } from './jobs.ts';
