export { inquiryOf, move, outsideOf, type Move } from './move.ts';
export { nextNumbers } from './numbers.ts';
