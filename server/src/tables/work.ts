import type { RunPick } from '@hand-relay/contract';
import { sql } from 'drizzle-orm';
import {
  boolean,
  check,
  date,
  doublePrecision,
  foreignKey,
  index,
  integer,
  jsonb,
  pgTable,
  primaryKey,
  real,
  text,
  timestamp,
  unique,
  uniqueIndex,
} from 'drizzle-orm/pg-core';
import type { BinReason } from '@hand-relay/core/walking/bins';
import type { Point } from '@hand-relay/core/walking/floor';
import type { PickProgress } from '@hand-relay/core/handling/picking';
import type { Picking } from '@hand-relay/core/walking/waves';
import { found } from './found.ts';
import { load } from './loads.ts';
import { departure, order, orderLine, service } from './orders.ts';
import { person } from './people.ts';
import { place, site } from './site.ts';

export const wave = pgTable(
  'wave',
  {
    id: text().primaryKey(),
    siteId: text()
      .notNull()
      .references(() => site.id),
    number: integer().notNull(),
    state: text().$type<'gathering' | 'planned' | 'started' | 'done' | 'cancelled'>().notNull(),
    createdAt: timestamp({ withTimezone: true }).notNull(),
    createdBy: text()
      .notNull()
      .references(() => person.id),
    version: integer().notNull().default(1),
    /** The timetable's entry that it gathers for, and the site's day; null where it was made by hand. */
    entryId: text().references(() => timetable.id),
    day: date(),
    picking: text().$type<Picking>().notNull().default('sort'),
    /** The cart that its runs are made for; the site's largest where null. */
    cartTypeId: text().references(() => cartType.id),
    /** Who picks it: a team, and so many of them; everybody who is there where null. */
    team: text().notNull().default(''),
    people: integer(),
    /** Place among the waves that wait, the lower the sooner. */
    rank: doublePrecision().notNull().default(0),
    /** What its plan foresaw. */
    foreseen: jsonb().$type<Foreseen>(),
  },
  (t) => [uniqueIndex('wave_number').on(t.siteId, t.number), index('wave_entry').on(t.entryId, t.day)],
);

/** What a plan foresaw when it was made, to hold the work against. */
export interface Foreseen {
  seconds: number;
  metres: number;
  /** People that the plan counted on. */
  people: number;
  /** When the last run should end, milliseconds since the epoch; the range about it. */
  ends: number;
  early: number;
  late: number;
}

/** What gathers for a departure, how it is picked, and what happens by itself. */
export const timetable = pgTable(
  'timetable',
  {
    id: text().primaryKey(),
    siteId: text()
      .notNull()
      .references(() => site.id),
    name: text().notNull(),
    departureId: text().references(() => departure.id),
    channel: text(),
    customerClass: text(),
    zone: text(),
    kind: text(),
    /** Limits of an order's size, in lines and base units. */
    maxLines: integer(),
    maxUnits: integer(),
    /** Limits of a wave's size. */
    waveOrders: integer(),
    waveUnits: integer(),
    picking: text().$type<Picking>().notNull().default('sort'),
    cartTypeId: text().references(() => cartType.id),
    team: text().notNull().default(''),
    people: integer(),
    gather: text().$type<'hand' | 'time' | 'level'>().notNull().default('hand'),
    gatherAt: text(),
    gatherLevel: integer(),
    plan: text().$type<'hand' | 'gathered' | 'time'>().notNull().default('hand'),
    planAt: text(),
    start: text().$type<'hand' | 'planned' | 'time'>().notNull().default('hand'),
    startAt: text(),
    retired: boolean().notNull().default(false),
  },
  (t) => [uniqueIndex('timetable_name').on(t.siteId, t.name)],
);

/**
 * Stock of an item and lot promised to a line, until it ships or is given back. Without a wave it is promised to a
 * line that is not released yet.
 */
