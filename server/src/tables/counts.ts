import { sql } from 'drizzle-orm';
import { check, index, integer, jsonb, pgTable, primaryKey, text, timestamp, uniqueIndex } from 'drizzle-orm/pg-core';
import type { ShortReason } from '@hand-relay/core/handling/picking';
import { item } from './items.ts';
import { order } from './orders.ts';
import { person } from './people.ts';
import { place, site } from './site.ts';
import { run } from './work.ts';

/** Why a bin is to be counted: what a picker found wrong there, that little is left, or that somebody wants it. */
export type CountReason = ShortReason | 'nearly-empty' | 'wanted';

/** A bin that is to be counted for one item, and what came of it. */
export const binCount = pgTable(
  'bin_count',
  {
    id: text().primaryKey(),
    siteId: text()
      .notNull()
      .references(() => site.id),
    binId: text()
      .notNull()
      .references(() => place.id),
    itemId: text()
      .notNull()
      .references(() => item.id),
    lot: text().notNull().default(''),
    /** Asked: nobody counted yet. Counted: it differs by more than the site lets pass, and somebody has to agree. */
    state: text().$type<'asked' | 'counted' | 'settled' | 'dropped'>().notNull(),
    reason: text().$type<CountReason>().notNull(),
    note: text().notNull().default(''),
    /** Names of pictures that were taken there. */
    pictures: jsonb().$type<string[]>().notNull().default([]),
    /** Where it was found wrong. */
    runId: text().references(() => run.id),
    pickId: text(),
    askedAt: timestamp({ withTimezone: true }).notNull(),
    askedBy: text()
      .notNull()
      .references(() => person.id),
    countedAt: timestamp({ withTimezone: true }),
    countedBy: text().references(() => person.id),
    settledAt: timestamp({ withTimezone: true }),
    settledBy: text().references(() => person.id),
  },
  (t) => [
    uniqueIndex('bin_count_once')
      .on(t.binId, t.itemId, t.lot)
      .where(sql`${t.state} in ('asked', 'counted')`),
    index('bin_count_state').on(t.siteId, t.state),
    index('bin_count_pick').on(t.pickId),
  ],
);

/** What was counted, by serial number where the item has them, against what the books had then. */
export const binCountLine = pgTable(
  'bin_count_line',
  {
    countId: text()
      .notNull()
      .references(() => binCount.id),
    serial: text().notNull().default(''),
    booked: integer().notNull(),
    counted: integer().notNull(),
  },
  (t) => [
    primaryKey({ columns: [t.countId, t.serial] }),
    check('bin_count_line_units', sql`${t.booked} >= 0 and ${t.counted} >= 0`),
  ],
);

/** Goods on a cart that nobody wants any more, and the bin that they go back into. */
export const putAway = pgTable(
  'put_away',
  {
    id: text().primaryKey(),
    siteId: text()
      .notNull()
      .references(() => site.id),
    orderId: text()
      .notNull()
      .references(() => order.id),
    /** The run on whose cart they lie. */
    runId: text()
      .notNull()
      .references(() => run.id),
    placeId: text()
      .notNull()
      .references(() => place.id),
    binId: text()
      .notNull()
      .references(() => place.id),
    itemId: text()
      .notNull()
      .references(() => item.id),
    lot: text().notNull(),
    serials: jsonb().$type<string[]>().notNull().default([]),
    units: integer().notNull(),
    /** Number of the order's carton from which they are taken, where they were packed. */
    carton: integer(),
    sequence: integer().notNull().default(0),
    askedAt: timestamp({ withTimezone: true }).notNull(),
    doneAt: timestamp({ withTimezone: true }),
    doneBy: text().references(() => person.id),
  },
  (t) => [
    check('put_away_units', sql`${t.units} > 0`),
    index('put_away_open')
      .on(t.siteId, t.runId)
      .where(sql`${t.doneAt} is null`),
  ],
);
