export { readCode, type Code } from './readCode.ts';
