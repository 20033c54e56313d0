export { addPicture, askCount } from './askCount.ts';
export { freeStock, shelfDays } from './free.ts';
export { inquiryOf, move, outsideOf, type Move } from './move.ts';
export { nextNumbers, nextSscc } from './numbers.ts';
