import { sql } from 'drizzle-orm';
import {
  bigint,
  boolean,
  date,
  index,
  integer,
  jsonb,
  pgTable,
  primaryKey,
  text,
  timestamp,
  uniqueIndex,
} from 'drizzle-orm/pg-core';
import { site } from './site.ts';

export const person = pgTable(
  'person',
  {
    id: text().primaryKey(),
    /** Where a sign-in begins: the site worked at last. */
    siteId: text()
      .notNull()
      .references(() => site.id),
    name: text().notNull(),
    /** Sign-in name, for desk people; lower case. */
    login: text(),
    badge: text(),
    passwordHash: text(),
    pinHash: text(),
    /** Language that they read; null where they never chose one. */
    language: text().$type<'en' | 'de'>(),
    /** The journal entry up to which they have seen what others changed about their account. */
    seenEntry: bigint({ mode: 'number' }).notNull().default(0),
  },
  (t) => [uniqueIndex('person_login').on(t.login), uniqueIndex('person_badge').on(t.badge)],
);

/** A role of a site: a name for a set of rights. */
export const role = pgTable(
  'role',
  {
    siteId: text()
      .notNull()
      .references(() => site.id),
    name: text().notNull(),
    rights: text().array().notNull(),
    retired: boolean().notNull().default(false),
  },
  (t) => [primaryKey({ columns: [t.siteId, t.name] })],
);

/** Who works at which site, and as what. */
export const membership = pgTable(
  'membership',
  {
    personId: text()
      .notNull()
      .references(() => person.id),
    siteId: text()
      .notNull()
      .references(() => site.id),
    roles: text()
      .array()
      .notNull()
      .default(sql`'{}'`),
    /** The team whose queue they pick from; empty for none. */
    team: text().notNull().default(''),
    active: boolean().notNull().default(true),
  },
  (t) => [primaryKey({ columns: [t.personId, t.siteId] }), index('membership_site').on(t.siteId)],
);

/** When people are to work: what forecasts count on, and whom work is given to ahead. */
export const roster = pgTable(
  'roster',
  {
    siteId: text()
      .notNull()
      .references(() => site.id),
    personId: text()
      .notNull()
      .references(() => person.id),
    day: date({ mode: 'string' }).notNull(),
    /** Local time HH:MM; an end at or before it is on the next day. */
    starts: text().notNull(),
    ends: text().notNull(),
    team: text().notNull().default(''),
    retired: boolean().notNull().default(false),
  },
  (t) => [primaryKey({ columns: [t.siteId, t.personId, t.day, t.starts] }), index('roster_day').on(t.siteId, t.day)],
);

export const session = pgTable(
  'session',
  {
    /** SHA-256 of the cookie's value: a copy of the database signs nobody in. */
    id: text().primaryKey(),
    personId: text()
      .notNull()
      .references(() => person.id),
    siteId: text()
      .notNull()
      .references(() => site.id),
    device: text().notNull(),
    /** What the browser says that it is. */
    browser: text().notNull().default(''),
    createdAt: timestamp({ withTimezone: true }).notNull(),
    expiresAt: timestamp({ withTimezone: true }).notNull(),
    /** When its device was last heard, to a minute. */
    heardAt: timestamp({ withTimezone: true }).notNull().defaultNow(),
  },
  (t) => [index('session_person').on(t.personId)],
);

/** Tries to sign in, counted before a secret is looked at. */
export const signInTry = pgTable(
  'sign_in_try',
  {
    /** Account, kind of secret, and from where: a device that is known to the account, or an address. */
    key: text().primaryKey(),
    tries: integer().notNull(),
    /** When the first of them was made. */
    since: timestamp({ withTimezone: true }).notNull(),
  },
  (t) => [index('sign_in_try_since').on(t.since)],
);

/** A device on which a person has signed in: what others try elsewhere does not lock it out. */
export const knownDevice = pgTable(
  'known_device',
  {
    personId: text()
      .notNull()
      .references(() => person.id),
    /** SHA-256 of the device's cookie. */
    device: text().notNull(),
    at: timestamp({ withTimezone: true }).notNull(),
  },
  (t) => [primaryKey({ columns: [t.personId, t.device] }), index('known_device_at').on(t.at)],
);

/** How a person likes to see a list: filters, groups and columns, by name. */
export const savedView = pgTable(
  'saved_view',
  {
    id: text().primaryKey(),
    personId: text()
      .notNull()
      .references(() => person.id),
    siteId: text()
      .notNull()
      .references(() => site.id),
    /** Which list or builder it belongs to. */
    list: text().$type<'orders' | 'conditions'>().notNull(),
    name: text().notNull(),
    settings: jsonb().$type<Record<string, unknown>>().notNull(),
    /** Everybody at the site has it; who made it changes it. */
    shared: boolean().notNull().default(false),
  },
  (t) => [uniqueIndex('saved_view_name').on(t.personId, t.siteId, t.list, t.name)],
);

/** What a person has put together for release at a site and not released yet: theirs on every device. */
export const tray = pgTable(
  'tray',
  {
    personId: text()
      .notNull()
      .references(() => person.id),
    siteId: text()
      .notNull()
      .references(() => site.id),
    /** Order ids, in the order in which they were put in. */
    orders: jsonb().$type<string[]>().notNull(),
    /** Line ids with the units that they get exactly. */
    lines: jsonb().$type<Record<string, number>>().notNull(),
  },
  (t) => [primaryKey({ columns: [t.personId, t.siteId] })],
);
