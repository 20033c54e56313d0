import { z } from 'zod';
import { shortReasons } from '@hand-relay/core/handling/picking';
import { id, instant, units } from './basics.ts';

export const countReasons = [...shortReasons, 'nearly-empty', 'wanted'] as const;

/** A bin that is to be counted for one item. What the books have is told only to those who settle counts. */
export const binCount = z.object({
  id,
  bin: z.string(),
  item: z.object({
    sku: z.string(),
    name: z.string(),
    picture: z.string(),
    unit: z.string(),
    tracksSerial: z.boolean(),
  }),
  lot: z.string(),
  state: z.enum(['asked', 'counted']),
  reason: z.enum(countReasons),
  note: z.string(),
  pictures: z.array(z.string()),
  run: z.string().nullable().describe('Number of the run in which it was found wrong'),
  askedAt: instant,
  askedBy: z.string(),
  countedAt: instant.nullable(),
  countedBy: z.string().nullable(),
  booked: units.nullable().describe('What the books had when it was counted, what was in doubt included'),
  counted: units.nullable(),
});
export type BinCount = z.infer<typeof binCount>;
export const binCounts = z.object({ counts: z.array(binCount) });

export const wantCountBody = z.strictObject({
  bin: z.string().trim().min(1).max(40),
  item: z.string().trim().min(1).max(60).describe('SKU'),
  lot: z.string().trim().max(40).default(''),
});
/** Units seen in the bin; where the item has serial numbers, these. */
export const takeCountBody = z.strictObject({
  units,
  serials: z.array(z.string().min(1).max(40)).max(2000).default([]),
});
export const countTaken = z.object({
  state: z.enum(['counted', 'settled']).describe('Counted: it differs by more than passes by itself'),
});
export const settleCountBody = z.strictObject({ decision: z.enum(['agree', 'again', 'drop']) });
/** What is left after a pick that should leave nearly nothing. */
export const leftBody = z.strictObject({
  pick: id,
  expected: units.describe('What should be left, as the device reckoned'),
  units,
});
export const photoBody = z.strictObject({
  pick: id,
  data: z.base64().max(8_000_000).describe('PNG, JPEG or WebP'),
});

/** Goods on a cart that go back into bins, in walking order. */
export const putAway = z.object({
  id,
  order: z.string(),
  position: z.int(),
  carton: z.int().nullable().describe('Number of the carton of the order in which they are, where they were packed'),
  bin: z.string(),
  item: z.object({
    sku: z.string(),
    name: z.string(),
    picture: z.string(),
    unit: z.string(),
    packs: z.array(z.object({ gtin: z.string(), level: z.enum(['unit', 'inner', 'outer']), units: z.int() })),
  }),
  lot: z.string(),
  serials: z.array(z.string()),
  units,
  done: z.boolean(),
});
export type PutAway = z.infer<typeof putAway>;
export const putAwayTrip = z.object({
  run: id,
  number: z.string(),
  callSign: z.string(),
  cart: z.string(),
  goods: z.array(putAway),
});
export type PutAwayTrip = z.infer<typeof putAwayTrip>;
export const putAwayTrips = z.object({ trips: z.array(putAwayTrip) });
export const putAwayBody = z.strictObject({
  goods: id,
  item: z.string().trim().min(1).max(200).describe('What was scanned of the goods; `*` where touched'),
  bin: z.string().trim().min(1).max(200).describe('What was scanned of the bin; `*` where touched'),
});
