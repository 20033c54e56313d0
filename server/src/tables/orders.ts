import type { PackingChoice } from '@hand-relay/core/handling/packing';
import { sql } from 'drizzle-orm';
import {
  boolean,
  check,
  date,
  index,
  integer,
  pgTable,
  primaryKey,
  smallint,
  text,
  timestamp,
  unique,
  uniqueIndex,
} from 'drizzle-orm/pg-core';
import { jsonb } from 'drizzle-orm/pg-core';
import type { Conditions } from '@hand-relay/core/deciding/conditions';
import type { Stage } from '@hand-relay/core/deciding/holds';
import type { DemandKind } from '@hand-relay/core/handling/shipping';
import type { TrackingForm } from '@hand-relay/core/reading/tracking';
import { item } from './items.ts';
import { found } from './found.ts';
import { place, site } from './site.ts';

/** Where orders come from. */
export const channel = pgTable('channel', {
  code: text().primaryKey(),
  name: text().notNull(),
  /** 1 before 2, wherever channels are listed. */
  rank: smallint().notNull(),
  packing: text().$type<PackingChoice>().notNull().default('usual'),
  retired: boolean().notNull().default(false),
});

/** How much customers matter. */
export const customerClass = pgTable('customer_class', {
  code: text().primaryKey(),
  name: text().notNull(),
  /** 1 is served before 2 where stock goes by class. */
  rank: smallint().notNull(),
  retired: boolean().notNull().default(false),
});

export const customer = pgTable(
  'customer',
  {
    id: text().primaryKey(),
    number: text().notNull(),
    name: text().notNull(),
    /** Code of a customer class; empty for none. */
    class: text().notNull(),
    minShelfDays: integer().notNull().default(0),
    street: text().notNull(),
    postcode: text().notNull(),
    city: text().notNull(),
    country: text().notNull(),
    /** What the customer wishes; whoever packs reads it. */
    wishes: text().notNull().default(''),
    /** Whoever keeps the accounts wants nothing to go to this customer. */
    creditStop: boolean().notNull().default(false),
    /** Whether its goods are packed. */
    packing: text().$type<PackingChoice>().notNull().default('usual'),
    retired: boolean().notNull().default(false),
  },
  (t) => [
    uniqueIndex('customer_number').on(t.number),
    index('customer_found').using('gin', found(t.number), found(t.name), found(t.city)),
  ],
);

/** How long goods must keep for a customer after they leave, item by item, where it is not the customer's usual. */
export const minimumShelfLife = pgTable(
  'minimum_shelf_life',
  {
    customerId: text()
      .notNull()
      .references(() => customer.id),
    itemId: text()
      .notNull()
      .references(() => item.id),
    days: integer().notNull(),
    retired: boolean().notNull().default(false),
  },
  (t) => [primaryKey({ columns: [t.customerId, t.itemId] })],
);

export const carrier = pgTable(
  'carrier',
  {
    id: text().primaryKey(),
    name: text().notNull(),
    tracking: jsonb().$type<TrackingForm>().notNull(),
  },
  (t) => [uniqueIndex('carrier_name').on(t.name)],
);

export const service = pgTable(
  'service',
  {
    id: text().primaryKey(),
    carrierId: text()
      .notNull()
      .references(() => carrier.id),
    name: text().notNull(),
    retired: boolean().notNull().default(false),
  },
  (t) => [uniqueIndex('service_name').on(t.carrierId, t.name)],
);

/** A carrier's or vehicle's leaving: on these days, at this local time. */
export const departure = pgTable(
  'departure',
  {
    id: text().primaryKey(),
    siteId: text()
      .notNull()
      .references(() => site.id),
    name: text().notNull(),
    serviceId: text()
      .notNull()
      .references(() => service.id),
    /** Local time HH:MM. */
    cutOff: text().notNull(),
    /** 1 Monday to 7 Sunday. */
    days: smallint().array().notNull(),
    laneId: text().references(() => place.id),
    doorId: text().references(() => place.id),
    /** Channel whose orders take it unless told otherwise. */
    channel: text(),
    retired: boolean().notNull().default(false),
  },
  (t) => [uniqueIndex('departure_name').on(t.siteId, t.name)],
);

export const order = pgTable(
  'customer_order',
  {
    id: text().primaryKey(),
    siteId: text()
      .notNull()
      .references(() => site.id),
    number: text().notNull(),
    kind: text().$type<DemandKind>().notNull().default('order'),
    /** Code of the site that a transfer goes to. */
    toSite: text().notNull().default(''),
    channel: text().notNull(),
    customerId: text()
      .notNull()
      .references(() => customer.id),
    reference: text().notNull(),
    due: date({ mode: 'string' }).notNull(),
    /** Instant of the departure on the due day, worked out at intake from the site's time zone. */
    leavesAt: timestamp({ withTimezone: true }),
    departureId: text().references(() => departure.id),
    /** Lane and door of its own, where a person changed those of the departure. */
    laneId: text().references(() => place.id),
    doorId: text().references(() => place.id),
    priority: smallint().notNull(),
    shipComplete: boolean().notNull(),
    /** Whether its goods are packed, where not as its customer or channel has it. */
    packing: text().$type<PackingChoice>().notNull().default('usual'),
    shipName: text().notNull(),
    shipStreet: text().notNull(),
    shipPostcode: text().notNull(),
    shipCity: text().notNull(),
    shipCountry: text().notNull(),
    note: text().notNull(),
    /** What a picker wrote to whoever packs it. */
    forBench: text().notNull().default(''),
    document: text().notNull(),
    /** Address of the document that it came from, in the system that keeps it. */
    link: text().notNull().default(''),
    /** What people and channels mark it with. */
    tags: text().array().notNull().default([]),
    /** The order that it was split off from. */
    splitOf: text(),
    status: text().$type<'open' | 'closed' | 'cancelled'>().notNull().default('open'),
    createdAt: timestamp({ withTimezone: true }).notNull(),
    version: integer().notNull().default(1),
  },
  (t) => [
    uniqueIndex('order_number').on(t.siteId, t.number),
    // Codes are found whatever case they are typed in.
    index('order_number_typed').on(t.siteId, sql`upper(${t.number})`),
    index('order_found').using('gin', found(t.number), found(t.reference)),
    index('order_list').on(t.siteId, t.status, t.due, t.id),
    index('order_customer').on(t.customerId),
    index('order_split')
      .on(t.splitOf)
      .where(sql`${t.splitOf} is not null`),
  ],
);

