import { sql } from 'drizzle-orm';
import {
  bigint,
  boolean,
  check,
  index,
  integer,
  jsonb,
  pgTable,
  text,
  timestamp,
  uniqueIndex,
} from 'drizzle-orm/pg-core';
import { departure, order } from './orders.ts';
import { person } from './people.ts';
import { place, site } from './site.ts';

/** A type of vehicle or container: what goes into it. */
export const vehicleType = pgTable(
  'vehicle_type',
  {
    id: text().primaryKey(),
    name: text().notNull(),
    lengthMm: integer().notNull(),
    widthMm: integer().notNull(),
    heightMm: integer().notNull(),
    /** Pallets that stand on its floor. */
    floorPlaces: integer().notNull(),
    maxLoadG: integer().notNull(),
    retired: boolean().notNull().default(false),
  },
  (t) => [uniqueIndex('vehicle_type_name').on(t.name)],
);

/** What one vehicle or container will take. */
export const load = pgTable(
  'load',
  {
    id: text().primaryKey(),
    siteId: text()
      .notNull()
      .references(() => site.id),
    number: integer().notNull(),
    vehicleId: text()
      .notNull()
      .references(() => vehicleType.id),
    departureId: text().references(() => departure.id),
    leavesAt: timestamp({ withTimezone: true }),
    doorId: text().references(() => place.id),
    note: text().notNull().default(''),
    /** Planned until it has left or was cancelled; how far it is in between is read from its orders. */
    state: text().$type<'planned' | 'left' | 'dissolved'>().notNull().default('planned'),
    endedAt: timestamp({ withTimezone: true }),
    /** Nobody where it ended by itself. */
    endedBy: text().references(() => person.id),
    createdAt: timestamp({ withTimezone: true }).notNull(),
    createdBy: text()
      .notNull()
      .references(() => person.id),
  },
  (t) => [uniqueIndex('load_number').on(t.siteId, t.number), index('load_state').on(t.siteId, t.state, t.endedAt)],
);

/** Which planned load takes an order's shipment. What left on a load is known by its shipments. */
export const loadOrder = pgTable(
  'load_order',
  {
    orderId: text()
      .primaryKey()
      .references(() => order.id),
    loadId: text()
      .notNull()
      .references(() => load.id),
    addedAt: timestamp({ withTimezone: true }).notNull(),
    /** Its place in the order of deliveries, 1 for the first; orders to one address have one. */
    stop: integer().notNull().default(1),
  },
  (t) => [index('load_order_load').on(t.loadId)],
);

/** What goes to the host system, and what came from its stand-in, in the order in which it was said. */
export const hostMessage = pgTable(
  'host_message',
  {
    id: bigint({ mode: 'number' }).primaryKey().generatedAlwaysAsIdentity(),
    siteId: text()
      .notNull()
      .references(() => site.id),
    at: timestamp({ withTimezone: true }).notNull(),
    direction: text().$type<'to-host' | 'from-host'>().notNull(),
    kind: text().$type<'order' | 'change' | 'cancellation' | 'confirmation'>().notNull(),
    /** Number of the order it is about. */
    order: text('order_number').notNull(),
    facts: jsonb().$type<Record<string, unknown>>().notNull(),
    /** When the host said that it has it. */
    receivedAt: timestamp({ withTimezone: true }),
  },
  (t) => [
    index('host_message_site').on(t.siteId, t.id),
    index('host_message_waiting')
      .on(t.siteId, t.id)
      .where(sql`${t.direction} = 'to-host' and ${t.receivedAt} is null`),
    check('host_message_direction', sql`${t.direction} in ('to-host', 'from-host')`),
  ],
);
