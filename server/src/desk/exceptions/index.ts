export { raiseException, settleCarts, settleCounted, settleServed } from './raise.ts';
export { exceptionsOf } from './read.ts';
