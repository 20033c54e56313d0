export {
  clashIn,
  judgePack,
  weightReasons,
  withInHand,
  type BenchState,
  type Loose,
  type OpenCarton,
  type PackInput,
  type PackItem,
  type PackRefusal,
  type PackVerdict,
  type WeightReason,
} from './judge.ts';
export { cartonsRoughly, proposeCarton, type CartonType, type LooseGoods } from './propose.ts';
export { commandCode, packCommand, packCommands, type PackCommand } from './commands.ts';
export { packSteps, type PackStep, type PackSteps } from './steps.ts';
export { giveUp, receive, type Received } from './receive.ts';
export { isPacked, packingChoices, type PackingChoice } from './choice.ts';
export { byPackRule, ruleFor, type KeptRule, type PackRule } from './rule.ts';
