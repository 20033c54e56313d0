export { planByRules, type CartonRule, type PlannedCarton, type RuledPlan } from './byRule.ts';
export { sharedBound } from './bounds.ts';
export { cartonise, cartoniseFrom, type Begun, type CartoniseOptions } from './cartonise.ts';
export { planCartons, volumetricG, type CartonChoice, type CartonPlan, type Memory } from './plan.ts';
export {
  FitsNoCarton,
  type CartonProblem,
  type Cartonised,
  type CartonType,
  type Goods,
  type Objective,
  type PackedCarton,
} from './problem.ts';
