export { changeHead, isAs, type Changed, type HeadChange, type OrderHead } from './change.ts';
