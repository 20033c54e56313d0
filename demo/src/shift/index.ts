export { ShiftClock } from './clock.ts';
export { playShift, SHIFT_MS } from './shift.ts';
export { departuresAround } from './times.ts';
