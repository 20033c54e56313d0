import { sql } from 'drizzle-orm';
import { index, integer, jsonb, pgTable, text, timestamp, uniqueIndex } from 'drizzle-orm/pg-core';
import type { IntakeError, OrderDraft, OrderLayout } from '@hand-relay/core/reading/intake';
import { person } from './people.ts';
import { site } from './site.ts';

/** How a sender of orders writes its files. */
export const orderSender = pgTable(
  'order_sender',
  {
    id: text().primaryKey(),
    siteId: text()
      .notNull()
      .references(() => site.id),
    name: text().notNull(),
    layout: jsonb().$type<OrderLayout>().notNull(),
    at: timestamp({ withTimezone: true }).notNull(),
    personId: text()
      .notNull()
      .references(() => person.id),
  },
  (t) => [uniqueIndex('order_sender_name').on(t.siteId, sql`lower(${t.name})`)],
);

/** An order that an import made or changed, as it was left, and what it was before. */
export interface ImportedOrder {
  id: string;
  number: string;
  version: number;
  before: { draft: OrderDraft; document: string; tags: string[] } | null;
}

/** A file of orders that was taken, and what undoing it needs. */
export const orderImport = pgTable(
  'order_import',
  {
    id: text().primaryKey(),
    siteId: text()
      .notNull()
      .references(() => site.id),
    at: timestamp({ withTimezone: true }).notNull(),
    personId: text()
      .notNull()
      .references(() => person.id),
    document: text().notNull(),
    sender: text().notNull(),
    source: text().$type<'screen' | 'folder'>().notNull(),
    new: integer().notNull(),
    changed: integer().notNull(),
    same: integer().notNull(),
    faults: integer().notNull(),
    errors: jsonb().$type<IntakeError[]>().notNull(),
    orders: jsonb().$type<ImportedOrder[]>().notNull(),
    undoneAt: timestamp({ withTimezone: true }),
  },
  (t) => [index('order_import_at').on(t.siteId, t.at)],
);
