import { z } from 'zod';
import { topicNames } from './effects.ts';
import { rightSchema } from './rights.ts';

/** Header of a change: the page that asks, by a name of its own. Its events bear it, and the page need not heed them. */
export const TAB = 'x-tab';
/** Header of the answer to a change: what changed, as a list of topics with ids. Left out where that is not known. */
export const CHANGED = 'x-changed';

/** What changed. An empty `ids` means: more than can be named. */
export const changed = z.object({ topic: z.enum(topicNames), ids: z.array(z.string()) });
export type Changed = z.infer<typeof changed>;

/** "This changed", sent after commit. */
export const changeEvent = changed.extend({
  by: z.string().optional().describe('The page that asked for it'),
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

/** Changes as one for each topic; where one of a topic could not name its ids, all together do not. */
export function joined(changes: readonly Changed[]): Changed[] {
  const byTopic = new Map<Changed['topic'], string[][]>();
  for (const { topic, ids } of changes) byTopic.set(topic, [...(byTopic.get(topic) ?? []), ids]);
  return [...byTopic].map(([topic, lists]) => ({
    topic,
    ids: lists.some((ids) => ids.length === 0) ? [] : [...new Set(lists.flat())],
  }));
}
