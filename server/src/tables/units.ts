import type { Accounting, PackagingReason } from '@hand-relay/core/handling/packaging';
import type { StackedUnit } from '@hand-relay/core/stacking/palletising';
import { sql } from 'drizzle-orm';
import {
  bigint,
  boolean,
  check,
  date,
  index,
  integer,
  jsonb,
  pgTable,
  primaryKey,
  text,
  timestamp,
  uniqueIndex,
  type AnyPgColumn,
} from 'drizzle-orm/pg-core';
import { found } from './found.ts';
import { item } from './items.ts';
import { customer, order, orderLine } from './orders.ts';
import { person } from './people.ts';
import { place, site } from './site.ts';
import { run, shipment } from './work.ts';

/** How a pallet is to be built: its units in building order, and pallets that were planned together with it. */
export interface PalletPlan {
  units: StackedUnit[];
  pallets: number;
  /** Pallets that nothing can do without. */
  bound: number;
}

export const cartonType = pgTable(
  'carton_type',
  {
    id: text().primaryKey(),
    code: text().notNull(),
    name: text().notNull(),
    innerMm: integer().array().notNull(),
    tareG: integer().notNull(),
    maxWeightG: integer().notNull(),
    costMinor: bigint({ mode: 'number' }).notNull(),
    retired: boolean().notNull().default(false),
  },
  (t) => [uniqueIndex('carton_type_code').on(t.code)],
);

export const palletType = pgTable(
  'pallet_type',
  {
    id: text().primaryKey(),
    name: text().notNull(),
    lengthMm: integer().notNull(),
    widthMm: integer().notNull(),
    heightMm: integer().notNull(),
    tareG: integer().notNull(),
    maxHeightMm: integer().notNull(),
    maxLoadG: integer().notNull(),
    retired: boolean().notNull().default(false),
  },
  (t) => [uniqueIndex('pallet_type_name').on(t.name)],
);

/** A site's own rule for an item: so many units in a carton, and on a pallet; for a customer or country the most exact holds. */
export const packRule = pgTable(
  'pack_rule',
  {
    id: bigint({ mode: 'number' }).primaryKey().generatedAlwaysAsIdentity(),
    siteId: text()
      .notNull()
      .references(() => site.id),
    itemId: text()
      .notNull()
      .references(() => item.id),
    customerId: text().references(() => customer.id),
    /** ISO 3166-1; empty for every country. */
    country: text().notNull(),
    /** Any carton that takes so many where it is null. */
    typeId: text().references(() => cartonType.id),
    perCarton: integer().notNull(),
    perPallet: integer(),
    retired: boolean().notNull().default(false),
  },
  (t) => [
    uniqueIndex('pack_rule_once').on(t.siteId, t.itemId, sql`coalesce(${t.customerId}, '')`, t.country),
    check('pack_rule_counts', sql`${t.perCarton} > 0 and ${t.perPallet} >= ${t.perCarton}`),
  ],
);

/** A pallet or a crate with cartons on it, or with pallets and crates: a logistic unit once it is closed. */
export const pallet = pgTable(
  'pallet',
  {
    id: text().primaryKey(),
    siteId: text()
      .notNull()
      .references(() => site.id),
    number: text().notNull(),
    typeId: text()
      .notNull()
      .references(() => palletType.id),
    sscc: text(),
    state: text().$type<'open' | 'closed' | 'shipped'>().notNull(),
    /** What it stands on in its turn. */
    outerId: text().references((): AnyPgColumn => pallet.id),
    weightG: bigint({ mode: 'number' }),
    /** Where each unit of its plan lies, in building order, and how many pallets were planned with it. */
    plan: jsonb().$type<PalletPlan>().notNull(),
    station: text().notNull(),
    openedAt: timestamp({ withTimezone: true }).notNull(),
    closedAt: timestamp({ withTimezone: true }),
    closedBy: text().references(() => person.id),
  },
  (t) => [
    uniqueIndex('pallet_number').on(t.siteId, t.number),
    uniqueIndex('pallet_sscc').on(t.sscc),
    index('pallet_state').on(t.siteId, t.state),
    index('pallet_outer')
      .on(t.outerId)
      .where(sql`${t.outerId} is not null`),
  ],
);

