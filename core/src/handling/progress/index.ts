export { baton, legs, type Amounts, type Baton, type Leg } from './baton.ts';
