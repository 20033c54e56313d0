export {
  enteredWeight,
  expectWeight,
  isExpected,
  learnWeights,
  properWeight,
  type Expected,
  type ItemWeight,
  type Weighed,
} from './weight.ts';
export { isScaleAddress, STANDIN_SCALE } from './scale.ts';
export { readScaleText } from './scaleText.ts';
