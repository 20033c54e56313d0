export {
  centreOfGravity,
  FitsNoPallet,
  heightOf,
  inBuildingOrder,
  palletise,
  type Palletised,
  type PalletiseOptions,
  type PalletProblem,
  type PalletType,
} from './palletise.ts';
export { layersOf, palletiseUnits, UnitFitsNoPallet, type NamedUnit, type StackedUnit } from './units.ts';
export { layerOf, type Flat } from './layer.ts';
