import { z } from 'zod';
import { id, units } from './basics.ts';

export const lookUpQuery = z.object({ code: z.string().trim().min(1).max(200) });

const item = z.object({ sku: z.string(), name: z.string(), picture: z.string(), unit: z.string() });
/** What a code names, with what somebody in the aisle wants to know of it. */
export const lookedUp = z.discriminatedUnion('kind', [
  z.object({ kind: z.literal('nothing'), code: z.string() }),
  z.object({ kind: z.literal('void'), name: z.string() }).describe('The label of a carton that was reopened'),
  z.object({
    kind: z.literal('item'),
    item,
    packs: z.array(z.object({ level: z.enum(['unit', 'inner', 'outer']), units: z.int(), gtin: z.string() })),
    free: units.describe('Promised to nobody at this site'),
    bins: z.array(
      z.object({
        bin: z.string(),
        lot: z.string(),
        bestBefore: z.string().nullable(),
        units,
        sent: units,
        blocked: z.boolean(),
      }),
    ),
  }),
  z.object({
    kind: z.literal('bin'),
    bin: z.string(),
    zone: z.string(),
    blocked: z.boolean(),
    goods: z.array(item.extend({ lot: z.string(), units, sent: units.describe('Units that pickers are sent for') })),
  }),
  z.object({
    kind: z.literal('order'),
    id,
    number: z.string(),
    customer: z.string(),
    note: z.string(),
    hold: z.string().nullable(),
    lines: z.array(item.extend({ asked: units, picked: units, packed: units, shipped: units })),
    where: z.array(z.string()).describe('Carts and places, and lanes'),
  }),
  z.object({
    kind: z.literal('carton'),
    sscc: z.string(),
    order: z.string(),
    customer: z.string(),
    state: z.enum(['open', 'closed', 'shipped']),
    lane: z.string().nullable(),
    goods: z.array(item.extend({ lot: z.string(), units })),
  }),
]);
export type LookedUp = z.infer<typeof lookedUp>;
