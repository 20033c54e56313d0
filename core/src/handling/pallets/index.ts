export { judgeStack, type PalletState, type Stackable, type StackRefusal, type StackVerdict } from './judge.ts';
