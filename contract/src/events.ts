import { z } from 'zod';
import { rightSchema } from './rights.ts';

export const topics = [
  'orders',
  'waves',
  'runs',
  'counts',
  'exceptions',
  'tray',
  'bench',
  'shipments',
  'stock',
  'setup',
  'printing',
  'host',
] as const;

/** "This changed", sent after commit. An empty `ids` means: more than can be named. */
export const changeEvent = z.object({
  topic: z.enum(topics),
  ids: z.array(z.string()),
  /** A sentence's worth of news, for notices: machine word and facts. */
  news: z
    .object({
      kind: z.string(),
      facts: z.record(z.string(), z.unknown()),
      for: rightSchema.optional().describe('Told only to those who have this right'),
    })
    .optional(),
});
export type ChangeEvent = z.infer<typeof changeEvent>;
