import { sql } from 'drizzle-orm';
import { boolean, doublePrecision, integer, jsonb, pgTable, text, timestamp, uniqueIndex } from 'drizzle-orm/pg-core';
import { person } from './people.ts';
import { site } from './site.ts';
import { wave } from './work.ts';

/** Work that goes on when its request was answered, on whichever server there is. */
export const job = pgTable(
  'job',
  {
    id: text().primaryKey(),
    siteId: text()
      .notNull()
      .references(() => site.id),
    kind: text().$type<'plan-wave' | 'import' | 'host-stream'>().notNull(),
    /** What it is about; its own id where any number may run. */
    ofId: text().notNull(),
    personId: text()
      .notNull()
      .references(() => person.id),
    /** Who began it, with the rights of that moment. */
    actor: jsonb().notNull().default({}),
    state: text().$type<'running' | 'done' | 'cancelled' | 'failed'>().notNull(),
    /** What it works on; gone when it is over. */
    input: jsonb(),
    /** Parts that are done, of all. */
    done: doublePrecision().notNull().default(0),
    all: integer().notNull().default(1),
    /** What is told of it beside its progress. */
    facts: jsonb().notNull().default({}),
    /** Somebody wants it to stop. */
    cancel: boolean().notNull().default(false),
    /** The server at it, and until when it is its own without a heartbeat. */
    owner: text(),
    lease: timestamp({ withTimezone: true }),
    /** How many servers have taken it and not given it back: one that ends them all is not tried for ever. */
    attempts: integer().notNull().default(0),
    problem: jsonb(),
    at: timestamp({ withTimezone: true }).notNull(),
  },
  (t) => [
    uniqueIndex('job_running_once')
      .on(t.kind, t.ofId)
      .where(sql`${t.state} = 'running'`),
  ],
);

/** A new plan of a wave that was looked at and is not in place: until it is, or the night. */
export const replanDraft = pgTable('replan_draft', {
  waveId: text()
    .primaryKey()
    .references(() => wave.id),
  at: timestamp({ withTimezone: true }).notNull(),
  draft: jsonb().notNull(),
});
