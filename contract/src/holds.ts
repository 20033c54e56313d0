import { allTests, type Conditions } from '@hand-relay/core/deciding/conditions';
import { stages } from '@hand-relay/core/deciding/holds';
import { z } from 'zod';
import { id, instant, units } from './basics.ts';

export const conditions = z.strictObject({
  match: z.enum(['all', 'any']),
  list: z
    .array(z.strictObject({ field: z.string().max(40), test: z.enum(allTests), value: z.string().max(200) }))
    .min(1)
    .max(20),
});

export const orderHold = z.object({
  id,
  rule: z.string().nullable().describe('Name of the rule, null for a hold by hand'),
  text: z.string(),
  stops: z.array(z.enum(stages)),
  lifters: z.array(z.string()),
  heldAt: instant,
  heldBy: z.string().nullable(),
  mayLift: z.boolean(),
});
export type OrderHold = z.infer<typeof orderHold>;
export const orderHolds = z.object({
  holds: z.array(orderHold),
  goods: units.describe("Picked and not shipped, in nobody's hands: what may go back into bins while it is on hold"),
});
export type OrderHolds = z.infer<typeof orderHolds>;

export const holdBody = z.strictObject({
  reason: z.string().trim().min(3).max(200),
  stops: z.array(z.enum(stages)).min(1).max(stages.length),
});
/** Why the goods of a held order go back into their bins. */
export const returnBody = z.strictObject({ reason: z.string().trim().min(3).max(200) });
export const liftBody = z.strictObject({ reason: z.string().trim().min(3).max(200) });

export const holdRuleBody = z.strictObject({
  id: id.nullable().describe('null makes a new rule'),
  name: z.string().trim().min(1).max(60),
  text: z.string().trim().min(3).max(200),
  conditions,
  stops: z.array(z.enum(stages)).min(1).max(stages.length),
  lifters: z.array(z.string().max(30)).min(1).max(50),
  retired: z.boolean().default(false),
});
export const holdRule = holdRuleBody.extend({ id, retired: z.boolean(), holding: z.int() });
export type HoldRuleRow = z.infer<typeof holdRule>;
export const holdRules = z.object({ rules: z.array(holdRule) });

/** The rules that a new site begins with; it changes them and makes its own. */
export const firstHoldRules: {
  name: string;
  text: string;
  conditions: Conditions;
  stops: (typeof stages)[number][];
  lifters: string[];
}[] = [
  {
    name: 'Credit stop',
    text: 'The customer is on credit stop. Ask accounts.',
    conditions: { match: 'all', list: [{ field: 'creditStop', test: 'is', value: 'yes' }] },
    stops: ['release', 'picking', 'packing', 'shipping'],
    lifters: ['supervisor', 'manager'],
  },
  {
    name: 'Address incomplete',
    text: 'Street, postcode or city is missing. Ask the customer.',
    conditions: {
      match: 'any',
      list: [
        { field: 'street', test: 'is-empty', value: '' },
        { field: 'postcode', test: 'is-empty', value: '' },
        { field: 'city', test: 'is-empty', value: '' },
      ],
    },
    stops: ['release', 'shipping'],
    lifters: ['supervisor', 'service'],
  },
  {
    name: 'Large value',
    text: 'Worth more than 5,000: somebody must approve it.',
    conditions: { match: 'all', list: [{ field: 'value', test: 'at-least', value: '5000' }] },
    stops: ['release'],
    lifters: ['supervisor', 'manager'],
  },
];
