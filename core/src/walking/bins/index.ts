export {
  chooseBins,
  equals,
  FreeStock,
  ranked,
  type BinChoice,
  type BinChoices,
  type ChooseOptions,
} from './chooseBins.ts';
export { binRules, usualBinRules, type BinReason, type BinRule, type BinStock, type Need } from './rules.ts';
