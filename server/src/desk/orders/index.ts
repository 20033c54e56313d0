export { cancelByNumber } from './adapt.ts';
export { asRead, draftsOf, previewOrders, takeOrders, type TakenOrder } from './take.ts';
export { cancelRest, closeIfDone } from './cancel.ts';
export { tagOrders } from './tags.ts';
export { mustBeDecided, mustBeWanted, settleReturned, surplusAmong, undecidedOf } from './undecided.ts';
export { orderRoutes } from './routes.ts';
