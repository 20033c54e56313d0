import { z } from 'zod';

/** A refusal as RFC 9457 writes it, with our code, its facts, and the fields that are wrong. */
export const problemSchema = z.object({
  type: z.string().describe('An address that names the kind of refusal'),
  title: z.string(),
  status: z.int(),
  code: z.string().describe('Machine word for the refusal; the interface words it'),
  detail: z.string(),
  facts: z.record(z.string(), z.unknown()),
  fields: z.array(z.object({ path: z.string(), message: z.string() })),
  requestId: z.string(),
});
export type Problem = z.infer<typeof problemSchema>;
