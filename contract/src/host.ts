import { z } from 'zod';
import { instant } from './basics.ts';

export const hostMessage = z.object({
  id: z.int(),
  at: instant,
  direction: z.enum(['to-host', 'from-host']),
  kind: z.enum(['order', 'change', 'cancellation', 'confirmation']),
  order: z.string(),
  facts: z.record(z.string(), z.unknown()),
  receivedAt: instant.nullable().describe('When the host said that it has it'),
});
export type HostMessage = z.infer<typeof hostMessage>;

export const hostMessages = z.object({
  messages: z.array(hostMessage).describe('By number; the newest first without `after`'),
  waiting: z.int().describe('Messages to the host that it does not have yet'),
  stream: z.object({ every: z.int(), orders: z.int(), changes: z.int(), cancellations: z.int() }).nullable(),
});
export type HostMessages = z.infer<typeof hostMessages>;

export const hostQuery = z.object({
  after: z.coerce.number().int().min(0).optional().describe('Only messages to the host behind this number'),
  limit: z.coerce.number().int().min(1).max(1000).default(200),
});
export const hostReceivedBody = z.strictObject({ upTo: z.int().min(1) });

const each = z.int().min(0).max(100);
/** How much the stand-in sends at once. */
export const hostPlayBody = z.strictObject({
  orders: each.default(3),
  changes: each.default(1),
  cancellations: each.default(0),
  seed: z.int().optional().describe('The same seed sends the same, where the house holds the same'),
});
export const hostStreamBody = hostPlayBody
  .omit({ seed: true })
  .extend({ every: z.int().min(2).max(3600).nullable().describe('Seconds; null ends it') });