export const reservation = pgTable(
  'reservation',
  {
    waveId: text().references(() => wave.id),
    lineId: text().notNull(),
    // The line's own site, held for the sums: checking it again would cost a part of a release.
    siteId: text().notNull(),
    itemId: text().notNull(),
    lot: text().notNull(),
    units: integer().notNull(),
    /** Units that count as reserved: all, or where the site reserves at the scan those already picked. */
    hardAllocated: integer().notNull(),
  },
  (t) => [
    foreignKey({
      name: 'reservation_line',
      columns: [t.lineId, t.itemId],
      foreignColumns: [orderLine.id, orderLine.itemId],
    }),
    unique('reservation_once').on(t.lineId, t.waveId, t.lot).nullsNotDistinct(),
    index('reservation_wave').on(t.waveId),
    check('reservation_units', sql`${t.units} >= 0 and ${t.hardAllocated} between 0 and ${t.units}`),
  ],
);

export const cartType = pgTable(
  'cart_type',
  {
    id: text().primaryKey(),
    name: text().notNull(),
    positions: integer().notNull(),
    /** Places side by side, as seen from its front. */
    across: integer(),
    maxWeightG: integer().notNull(),
    maxVolumeCm3: integer().notNull(),
  },
  (t) => [uniqueIndex('cart_type_name').on(t.name)],
);

export const cart = pgTable(
  'cart',
  {
    siteId: text()
      .notNull()
      .references(() => site.id),
    code: text().notNull(),
    typeId: text()
      .notNull()
      .references(() => cartType.id),
    retired: boolean().notNull().default(false),
  },
  (t) => [primaryKey({ columns: [t.siteId, t.code] })],
);

export const run = pgTable(
  'run',
  {
    id: text().primaryKey(),
    siteId: text()
      .notNull()
      .references(() => site.id),
    waveId: text()
      .notNull()
      .references(() => wave.id),
    number: text().notNull(),
    callSign: text().notNull(),
    state: text().$type<'planned' | 'waiting' | 'picking' | 'left' | 'done' | 'cancelled'>().notNull(),
    positions: integer().notNull(),
    cartCode: text(),
    pickerId: text().references(() => person.id),
    metres: doublePrecision().notNull(),
    path: jsonb().$type<Point[]>().notNull(),
    stops: integer().notNull(),
    startedAt: timestamp({ withTimezone: true }),
    leftAt: timestamp({ withTimezone: true }),
    laneId: text().references(() => place.id),
    /** Whose it is to pick: a person, a team's queue, or whoever asks next. */
    assignedId: text().references(() => person.id),
    team: text().notNull().default(''),
    /** The higher the sooner it is offered. */
    priority: integer().notNull().default(0),
    /** Place among the wave's runs. */
    rank: doublePrecision().notNull().default(0),
    picking: text().$type<Picking>().notNull().default('sort'),
    area: text(),
    /** Metres that no walk past these bins can beat; whether this one does not exceed them. */
    lowerBound: doublePrecision().notNull().default(0),
    proven: boolean().notNull().default(false),
    /** Seconds it should take. */
    seconds: doublePrecision().notNull().default(0),
    /** Where runs chain, metres to its first stop from where its picker's last run ended. */
    approach: doublePrecision(),
  },
  (t) => [
    uniqueIndex('run_number').on(t.siteId, t.number),
    index('run_wave').on(t.waveId),
    index('run_found').using('gin', found(t.number), found(t.callSign)),
    index('run_state').on(t.siteId, t.state),
    index('run_started').on(t.siteId, t.startedAt),
    uniqueIndex('run_cart_once')
      .on(t.siteId, t.cartCode)
      .where(sql`${t.state} in ('picking', 'left')`),
  ],
);

export const runPosition = pgTable(
  'run_position',
  {
    runId: text()
      .notNull()
      .references(() => run.id),
    number: integer().notNull(),
    orderId: text()
      .notNull()
      .references(() => order.id),
    placeId: text()
      .notNull()
      .references(() => place.id),
    /** When whoever set up the cart said that it is in place. */
    readyAt: timestamp({ withTimezone: true }),
  },
  (t) => [
    primaryKey({ columns: [t.runId, t.number] }),
    index('run_position_order').on(t.orderId),
    uniqueIndex('run_position_place').on(t.placeId),
  ],
);

