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

/** Which picks are of interest, beside all of them. */
export const pickFlaws = ['short', 'touched', 'refused'] as const;
export type PickFlaw = (typeof pickFlaws)[number];
export const picksQuery = z.object({
  from: isoDate.optional().describe('Day of the site; today without it'),
  until: isoDate.optional().describe('Day of the site; that of `from` without it'),
  find: z.string().trim().max(80).default('').describe('Part of an order, item, bin, lot, run or person'),
  only: z.enum(pickFlaws).optional(),
});
export const pickedRow = z.object({
  id,
  at: instant,
  person: z.string(),
  run: z.object({ id, number: z.string() }),
  order: z.object({ id, number: z.string() }),
  bin: z.string(),
  item: z.object({ id, sku: z.string(), name: z.string() }),
  lot: z.string(),
  picked: units,
  asked: units,
  touched: z.array(z.string()).describe('Checks that were confirmed by touch in place of a scan'),
  seconds: z
    .number()
    .nullable()
    .describe('Since the pick before it in the run; null where both were confirmed at once'),
  expected: z.number().describe('Seconds by the standards, with its share of the walk'),
  refused: z.int().describe('Scans that were refused at it'),
});
export type PickedRow = z.infer<typeof pickedRow>;
export const picksAnswer = z.object({
  picks: z.array(pickedRow),
  total: z.int().describe('Picks of these days that match; the newest are listed'),
});