export const orderLine = pgTable(
  'order_line',
  {
    id: text().primaryKey(),
    orderId: text()
      .notNull()
      .references(() => order.id),
    line: integer().notNull(),
    itemId: text()
      .notNull()
      .references(() => item.id),
    /** As asked, in packs. */
    quantity: integer().notNull(),
    pack: text().$type<'unit' | 'inner' | 'outer'>().notNull(),
    note: text().notNull(),
    /** All below in base units. */
    asked: integer().notNull(),
    cancelled: integer().notNull().default(0),
    /** Turned into work; a short takes it back. */
    released: integer().notNull().default(0),
    picked: integer().notNull().default(0),
    packed: integer().notNull().default(0),
    shipped: integer().notNull().default(0),
    /** What a person decided that it gets of what is open, whatever a policy would say; null where nobody did. */
    manuallyAllocated: integer(),
  },
  (t) => [
    uniqueIndex('order_line_number').on(t.orderId, t.line),
    // What picks and reservations refer to: the item of a line never changes under them.
    unique('order_line_of_item').on(t.id, t.itemId),
    index('order_line_item').on(t.itemId),
    // What waits at the dock: few lines of a year.
    index('order_line_packed')
      .on(t.orderId)
      .where(sql`${t.packed} > ${t.shipped}`),
    check('line_asked', sql`${t.asked} >= 0 and ${t.cancelled} >= 0 and ${t.shipped} >= 0`),
    check('line_released', sql`${t.released} <= ${t.asked} - ${t.cancelled}`),
    check('line_picked', sql`${t.picked} <= ${t.released}`),
    check('line_packed', sql`${t.packed} <= ${t.picked}`),
    check('line_shipped', sql`${t.shipped} <= ${t.packed}`),
    check('line_manually_allocated', sql`${t.manuallyAllocated} >= 0`),
  ],
);

/** Services and charges of an order: they stay on it, and nothing of them is picked. */
export const orderCharge = pgTable(
  'order_charge',
  {
    orderId: text()
      .notNull()
      .references(() => order.id),
    line: integer().notNull(),
    itemId: text()
      .notNull()
      .references(() => item.id),
    quantity: integer().notNull(),
    note: text().notNull(),
  },
  (t) => [primaryKey({ columns: [t.orderId, t.line] })],
);

export const waveLine = pgTable(
  'wave_line',
  {
    waveId: text().notNull(),
    lineId: text()
      .notNull()
      .references(() => orderLine.id),
    units: integer().notNull(),
  },
  (t) => [primaryKey({ columns: [t.waveId, t.lineId] }), index('wave_line_line').on(t.lineId)],
);

/** A hold as the site's own rule. */
export const holdRule = pgTable(
  'hold_rule',
  {
    id: text().primaryKey(),
    siteId: text()
      .notNull()
      .references(() => site.id),
    name: text().notNull(),
    /** What people are told: why, and what to do. */
    text: text().notNull(),
    conditions: jsonb().$type<Conditions>().notNull(),
    stops: text().$type<Stage>().array().notNull(),
    /** Names of roles that may lift it. */
    lifters: text().array().notNull(),
    retired: boolean().notNull().default(false),
  },
  (t) => [uniqueIndex('hold_rule_name').on(t.siteId, t.name)],
);

/** A hold on an order, by a rule or by hand. A lifted one stays, so that its rule does not lay it on again. */
export const orderHold = pgTable(
  'order_hold',
  {
    id: text().primaryKey(),
    siteId: text().notNull(),
    orderId: text()
      .notNull()
      .references(() => order.id),
    ruleId: text().references(() => holdRule.id),
    text: text().notNull(),
    stops: text().$type<Stage>().array().notNull(),
    lifters: text().array().notNull(),
    heldAt: timestamp({ withTimezone: true }).notNull(),
    heldBy: text(),
    liftedAt: timestamp({ withTimezone: true }),
    liftedBy: text(),
  },
  (t) => [
    index('order_hold_order').on(t.orderId),
    index('order_hold_now')
      .on(t.orderId)
      .where(sql`${t.liftedAt} is null`),
    index('order_hold_of_rule')
      .on(t.ruleId)
      .where(sql`${t.liftedAt} is null`),
    uniqueIndex('order_hold_rule_once')
      .on(t.orderId, t.ruleId)
      .where(sql`${t.ruleId} is not null`),
  ],
);
