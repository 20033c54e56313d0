export { holdsOf } from './hold.ts';
export { judgeOrders, notesOf, mustNotBeHeld } from './judge.ts';
export { holdRoutes } from './routes.ts';
