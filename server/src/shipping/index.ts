export { shippingRoutes } from './routes.ts';
export { shipAtOnce } from './confirm.ts';
export { openShipment } from './open.ts';
