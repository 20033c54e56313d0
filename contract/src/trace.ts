import { z } from 'zod';
import { id, instant, isoDate, units, whole } from './basics.ts';

/** What is traced: an item, a lot or a serial number of it, or a place. */
export const traceQuery = z
  .object({
    item: id.optional(),
    lot: z.string().max(60).optional(),
    serial: z.string().max(60).optional(),
    place: id.optional(),
  })
  .refine((q) => q.item !== undefined || q.place !== undefined, { error: 'Name an item or a place', path: ['item'] });

const goods = { item: z.string(), sku: z.string(), lot: z.string(), serial: z.string(), units };
/** An order by its number, where it has to do with one. */
const order = z.object({ id, number: z.string() }).nullable();

export const traceAnswer = z.object({
  item: z.object({ id, name: z.string(), sku: z.string() }).nullable(),
  place: z.object({ id, code: z.string(), kind: z.string() }).nullable(),
  onHand: whole.describe('Units at the site now'),
  shippedUnits: whole,
  now: z.array(
    z.object({
      ...goods,
      place: z.string(),
      kind: z.string(),
      bestBefore: isoDate.nullable(),
      blocked: z.string().nullable(),
      order,
    }),
  ),
  shipped: z.array(
    z.object({
      ...goods,
      at: instant,
      shipment: z.object({ id, number: z.string() }),
      order: z.object({ id, number: z.string() }),
      reference: z.string(),
      customer: z.string(),
      customerNumber: z.string(),
      address: z.string(),
      tracking: z.string().nullable(),
    }),
  ),
  moves: z.array(
    z.object({
      ...goods,
      id: whole,
      at: instant,
      from: z.string(),
      to: z.string(),
      reason: z.string(),
      person: z.string().nullable(),
      order,
    }),
  ),
  more: z.boolean().describe('More goods left, or moved, than are listed: the newest are'),
});
export type TraceAnswer = z.infer<typeof traceAnswer>;
