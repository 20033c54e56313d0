export { standInCarrier } from './carrier.ts';
export { hostRoutes } from './routes.ts';
