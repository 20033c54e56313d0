export { chances, type Chance, type Due } from './departures.ts';
export { estimate, firstStandards, type Standards, type Work } from './estimate.ts';
