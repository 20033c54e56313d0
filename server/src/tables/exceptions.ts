import { sql } from 'drizzle-orm';
import { index, integer, jsonb, pgTable, text, timestamp } from 'drizzle-orm/pg-core';
import type { RaisedKind, SettledHow } from '@hand-relay/contract';
import { item } from './items.ts';
import { order, orderLine } from './orders.ts';
import { person } from './people.ts';
import { place, site } from './site.ts';
import { run } from './work.ts';

/** Something that went wrong on the floor and stands until somebody has dealt with it. */
export const exception = pgTable(
  'exception',
  {
    id: text().primaryKey(),
    siteId: text()
      .notNull()
      .references(() => site.id),
    kind: text().$type<RaisedKind>().notNull(),
    at: timestamp({ withTimezone: true }).notNull(),
    personId: text()
      .notNull()
      .references(() => person.id),
    orderId: text().references(() => order.id),
    lineId: text().references(() => orderLine.id),
    runId: text().references(() => run.id),
    /** The pick at which it was noticed; pictures of its count belong to it. */
    pickId: text(),
    /** The bin, or of a cart the lane where it stands. */
    placeId: text().references(() => place.id),
    itemId: text().references(() => item.id),
    lot: text().notNull().default(''),
    units: integer().notNull().default(0),
    reason: text().notNull().default(''),
    note: text().notNull().default(''),
    /** What else the words need: another bin, the lane that was planned. */
    facts: jsonb().$type<Record<string, unknown>>().notNull().default({}),
    settledAt: timestamp({ withTimezone: true }),
    settledBy: text().references(() => person.id),
    settledHow: text().$type<SettledHow>(),
    settledNote: text().notNull().default(''),
  },
  (t) => [
    index('exception_open')
      .on(t.siteId)
      .where(sql`${t.settledAt} is null`),
    index('exception_settled').on(t.siteId, t.settledAt),
    index('exception_line')
      .on(t.lineId)
      .where(sql`${t.settledAt} is null`),
    index('exception_order')
      .on(t.orderId)
      .where(sql`${t.settledAt} is null`),
  ],
);