export const pick = pgTable(
  'pick',
  {
    id: text().primaryKey(),
    runId: text()
      .notNull()
      .references(() => run.id),
    sequence: integer().notNull(),
    // The line's own order: checking it again would cost a part of writing a plan.
    orderId: text().notNull(),
    lineId: text().notNull(),
    itemId: text().notNull(),
    lot: text().notNull(),
    binId: text()
      .notNull()
      .references(() => place.id),
    position: integer().notNull(),
    units: integer().notNull(),
    picked: integer().notNull().default(0),
    state: text().$type<'open' | 'done' | 'short' | 'out'>().notNull().default('open'),
    progress: jsonb().$type<PickProgress>().notNull(),
    /** Which rule chose the bin, and the metres that it saves where the walk did. */
    why: text().$type<BinReason>().notNull().default('code'),
    saves: real().notNull().default(0),
    /** Goods that are easily taken for these, as they lay when the run was taken. */
    lookAlike: jsonb().$type<RunPick['lookAlike']>(),
    /** The pick in whose bin these goods were not found. */
    restOf: text(),
    confirmedAt: timestamp({ withTimezone: true }),
    confirmedBy: text().references(() => person.id),
  },
  (t) => [
    foreignKey({
      name: 'pick_of_line',
      columns: [t.lineId, t.itemId],
      foreignColumns: [orderLine.id, orderLine.itemId],
    }),
    index('pick_run').on(t.runId, t.sequence),
    index('pick_line').on(t.lineId),
    index('pick_rest')
      .on(t.restOf)
      .where(sql`${t.restOf} is not null`),
    index('pick_open_bin')
      .on(t.binId, t.itemId, t.lot)
      .where(sql`${t.state} = 'open'`),
    // What was picked in some days, whatever it was for.
    index('pick_confirmed')
      .on(t.confirmedAt)
      .where(sql`${t.confirmedAt} is not null`),
    check('pick_within', sql`${t.picked} between 0 and ${t.units}`),
  ],
);

export const shipment = pgTable(
  'shipment',
  {
    id: text().primaryKey(),
    siteId: text()
      .notNull()
      .references(() => site.id),
    number: text().notNull(),
    orderId: text()
      .notNull()
      .references(() => order.id),
    serviceId: text().references(() => service.id),
    /** Somebody decided that it leaves with no carrier: collected, or in a vehicle of our own. */
    withoutCarrier: boolean().notNull().default(false),
    tracking: text(),
    trackingFrom: text().$type<'carrier' | 'person'>(),
    state: text().$type<'open' | 'confirmed'>().notNull(),
    /** Leaves as it was picked, off the cart: no bench packs it. */
    loose: boolean().notNull().default(false),
    confirmedAt: timestamp({ withTimezone: true }),
    confirmedBy: text().references(() => person.id),
    /** The load that it left on. */
    loadId: text().references(() => load.id),
  },
  (t) => [
    uniqueIndex('shipment_number').on(t.siteId, t.number),
    uniqueIndex('shipment_open_once')
      .on(t.orderId)
      .where(sql`${t.state} = 'open'`),
    index('shipment_state').on(t.siteId, t.state, t.confirmedAt),
    index('shipment_order').on(t.orderId),
    index('shipment_load')
      .on(t.loadId)
      .where(sql`${t.loadId} is not null`),
    index('shipment_tracking').on(t.siteId, t.tracking),
    index('shipment_found').using('gin', found(t.number), found(t.tracking)),
  ],
);

export const shipmentLine = pgTable(
  'shipment_line',
  {
    shipmentId: text()
      .notNull()
      .references(() => shipment.id),
    lineId: text()
      .notNull()
      .references(() => orderLine.id),
    units: integer().notNull(),
  },
  (t) => [primaryKey({ columns: [t.shipmentId, t.lineId] })],
);

/** A decision that a person owes: goods were picked for a line that asks less now. */
export const deskTask = pgTable(
  'desk_task',
  {
    id: text().primaryKey(),
    siteId: text().notNull(),
    lineId: text()
      .notNull()
      .references(() => orderLine.id),
    /** Base units beyond what is wanted. */
    units: integer().notNull(),
    at: timestamp({ withTimezone: true }).notNull(),
    decision: text().$type<'put-back' | 'ship-anyway' | 'void'>(),
    decidedAt: timestamp({ withTimezone: true }),
    decidedBy: text().references(() => person.id),
  },
  (t) => [
    check('desk_task_units', sql`${t.units} > 0`),
    index('desk_task_open')
      .on(t.siteId)
      .where(sql`${t.decision} is null`),
    uniqueIndex('desk_task_once')
      .on(t.lineId)
      .where(sql`${t.decision} is null`),
  ],
);
