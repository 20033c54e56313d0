export { cancelByNumber } from './adapt.ts';
export { draftsOf, intake } from './intake.ts';
export { closeIfDone } from './cancel.ts';
export { orderRoutes } from './routes.ts';
