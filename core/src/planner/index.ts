export { PlannerError } from './field.ts';
export type { PlannerTools } from './tools.ts';
export { schemasOf, verbs, type Verb } from './verbs.ts';
