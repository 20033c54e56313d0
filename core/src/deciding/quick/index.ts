export {
  countAt,
  countOf,
  isByPlace,
  picksOf,
  placeKey,
  placesOf,
  whyNot,
  type FetchPlace,
  type QuickLine,
  type QuickOrder,
  type Typed,
} from './counts.ts';
export { judgeQuick, type QuickRefusal } from './judge.ts';
