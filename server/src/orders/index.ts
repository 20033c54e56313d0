export { cancelByNumber } from './adapt.ts';
export { draftsOf, intake } from './intake.ts';
export { closeIfDone } from './cancel.ts';
export { mustBeDecided, mustBeWanted, undecidedOf } from './undecided.ts';
export { orderRoutes } from './routes.ts';
