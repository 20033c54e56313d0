export { likenesses, lookAlikes, type Goods, type Likeness, type LookAlike } from './lookalikes.ts';
