export { shippingRoutes } from './routes.ts';
export { shipAtOnce } from './confirm.ts';
export { discardCarton, discardEmptyCartons } from './emptyCartons.ts';
export { dropEmptyShipment, openShipment } from './open.ts';
export { stageGoods } from './stageGoods.ts';
