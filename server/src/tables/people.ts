import { sql } from 'drizzle-orm';
import { boolean, index, integer, pgTable, text, timestamp, uniqueIndex } from 'drizzle-orm/pg-core';
import { site } from './site.ts';

export const person = pgTable(
  'person',
  {
    id: text().primaryKey(),
    siteId: text()
      .notNull()
      .references(() => site.id),
    name: text().notNull(),
    /** Sign-in name, for desk people; lower case. */
    login: text(),
    badge: text(),
    passwordHash: text(),
    pinHash: text(),
    roles: text()
      .array()
      .notNull()
      .default(sql`'{}'`),
    active: boolean().notNull().default(true),
    failures: integer().notNull().default(0),
    lockedUntil: timestamp({ withTimezone: true }),
  },
  (t) => [uniqueIndex('person_login').on(t.login), uniqueIndex('person_badge').on(t.badge)],
);

export const session = pgTable(
  'session',
  {
    /** SHA-256 of the cookie's value: a copy of the database signs nobody in. */
    id: text().primaryKey(),
    personId: text()
      .notNull()
      .references(() => person.id),
    device: text().notNull(),
    createdAt: timestamp({ withTimezone: true }).notNull(),
    expiresAt: timestamp({ withTimezone: true }).notNull(),
  },
  (t) => [index('session_person').on(t.personId)],
);
