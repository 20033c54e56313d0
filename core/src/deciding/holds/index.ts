export { holdFields, judgeHolds, stages, type HoldRule, type LaidHold, type Stage } from './holds.ts';
