export { sharedBound } from './bounds.ts';
export { cartonise, type CartoniseOptions } from './cartonise.ts';
export {
  FitsNoCarton,
  type CartonProblem,
  type Cartonised,
  type CartonType,
  type Goods,
  type Objective,
  type PackedCarton,
} from './problem.ts';
