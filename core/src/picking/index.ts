export {
  awaited,
  freshProgress,
  shortReasons,
  target,
  type Awaited,
  type Pack,
  type PickInput,
  type PickProgress,
  type PickStep,
  type ShortReason,
  type StepItem,
} from './step.ts';
export { judgePick, positionCode, type PickRefusal, type PickVerdict } from './judge.ts';
