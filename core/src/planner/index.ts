export { PlannerError } from './field.ts';
export { verbs, type Verb } from './verbs.ts';
