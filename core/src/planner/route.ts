import { z } from 'zod';
import { byRule, NoRule, route, ruleNames, UnreachableStop } from '../walking/routing/index.ts';
import { parse, PlannerError } from './field.ts';
import {
  effort,
  floorField,
  list,
  mappedFloor,
  mustDiffer,
  mustLieOn,
  name,
  number,
  pathField,
  placeField,
} from './shared.ts';
import type { PlannerTools } from './tools.ts';

/** A single walk is worth the second that its proof takes over seven cross aisles. */
const SWEPT_ROWS = 7;

const methods = ['best', ...ruleNames] as const;

export const routeRequest = z.strictObject({
  floor: floorField,
  start: placeField,
  finish: placeField,
  stops: z.array(z.strictObject({ id: name, aisle: name, y: number }), list),
  method: z.enum(methods, `must be one of ${methods.join(', ')}`).default('best'),
  ...effort,
});

export const routeResult = z.object({
  distance: z.number(),
  sequence: z.array(name),
  path: pathField,
  lowerBound: z.number(),
  proven: z.boolean(),
  method: z.enum(methods),
});

/** The shortest walk through a set of stops, or the walk of a rule, as the planner's document asks it. */
export function routeDocument(document: unknown, { now }: PlannerTools): z.input<typeof routeResult> {
  const { floor, start, finish, stops, method, seconds, seed } = parse(routeRequest, document);
  const map = mappedFloor(floor);
  mustLieOn(map, start, 'start');
  mustLieOn(map, finish, 'finish');
  mustDiffer(stops, 'stops');
  stops.forEach((stop, i) => mustLieOn(map, stop, `stops[${i}]`));
  const problem = { floor, start, finish, stops };
  const begun = now();
  try {
    const effort = { seed, over: () => now() - begun >= seconds * 1000, sweepRows: SWEPT_ROWS };
    const best = route(problem, effort, map);
    if (method === 'best') return { ...shown(best), lowerBound: best.lowerBound, proven: best.proven, method };
    const ruled = byRule(method, problem, map);
    const proven = ruled.distance <= best.lowerBound + 1e-6;
    return { ...shown(ruled), lowerBound: proven ? ruled.distance : best.lowerBound, proven, method };
  } catch (error) {
    if (error instanceof NoRule) throw new PlannerError(`method: ${error.message}`);
    if (error instanceof UnreachableStop) throw unreachable(error, stops, 'stops');
    throw error;
  }
}

const shown = ({ distance, sequence, path }: { distance: number; sequence: string[]; path: [number, number][] }) => ({
  distance,
  sequence,
  path,
});

/** The refusal of a stop that one-way aisles shut out. */
export function unreachable({ stop }: UnreachableStop, stops: readonly { id: string }[], path: string): PlannerError {
  if (stop === null) return new PlannerError('finish: must be reachable from the start');
  const at = stops.findIndex((s) => s.id === stop);
  return new PlannerError(`${path}[${at}]: must be reachable and left again, and ${stop} is not`);
}
