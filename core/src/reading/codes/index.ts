export { readCode, type Code } from './readCode.ts';
export { warnOfCode, type CodeUse, type CodeWarning } from './warn.ts';
