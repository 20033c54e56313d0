export { batch, type BatchOrder, type CartLimits } from './batch.ts';
