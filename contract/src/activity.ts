import { z } from 'zod';
import { instant } from './basics.ts';

/** What somebody does beside picking. */
export const activities = z.object({
  list: z.array(z.string()).describe('Other work of the site, in its own words'),
  now: z.object({ kind: z.string(), since: instant }).nullable(),
});
export const activityBody = z.strictObject({
  kind: z.string().trim().min(1).max(40).nullable().describe('Null: back to picking'),
});
