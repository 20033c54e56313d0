export { blockAccess, freeAccess } from './access.ts';
export { addPicture, requestCount } from './requestCount.ts';
export { freeStock, localDay, lockTotals, mustKeepUntil, shelfDays } from './free.ts';
export { discrepancyPlaceOf, move, outsideOf, type Move } from './move.ts';
export { changeSsccRange, isIssued, nextNumbers, nextSscc, nextSsccs, ssccRange } from './numbers.ts';
export { cartFrontOf, cartsWith } from './cartsWith.ts';
export { booksOf } from './books.ts';
