export { countOf, picksOf, whyNot, type QuickLine, type QuickOrder, type Typed } from './counts.ts';
export { judgeQuick, type QuickRefusal } from './judge.ts';
