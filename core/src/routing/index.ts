export { chain, takeUp, type Chain, type ChainOptions, type Link } from './chain.ts';
export { openMeter, type Load, type Meter } from './meter.ts';
export { SWEEP_ROWS } from './sweep.ts';
export { openRoute } from './openRoute.ts';
export { routeInPhases } from './phases.ts';
export { UnreachableStop, type RouteProblem, type Stop } from './problem.ts';
export { route, type Found, type Route } from './route.ts';
export { byRule, NoRule, ruleNames, type RuleName } from './rules.ts';
export { alongCorners, cornersOf } from './trace.ts';
