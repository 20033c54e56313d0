export { dumpTo } from './dump.ts';
export { CannotCarry } from './format.ts';
export { loadFrom } from './load.ts';
