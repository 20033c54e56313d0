export { shippingRoutes } from './routes.ts';
export { shipAtOnce } from './confirm.ts';
export { dropEmptyShipment, openShipment } from './open.ts';
