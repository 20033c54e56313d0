import { z } from 'zod';
import { estimate, roughWalk } from '../walking/labour/index.ts';
import { parse, PlannerError } from './field.ts';
import { count, floorField, list, mappedFloor, measure, mustDiffer, name, number } from './shared.ts';

export const estimateRequest = z.strictObject({
  floor: floorField.optional(),
  speed: number.positive('must be more than 0'),
  standards: z.strictObject({
    perRun: measure,
    perStop: measure,
    perUnit: z.record(name, measure),
    perScan: measure,
    perDrop: measure,
  }),
  runs: z.array(
    z.strictObject({
      id: name,
      distance: measure.optional(),
      stops: count.optional(),
      scans: count.default(0),
      drops: count.default(0),
      units: z.record(name, count).default({}),
    }),
    list,
  ),
});

export const estimateResult = z.object({
  runs: z.array(
    z.object({ id: name, seconds: z.number(), walk: z.number(), handling: z.number(), rough: z.boolean().optional() }),
  ),
});

/** What runs should take, as the planner's document asks it. */
export function estimateDocument(document: unknown): z.input<typeof estimateResult> {
  const { floor, speed, standards, runs } = parse(estimateRequest, document);
  mustDiffer(runs, 'runs');
  const map = floor && mappedFloor(floor);
  return {
    runs: runs.map((run, i) => {
      for (const kind of Object.keys(run.units))
        if (!Object.hasOwn(standards.perUnit, kind))
          throw new PlannerError(`runs[${i}].units.${kind}: must be a class of standards.perUnit`);
      if (run.distance === undefined && run.stops === undefined)
        throw new PlannerError(`runs[${i}].stops: must be given where distance is left out`);
      if (run.distance === undefined && !map)
        throw new PlannerError('floor: must be given where a distance is left out');
      const rough = run.distance === undefined;
      const distance = run.distance ?? roughWalk(map!.network, run.stops!);
      const work = { runs: 1, distance, stops: run.stops ?? 0, scans: run.scans, drops: run.drops, units: run.units };
      const found = estimate(work, { ...standards, speed, perPacked: 0 });
      return { id: run.id, ...found, ...(rough ? { rough } : {}) };
    }),
  };
}
