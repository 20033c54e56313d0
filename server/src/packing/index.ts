export { closeCarton, discardCarton, lockOrder, openCarton, reopenCarton } from './cartons.ts';
export { packingRoutes } from './routes.ts';
