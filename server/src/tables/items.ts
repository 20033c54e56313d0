import {
  bigint,
  boolean,
  customType,
  date,
  doublePrecision,
  index,
  integer,
  pgTable,
  primaryKey,
  text,
  uniqueIndex,
} from 'drizzle-orm/pg-core';
import { found } from './found.ts';
import type { Counting } from '@hand-relay/core/deciding/settings';

export const item = pgTable(
  'item',
  {
    id: text().primaryKey(),
    sku: text().notNull(),
    name: text().notNull(),
    unit: text().notNull(),
    lengthMm: integer().notNull(),
    widthMm: integer().notNull(),
    heightMm: integer().notNull(),
    weightG: integer().notNull(),
    /** How its units are counted, where not as the site does. */
    counting: text().$type<Counting>(),
    handling: text().$type<'easy' | 'heavy' | 'two-person' | 'fragile'>().notNull(),
    temperature: text().$type<'ambient' | 'chilled'>().notNull(),
    /** Goods of different groups never share a carton; null goes with all. */
    apart: text(),
    /** Its third side stays vertical in cartons and on pallets. */
    keepUpright: boolean().notNull().default(false),
    /** Weight that may rest on a unit in cartons; null where any may. */
    maxLoadG: integer(),
    /** What is dangerous about it, as its label says it: number, name and class; empty for most. */
    hazard: text().notNull().default(''),
    /** It ships in the box that it comes in. */
    ownBox: boolean().notNull().default(false),
    tracksLot: boolean().notNull(),
    tracksSerial: boolean().notNull(),
    valueMinor: bigint({ mode: 'number' }).notNull(),
    /** A service or a charge: it is never stocked and never picked. */
    service: boolean().notNull().default(false),
    /** Days that it keeps from its making: no lot's best-before lies further ahead. Null where it keeps. */
    shelfLifeDays: integer(),
    /** Name of the drawing that shows it, or of a picture of one's own. */
    picture: text().notNull(),
    /** No longer sold: it stays because history names it. */
    retired: boolean().notNull().default(false),
  },
  (t) => [uniqueIndex('item_sku').on(t.sku), index('item_found').using('gin', found(t.sku), found(t.name))],
);

/** What weighed cartons taught about the weight of an item's units, in grams. */
export const itemWeight = pgTable('item_weight', {
  itemId: text()
    .primaryKey()
    .references(() => item.id),
  /** The weight that the item had then: once that is changed, it is learnt again. */
  enteredG: integer().notNull(),
  meanG: doublePrecision().notNull(),
  variance: doublePrecision().notNull(),
  spread: doublePrecision().notNull(),
  cartons: integer().notNull(),
});

export const itemPack = pgTable(
  'item_pack',
  {
    gtin: text().primaryKey(),
    itemId: text()
      .notNull()
      .references(() => item.id),
    level: text().$type<'unit' | 'inner' | 'outer'>().notNull(),
    units: integer().notNull(),
  },
  (t) => [index('item_pack_item').on(t.itemId), index('item_pack_found').using('gin', found(t.gtin))],
);

export const lot = pgTable(
  'lot',
  {
    itemId: text()
      .notNull()
      .references(() => item.id),
    lot: text().notNull(),
    bestBefore: date({ mode: 'string' }),
  },
  (t) => [primaryKey({ columns: [t.itemId, t.lot] }), index('lot_found').using('gin', found(t.lot))],
);

const bytes = customType<{ data: Uint8Array }>({ dataType: () => 'bytea' });

/** A picture of one's own, by the hash of its bytes: the same file is kept once. */
export const picture = pgTable('picture', {
  id: text().primaryKey(),
  type: text().$type<'image/png' | 'image/jpeg' | 'image/webp'>().notNull(),
  bytes: bytes().notNull(),
});
