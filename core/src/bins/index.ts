export { chooseBins, type BinChoice, type BinChoices, type BinStock, type Need } from './chooseBins.ts';
