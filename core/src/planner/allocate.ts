import { z } from 'zod';
import { allocate, completeOrders, policies, type Demand } from '../deciding/allocation/index.ts';
import { parse, PlannerError } from './field.ts';
import { count, effort, mustDiffer, name } from './shared.ts';
import type { PlannerTools } from './tools.ts';

const day = z.iso.date('must be a date as YYYY-MM-DD');

export const allocateRequest = z.strictObject({
  supply: z.array(
    z.strictObject({
      item: name,
      lot: name.nullable().default(null),
      bestBefore: day.nullable().default(null),
      units: count,
    }),
    'must be a list',
  ),
  orders: z.array(
    z.strictObject({
      id: name,
      priority: z.int('must be a whole number').default(5),
      shipDate: day,
      shipComplete: z.boolean('must be true or false').default(false),
      lines: z.array(
        z.strictObject({
          id: name,
          item: name,
          units: count,
          minShelfDays: count.max(36_500, 'must be 36500 or less').default(0),
        }),
        'must be a list',
      ),
    }),
    'must be a list',
  ),
  policy: z.enum(policies, `must be one of ${policies.join(', ')}`),
  ...effort,
});

export const allocateResult = z.object({
  lines: z.array(
    z.object({
      order: name,
      line: name,
      units: count,
      lots: z.array(z.object({ lot: name.nullable(), units: count })),
    }),
  ),
  ordersComplete: count,
  unitsAllocated: count,
  bound: count.optional(),
});

/** Branches that `most-orders` looks at for each group of orders, so that the same input ends the same everywhere. */
const NODES = 5000;

function checked(document: unknown): z.output<typeof allocateRequest> {
  const request = parse(allocateRequest, document);
  const dates = new Map<string, string | null>();
  request.supply.forEach(({ item, lot, bestBefore }, i) => {
    if (lot === null) return;
    const key = JSON.stringify([item, lot]);
    if (dates.has(key) && dates.get(key) !== bestBefore)
      throw new PlannerError(`supply[${i}].bestBefore: must be the same in every row of lot ${lot} of item ${item}`);
    dates.set(key, bestBefore);
  });
  mustDiffer(request.orders, 'orders');
  request.orders.forEach((order, i) => mustDiffer(order.lines, `orders[${i}].lines`));
  return request;
}

/** Who gets the stock, as the planner's document asks it. */
export function allocateDocument(document: unknown, { solver, now }: PlannerTools): z.input<typeof allocateResult> {
  const { supply, orders, policy, seconds, seed } = checked(document);
  const demand: Demand[] = orders;
  const begun = now();
  const spent = () => (now() - begun) / (seconds * 1000);
  const { promises, bound } = allocate(
    supply,
    demand,
    policy === 'most-orders' ? { policy, solver, effort: { seconds, seed, nodes: NODES, spent } } : { policy },
  );
  return {
    lines: promises,
    ordersComplete: completeOrders(demand, promises).size,
    unitsAllocated: promises.reduce((n, p) => n + p.units, 0),
    ...(bound === undefined ? {} : { bound }),
  };
}
