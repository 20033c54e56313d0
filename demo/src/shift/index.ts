export { ShiftClock } from './clock.ts';
export type { Person } from './person.ts';
export { playShift, SHIFT_MS } from './shift.ts';
export { departuresAround } from './times.ts';
