export { blockAccess, freeAccess } from './access.ts';
export { addPicture, askCount } from './askCount.ts';
export { freeStock, localDay, lockTotals, mustKeepUntil, shelfDays } from './free.ts';
export { inquiryOf, move, outsideOf, type Move } from './move.ts';
export { isDrawn, nextNumbers, nextSscc, nextSsccs, ssccRange } from './numbers.ts';
export { cartFrontOf, cartsWith } from './cartsWith.ts';
export { booksOf } from './books.ts';
