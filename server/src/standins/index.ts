export { announceShipment } from './carrier.ts';
