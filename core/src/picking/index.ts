export {
  awaited,
  freshProgress,
  otherBin,
  restOf,
  shortReasons,
  target,
  type Awaited,
  type OtherBin,
  type Pack,
  type PickInput,
  type PickProgress,
  type PickStep,
  type ShortReason,
  type StepItem,
} from './step.ts';
export { judgePick, positionCode, type PickRefusal, type PickVerdict } from './judge.ts';
export { judgePutBack, TOUCHED, type PutBackProgress } from './putBack.ts';
