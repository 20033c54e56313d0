export { closeCarton, forgetWeight, lockOrder, openCarton, reopenCarton } from './cartons.ts';
export { packingRoutes } from './routes.ts';
