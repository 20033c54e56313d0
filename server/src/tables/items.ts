import { boolean, date, index, integer, pgTable, primaryKey, text, uniqueIndex } from 'drizzle-orm/pg-core';

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
    handling: text().$type<'easy' | 'heavy' | 'two-person' | 'fragile'>().notNull(),
    temperature: text().$type<'ambient' | 'chilled'>().notNull(),
    /** Goods of different groups never share a carton; null goes with all. */
    apart: text(),
    tracksLot: boolean().notNull(),
    tracksSerial: boolean().notNull(),
    valueMinor: integer().notNull(),
    /** Name of the drawing that shows it. */
    picture: text().notNull(),
    /** No longer sold: it stays because history names it. */
    retired: boolean().notNull().default(false),
  },
  (t) => [uniqueIndex('item_sku').on(t.sku)],
);

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
  (t) => [index('item_pack_item').on(t.itemId)],
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
  (t) => [primaryKey({ columns: [t.itemId, t.lot] })],
);
