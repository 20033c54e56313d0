export {
  atSameBin,
  awaited,
  cartonOf,
  freshProgress,
  otherBin,
  restOf,
  restProgress,
  shortReasons,
  target,
  type Awaited,
  type CartonHere,
  type OtherBin,
  type Pack,
  type PickInput,
  type PickProgress,
  type PickStep,
  type ShortReason,
  type StepItem,
} from './step.ts';
export { judgePick, positionCode, type PickRefusal, type PickVerdict } from './judge.ts';
export {
  judgeSetUp,
  nextToSetUp,
  withPlace,
  type CartPlace,
  type CartSetUp,
  type PlaceGiven,
  type SetUpRefusal,
  type SetUpVerdict,
} from './setUp.ts';
export { judgePutAway, TOUCHED, type PutAwayProgress, type PutAwayRefusal } from './putAway.ts';
export { leavesNearlyNothing, outcomeOf, type PickOutcome } from './outcome.ts';
export { replacementBin, sendsOthersAway, suspectStock, type At, type ShortAt } from './suspect.ts';
export { inTurn, lastDone, nextOpen, type InTurn } from './turns.ts';
export { goesBack, type Confirmed } from './undo.ts';
export { offCarts, outOfCartons, type Loose } from './unpick.ts';
export { cartFront, type CartFront } from './cartFront.ts';
export { benchFor, type BenchNow, type CartLoad } from './benches.ts';
export { laneAdvice, type LaneAdvice, type LaneNow } from './lanes.ts';
export { splitPacks } from './splitPacks.ts';
