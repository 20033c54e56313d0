import { sql } from 'drizzle-orm';
import { pgTable, text, timestamp, uniqueIndex } from 'drizzle-orm/pg-core';
import { person } from './people.ts';
import { site } from './site.ts';

/** Other work than picking: what somebody does in the meantime, one at a time. */
export const activity = pgTable(
  'activity',
  {
    id: text().primaryKey(),
    siteId: text()
      .notNull()
      .references(() => site.id),
    personId: text()
      .notNull()
      .references(() => person.id),
    /** In the site's own words. */
    kind: text().notNull(),
    beganAt: timestamp({ withTimezone: true }).notNull(),
    endedAt: timestamp({ withTimezone: true }),
  },
  (t) => [
    uniqueIndex('activity_one')
      .on(t.personId)
      .where(sql`${t.endedAt} is null`),
  ],
);
