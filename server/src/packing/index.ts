export { closeCarton, discardCarton, lockOrder, openCarton } from './cartons.ts';
export { packingRoutes } from './routes.ts';
