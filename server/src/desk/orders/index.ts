export { cancelByNumber } from './adapt.ts';
export { asRead, draftsOf, takeOrders } from './intake.ts';
export { cancelRest, closeIfDone } from './cancel.ts';
export { tagOrders } from './tags.ts';
export { mustBeDecided, mustBeWanted, settleReturned, surplusAmong, undecidedOf } from './undecided.ts';
export { orderRoutes } from './routes.ts';
