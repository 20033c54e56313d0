export { shippingRoutes } from './routes.ts';
