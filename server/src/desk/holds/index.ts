export { holdsOf } from './hold.ts';
export { judgeOrders, mustNotBeHeld } from './judge.ts';
export { holdRoutes } from './routes.ts';
