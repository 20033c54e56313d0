export { askPutBack, type Unwanted } from './ask.ts';
export { putBackRoutes } from './routes.ts';
