export { requestPutAway, type Unwanted } from './ask.ts';
export { putAwayRoutes } from './routes.ts';
