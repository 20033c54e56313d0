export { checkDigit, hasCheckDigit } from './checkDigit.ts';
export { IN_HOUSE_PREFIX, lastSerial, serialOf, ssccOf, ssccPrefix, type SsccRange } from './sscc.ts';
export { FNC1, readGs1, gs1Date, printedElements, gtin14, type Gs1Content } from './elements.ts';
