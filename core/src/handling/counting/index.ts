export { correct, type Correction, type Counted } from './count.ts';
