export { computeComparison, computeItem, computeOrder, computeOutlook } from './compute.ts';
