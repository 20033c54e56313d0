export { announceShipment } from './carrier.ts';
export { HostStreams } from './host.ts';
export { hostRoutes } from './routes.ts';