/** A carton is a logistic unit: it gets its SSCC when it closes, in the aisle when it is begun. Its goods are the balance of its place. */
export const carton = pgTable(
  'carton',
  {
    id: text().primaryKey(),
    siteId: text()
      .notNull()
      .references(() => site.id),
    orderId: text()
      .notNull()
      .references(() => order.id),
    shipmentId: text()
      .notNull()
      .references(() => shipment.id),
    typeId: text()
      .notNull()
      .references(() => cartonType.id),
    placeId: text()
      .notNull()
      .references(() => place.id),
    /** The pallet or crate that it stands on. */
    palletId: text().references(() => pallet.id),
    /** The run on whose cart it stands, where goods go straight into it. */
    runId: text().references(() => run.id),
    number: integer().notNull(),
    sscc: text(),
    state: text().$type<'open' | 'closed' | 'shipped'>().notNull(),
    weightG: bigint({ mode: 'number' }),
    /** What the scale showed since anything was last changed in it. */
    measuredG: bigint({ mode: 'number' }),
    bench: text().notNull(),
    /** The lane in which it stands, where somebody confirmed that by a scan. */
    laneId: text().references(() => place.id),
    closedAt: timestamp({ withTimezone: true }),
    closedBy: text().references(() => person.id),
  },
  (t) => [
    uniqueIndex('carton_sscc').on(t.sscc),
    index('carton_found').using('gin', found(t.sscc)),
    index('carton_order').on(t.orderId),
    index('carton_closed').on(t.siteId, t.closedAt),
    index('carton_shipment').on(t.shipmentId),
    index('carton_run').on(t.runId),
    index('carton_pallet')
      .on(t.palletId)
      .where(sql`${t.palletId} is not null`),
    uniqueIndex('carton_open_once')
      .on(t.orderId, t.runId)
      .where(sql`${t.state} = 'open'`),
  ],
);

/** Which line's goods lie in a carton: lines of one item are told apart here. */
export const cartonLine = pgTable(
  'carton_line',
  {
    cartonId: text()
      .notNull()
      .references(() => carton.id),
    lineId: text()
      .notNull()
      .references(() => orderLine.id),
    lot: text().notNull(),
    serial: text().notNull(),
    units: integer().notNull(),
  },
  (t) => [
    primaryKey({ columns: [t.cartonId, t.lineId, t.lot, t.serial] }),
    check('carton_line_units', sql`${t.units} >= 0`),
    index('carton_line_line').on(t.lineId),
  ],
);

/** Numbers on labels that name nothing any more: their carton was opened again. */
export const voidLabel = pgTable('void_label', {
  sscc: text().primaryKey(),
  siteId: text()
    .notNull()
    .references(() => site.id),
  /** The order of the carton that it was on; null where it was on a pallet. */
  orderId: text().references(() => order.id),
  /** What it named: the number of the carton on its order, or of the pallet. */
  name: text().notNull(),
  at: timestamp({ withTimezone: true }).notNull(),
});

/** How a site accounts for a type of carton, pallet or crate, and what it has of it. */
export const packaging = pgTable(
  'packaging',
  {
    siteId: text()
      .notNull()
      .references(() => site.id),
    /** A carton type or a pallet type. */
    typeId: text().notNull(),
    accounting: text().$type<Accounting>().notNull(),
    onHand: integer().notNull().default(0),
    onOrder: integer().notNull().default(0),
    reorderPoint: integer(),
    /** Units that are ordered at once. */
    lot: integer().notNull().default(1),
    /** Units used, and days, after which somebody looks; of what is expense. */
    lookAfterUsed: integer(),
    lookAfterDays: integer(),
    lookedAt: timestamp({ withTimezone: true }),
    /** It is a line of its own on what the host is told, and is invoiced there. */
    ownLine: boolean().notNull().default(false),
    /** Packing went on when none was left: what there is, is to be counted. */
    countWanted: boolean().notNull().default(false),
  },
  (t) => [
    primaryKey({ columns: [t.siteId, t.typeId] }),
    check('packaging_on_hand', sql`${t.onHand} >= 0`),
    check('packaging_on_order', sql`${t.onOrder} >= 0`),
  ],
);

/** Closed units of types that are posted by the day: the day each was closed on, until a posting or a count has taken it. */
export const packagingDue = pgTable(
  'packaging_due',
  {
    /** A carton or a pallet. */
    unitId: text().primaryKey(),
    siteId: text()
      .notNull()
      .references(() => site.id),
    typeId: text().notNull(),
    day: date({ mode: 'string' }).notNull(),
    postedAt: timestamp({ withTimezone: true }),
  },
  (t) => [
    index('packaging_due_open')
      .on(t.siteId, t.typeId, t.day)
      .where(sql`${t.postedAt} is null`),
  ],
);

/** What came and went of packaging. */
export const packagingMovement = pgTable(
  'packaging_movement',
  {
    id: bigint({ mode: 'number' }).primaryKey().generatedAlwaysAsIdentity(),
    siteId: text()
      .notNull()
      .references(() => site.id),
    typeId: text().notNull(),
    at: timestamp({ withTimezone: true }).notNull(),
    personId: text()
      .notNull()
      .references(() => person.id),
    reason: text().$type<PackagingReason>().notNull(),
    /** More than there was where positive. */
    units: integer().notNull(),
    /** Of them were not there by the books: packing went on. */
    missing: integer().notNull().default(0),
    /** The day, or the shipment, that it was for: each is booked once. */
    document: text().notNull().default(''),
  },
  (t) => [
    index('packaging_movement_type').on(t.siteId, t.typeId, t.at),
    uniqueIndex('packaging_movement_shipped')
      .on(t.siteId, t.typeId, t.document)
      .where(sql`${t.reason} = 'shipped'`),
  ],
);
