import { accountings, packagingReasons } from '@hand-relay/core/handling/packaging';
import { z } from 'zod';
import { id, instant, whole } from './basics.ts';

const count = z.int().min(1).max(1_000_000);

/** What a site has of each type of carton, pallet and crate, and what there is to do about it. */
export const packagingList = z.object({
  types: z.array(
    z.object({
      id,
      kind: z.enum(['carton', 'pallet']),
      name: z.string(),
      accounting: z.enum(accountings),
      onHand: z.int(),
      reserved: z.int().describe('Closed units that have not shipped'),
      free: z.int(),
      onOrder: z.int(),
      reorderPoint: z.int().nullable(),
      lot: z.int(),
      lookAfterUsed: z.int().nullable(),
      lookAfterDays: z.int().nullable(),
      usedSince: z.int().describe('Units closed since somebody looked'),
      lookedAt: instant.nullable(),
      ownLine: z.boolean(),
      propose: z.int().describe('Units to order now; 0 where there is enough'),
      look: z.boolean().describe('Somebody should look how much is left'),
      countWanted: z.boolean(),
      toPost: z.int().describe('Closed today and not posted, of what is posted by the day'),
    }),
  ),
  movements: z
    .array(
      z.object({
        at: instant,
        type: z.string(),
        reason: z.enum(packagingReasons),
        units: z.int(),
        missing: z.int(),
        document: z.string(),
        person: z.string(),
      }),
    )
    .describe('The newest hundred'),
});
export type PackagingList = z.infer<typeof packagingList>;

export const packagingRuleBody = z.strictObject({
  accounting: z.enum(accountings),
  reorderPoint: whole.max(1_000_000).nullable().default(null),
  lot: count.default(1),
  lookAfterUsed: count.nullable().default(null),
  lookAfterDays: z.int().min(1).max(365).nullable().default(null),
  ownLine: z.boolean().default(false),
});
/** What somebody says of packaging: it was ordered, it came, so much is there, it was looked at. */
export const packagingActBody = z.discriminatedUnion('act', [
  z.strictObject({ act: z.literal('ordered'), units: count }),
  z.strictObject({ act: z.literal('received'), units: count }),
  z.strictObject({ act: z.literal('counted'), units: whole.max(1_000_000) }),
  z.strictObject({ act: z.literal('looked') }),
]);
export const packagingPosted = z.object({ postings: z.array(z.object({ type: z.string(), units: z.int() })) });
