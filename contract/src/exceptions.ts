import { z } from 'zod';
import { id, instant, units } from './basics.ts';

/** What is raised on the floor and stands until it is dealt with. */
export const raisedKinds = ['short', 'elsewhere', 'out', 'lost', 'cart'] as const;
export type RaisedKind = (typeof raisedKinds)[number];
/** With what has a place of its own: counts that differ, goods picked for less demand, goods to be put away. */
/** What orders are tagged with that customer service should talk about with the customer. */
export const SERVICE_TAG = 'customer service';

export const exceptionKinds = [...raisedKinds, 'count', 'surplus', 'put-away'] as const;
export type ExceptionKind = (typeof exceptionKinds)[number];

/** What a person does about one, from the list. */
export const exceptionActs = ['release', 'ship-short', 'service', 'count', 'dismiss'] as const;
export type ExceptionAct = (typeof exceptionActs)[number];
/** How it ended: by one of these, or by what was done elsewhere. */
export const settledHows = ['release', 'ship-short', 'service', 'dismiss', 'counted', 'packed'] as const;
export type SettledHow = (typeof settledHows)[number];

const named = z.object({ id, number: z.string() });

export const exceptionRow = z.object({
  id,
  kind: z.enum(exceptionKinds),
  at: instant,
  by: z.string().describe('Who noticed it; empty where nobody did'),
  order: named
    .extend({ customer: z.string(), departure: z.string().nullable(), leavesAt: instant.nullable() })
    .nullable(),
  line: z.int().nullable(),
  run: named.extend({ cart: z.string().nullable() }).nullable(),
  item: z.object({ sku: z.string(), name: z.string(), picture: z.string(), unit: z.string() }).nullable(),
  lot: z.string(),
  place: z.string().describe('Bin or lane; of goods to put away the bin they belong to'),
  units,
  open: units.describe('Of a line: units that still wait to be released'),
  reason: z.string(),
  note: z.string(),
  facts: z
    .record(z.string(), z.union([z.string(), z.number()]).nullable())
    .describe('What else its words need: another bin, the lane that was planned'),
  pictures: z.array(z.string()),
  count: z.enum(['asked', 'counted', 'settled', 'dropped']).nullable().describe('State of the count of the bin'),
  settled: z.object({ at: instant, by: z.string(), how: z.enum(settledHows), note: z.string() }).nullable(),
});
export type ExceptionRow = z.infer<typeof exceptionRow>;
/** All that are open, and those settled in the last day. */
export const exceptionList = z.object({ exceptions: z.array(exceptionRow) });

export const actOnBody = z.strictObject({
  act: z.enum(exceptionActs),
  note: z.string().trim().max(200).default('').describe('Required to dismiss: three letters at least'),
});
