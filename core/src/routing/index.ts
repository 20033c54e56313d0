export { route, type Route } from './route.ts';
export type { RouteProblem, Stop } from './problem.ts';
