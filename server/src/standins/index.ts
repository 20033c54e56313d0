export { standInCarrier } from './carrier.ts';
export { hostRoutes, standinScaleRoutes } from './routes.ts';
