import { z } from 'zod';
import { id, instant, isoDate, units } from './basics.ts';

/** A bin with goods for a line. */
const place = z.object({
  bin: z.string(),
  lot: z.string(),
  bestBefore: isoDate.nullable(),
  there: units.describe('Units that nobody is sent there for'),
  serials: z.array(z.string()),
});
/** From where units of a line are fetched. */
const from = place.extend({ units });

export const quickLine = z.object({
  line: id,
  number: z.int(),
  sku: z.string(),
  name: z.string(),
  unit: z.string(),
  picture: z.string(),
  note: z.string(),
  asked: units.describe('Open'),
  gets: units.describe('There is so much of it'),
  tracksSerial: z.boolean(),
  from: z.array(from),
  others: z.array(place).describe('Where else it lies, of lots that keep long enough'),
});
export const quickOrder = z.object({
  id,
  number: z.string(),
  customer: z.string(),
  wishes: z.string(),
  note: z.string(),
  due: isoDate,
  departure: z.string().nullable(),
  leavesAt: instant.nullable(),
  carrier: z.string().nullable(),
  shipComplete: z.boolean(),
  held: z.string().nullable().describe('Why it cannot go'),
  lines: z.array(quickLine),
});
export type QuickOrder = z.infer<typeof quickOrder>;
export type QuickLine = z.infer<typeof quickLine>;
export const quickList = z.object({ orders: z.array(quickOrder), more: z.int().describe('Orders beyond those shown') });

export const quickQuery = z.object({
  until: z
    .union([isoDate, z.literal('any')])
    .optional()
    .describe('Due on this day or earlier; today without it'),
  order: id.optional().describe('This order alone, whenever it is due'),
  find: z.string().max(60).optional().describe('A part of the number, the reference or the customer'),
});

/** What was picked, by line and bin, to be confirmed at once, and shipped where the site packs nothing. */
export const quickBody = z.strictObject({
  orders: z
    .array(
      z.strictObject({
        order: id,
        picks: z
          .array(
            z.strictObject({
              line: id,
              bin: z.string().max(20),
              lot: z.string().max(40).default(''),
              units: units.min(1),
              serials: z.array(z.string().max(60)).max(1000).default([]),
            }),
          )
          .min(1)
          .max(1000),
      }),
    )
    .min(1)
    .max(200),
});
export const quickResult = z.object({
  shipments: z.array(z.object({ order: z.string(), id, shipment: z.string(), units, tracking: z.string().nullable() })),
  toPack: z.array(z.object({ order: z.string(), id, units })).describe('What waits at the bench, where the site packs'),
});
