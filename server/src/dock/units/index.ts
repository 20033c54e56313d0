export { palletDetail, palletList, palletRow, type PalletRow } from './read.ts';
export { cartonUnits, departureKey, palletUnits, unitsOn, type Unit } from './units.ts';
