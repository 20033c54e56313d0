import { sql } from 'drizzle-orm';
import {
  bigint,
  boolean,
  check,
  date,
  index,
  integer,
  pgTable,
  primaryKey,
  text,
  timestamp,
  uniqueIndex,
} from 'drizzle-orm/pg-core';
import { found } from './found.ts';
import { item } from './items.ts';
import { person } from './people.ts';
import { place, site } from './site.ts';

/** The only way stock changes. Balances and totals follow by trigger, in the same transaction. */
export const movement = pgTable(
  'movement',
  {
    id: bigint({ mode: 'number' }).primaryKey().generatedAlwaysAsIdentity(),
    at: timestamp({ withTimezone: true }).notNull(),
    siteId: text()
      .notNull()
      .references(() => site.id),
    fromPlace: text()
      .notNull()
      .references(() => place.id),
    toPlace: text()
      .notNull()
      .references(() => place.id),
    itemId: text()
      .notNull()
      .references(() => item.id),
    /** Empty where the item has none, so that it can be part of keys. */
    lot: text().notNull().default(''),
    serial: text().notNull().default(''),
    units: integer().notNull(),
    reason: text().notNull(),
    /** What caused it: a pick, carton, shipment or document. */
    document: text().notNull().default(''),
    personId: text().references(() => person.id),
  },
  (t) => [
    check('movement_units', sql`${t.units} > 0`),
    check('movement_goes_somewhere', sql`${t.fromPlace} <> ${t.toPlace}`),
    check('movement_serial_single', sql`${t.serial} = '' or ${t.units} = 1`),
    index('movement_document').on(t.document),
    index('movement_item').on(t.itemId, t.at),
    index('movement_from').on(t.fromPlace),
    index('movement_to').on(t.toPlace),
    index('movement_serial')
      .using('gin', found(t.serial))
      .where(sql`${t.serial} <> ''`),
  ],
);

/** What lies where: the sum of the movements. Kept by trigger; rows of nothing are removed. */
export const balance = pgTable(
  'balance',
  {
    placeId: text()
      .notNull()
      .references(() => place.id),
    itemId: text()
      .notNull()
      .references(() => item.id),
    lot: text().notNull(),
    serial: text().notNull(),
    units: integer().notNull(),
  },
  (t) => [
    primaryKey({ columns: [t.placeId, t.itemId, t.lot, t.serial] }),
    check('balance_not_negative', sql`${t.units} >= 0`),
    index('balance_item').on(t.itemId, t.lot),
    uniqueIndex('balance_serial_once')
      .on(t.itemId, t.serial)
      .where(sql`${t.serial} <> '' and ${t.units} > 0`),
  ],
);

/** On hand and reserved of an item and lot at a site, kept by trigger. Reserved never exceeds on hand. */
export const stockTotal = pgTable(
  'stock_total',
  {
    siteId: text()
      .notNull()
      .references(() => site.id),
    itemId: text()
      .notNull()
      .references(() => item.id),
    lot: text().notNull(),
    onHand: integer().notNull().default(0),
    reserved: integer().notNull().default(0),
  },
  (t) => [
    primaryKey({ columns: [t.siteId, t.itemId, t.lot] }),
    check('stock_not_negative', sql`${t.onHand} >= 0 and ${t.reserved} >= 0`),
    check('stock_reserved_within', sql`${t.reserved} <= ${t.onHand}`),
  ],
);

export const supplySources = ['purchase', 'transfer', 'production'] as const;

/** Supply on its way: told by whoever buys, moves or makes it. */
export const expectedSupply = pgTable(
  'expected_supply',
  {
    siteId: text()
      .notNull()
      .references(() => site.id),
    reference: text().notNull(),
    itemId: text()
      .notNull()
      .references(() => item.id),
    due: date({ mode: 'string' }).notNull(),
    units: integer().notNull(),
    source: text().$type<(typeof supplySources)[number]>().notNull(),
    retired: boolean().notNull().default(false),
  },
  (t) => [
    primaryKey({ columns: [t.siteId, t.reference, t.itemId, t.due] }),
    check('expected_units', sql`${t.units} > 0`),
  ],
);
