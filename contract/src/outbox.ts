import { z } from 'zod';
import { id } from './basics.ts';
import { problemSchema } from './problem.ts';

/** What a device may have done without the server: kept, and sent several at a time. */
export const outboxNames = [
  'runInput',
  'undoPick',
  'leaveRun',
  'walkFrom',
  'binLeft',
  'takeOut',
  'putBackOne',
  'setUpCart',
  'countRefused',
  'leaveBehind',
  'takeCount',
] as const;

/** Header of every answer: what time it is at the server, in milliseconds since the epoch. */
export const SERVER_TIME = 'x-server-time';

/** Most that are sent at once. */
export const MOST_IN_OUTBOX = 40;

export const outboxCall = z.strictObject({
  name: z.enum(outboxNames),
  id,
  key: z.string().min(1).max(100).describe('By it a repeat is known for one'),
  ago: z.int().min(0).describe('Milliseconds since it was done'),
  body: z.unknown(),
});
export const outboxBody = z.strictObject({
  // Each is looked at by itself: one that is malformed is refused, and the others are heard.
  calls: z
    .array(z.unknown())
    .min(1)
    .max(MOST_IN_OUTBOX)
    .describe(
      'Each with `name`, `id`, `key`, `ago` (milliseconds since it was done) and the `body` of its own endpoint',
    ),
});
export const outboxAnswers = z.object({
  answers: z
    .array(z.union([z.object({ data: z.unknown() }), z.object({ error: problemSchema })]))
    .describe('In order; what follows something unexpected is not tried'),
});
