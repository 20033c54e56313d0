import { z } from 'zod';
import { batch, batchMethods, fits, weightOf, type BatchOrder } from '../walking/batching/index.ts';
import { MEASURED_STEPS, route, UnreachableStop } from '../walking/routing/index.ts';
import { parse, PlannerError } from './field.ts';
import { unreachable } from './route.ts';
import {
  count,
  effort,
  floorField,
  list,
  mappedFloor,
  measure,
  mustDiffer,
  mustLieOn,
  name,
  number,
  placeField,
} from './shared.ts';
import type { PlannerTools } from './tools.ts';

export const batchRequest = z.strictObject({
  floor: floorField,
  start: placeField,
  finish: placeField,
  cart: z.strictObject({
    positions: z.int('must be a whole number').min(1, 'must be 1 or more').optional(),
    maxUnits: count.optional(),
    maxWeight: measure.optional(),
    maxVolume: measure.optional(),
  }),
  orders: z.array(
    z.strictObject({
      id: name,
      stops: z.array(
        z.strictObject({
          id: name,
          aisle: name,
          y: number,
          units: count.default(0),
          weight: measure.default(0),
          volume: measure.default(0),
        }),
        list,
      ),
    }),
    list,
  ),
  method: z.enum(batchMethods, `must be one of ${batchMethods.join(', ')}`).default('best'),
  ...effort,
});

export const batchResult = z.object({
  distance: z.number(),
  runs: z.array(z.object({ orders: z.array(name), distance: z.number(), sequence: z.array(name) })),
});

/** Which orders share a run, as the planner's document asks it. */
export function batchDocument(document: unknown, { now }: PlannerTools): z.input<typeof batchResult> {
  const { floor, start, finish, cart, orders: asked, method, seconds, seed } = parse(batchRequest, document);
  const map = mappedFloor(floor);
  mustLieOn(map, start, 'start');
  mustLieOn(map, finish, 'finish');
  mustDiffer(asked, 'orders');
  const limits = {
    // Without a limit every order finds a place.
    positions: cart.positions ?? Math.max(1, asked.length),
    maxUnits: cart.maxUnits,
    maxWeightG: cart.maxWeight,
    maxVolumeCm3: cart.maxVolume,
  };
  const orders = asked.map(({ id, stops }, i): BatchOrder => {
    mustDiffer(stops, `orders[${i}].stops`);
    stops.forEach((stop, s) => mustLieOn(map, stop, `orders[${i}].stops[${s}]`));
    const sum = (of: 'units' | 'weight' | 'volume') => stops.reduce((n, s) => n + s[of], 0);
    const order = { id, priority: 5, stops, units: sum('units'), weightG: sum('weight'), volumeCm3: sum('volume') };
    if (!fits(weightOf(order), limits))
      throw new PlannerError(`orders[${i}]: must fit the cart by itself, and ${id} does not`);
    try {
      if (!map.network.plain) route({ floor, start, finish, stops }, { seed, over: () => true }, map);
    } catch (error) {
      if (error instanceof UnreachableStop) throw unreachable(error, stops, `orders[${i}].stops`);
      throw error;
    }
    return order;
  });
  const begun = now();
  const spent = () => (now() - begun) / (seconds * 1000);
  const { runs } = batch(orders, limits, { floor, start, finish, map }, { method, seed, spent });
  const stopsOf = new Map(orders.map((o) => [o.id, o.stops]));
  const walked = runs.map((own) => {
    // Stops of different orders may bear one id: they are told apart by where they stand in the run's list.
    const stops = own.flatMap((id) => stopsOf.get(id)!);
    const numbered = stops.map((s, i) => ({ ...s, id: String(i) }));
    // By the same measure as the runs were compared by, so that no comparison turns round.
    const walk = route({ floor, start, finish, stops: numbered }, { seed: 1, steps: MEASURED_STEPS }, map);
    return { orders: own, distance: walk.distance, sequence: walk.sequence.map((i) => stops[Number(i)]!.id) };
  });
  return { distance: walked.reduce((n, r) => n + r.distance, 0), runs: walked };
}
