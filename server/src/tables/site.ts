import { sql } from 'drizzle-orm';
import {
  bigint,
  boolean,
  doublePrecision,
  index,
  integer,
  jsonb,
  pgTable,
  primaryKey,
  text,
  uniqueIndex,
} from 'drizzle-orm/pg-core';
import type { Floor, Place } from '@hand-relay/core/walking/floor';
import { found } from './found.ts';

export const site = pgTable('site', {
  id: text().primaryKey(),
  code: text().notNull(),
  name: text().notNull(),
  street: text().notNull(),
  city: text().notNull(),
  /** Two letters (ISO 3166); empty until somebody says. */
  country: text().notNull().default(''),
  timeZone: text().notNull(),
  currency: text().notNull(),
  gs1Prefix: text().notNull(),
  ssccExtension: integer().notNull().default(0),
  floor: jsonb().$type<Floor>().notNull(),
  /** Where runs begin and end. */
  start: jsonb().$type<Place>().notNull(),
  /** Where runs end, where that is elsewhere. */
  finish: jsonb().$type<Place>(),
  /** How this site works, where it differs from the defaults of the contract. */
  settings: jsonb().$type<Record<string, unknown>>().notNull().default({}),
});

/** The one row of what concerns the whole house. */
export const house = pgTable('house', {
  id: integer().primaryKey().default(1),
  /** What the first run must name, so that nobody else claims a new server; null once it is claimed. */
  setupToken: text(),
  /** When a backup was restored last, and the last change that it holds: devices look after what they did since. */
  restored: jsonb().$type<{ at: string; of: string | null }>(),
});

/** Running numbers of a site: waves, runs, shipments, SSCC serials. */
export const counter = pgTable(
  'counter',
  {
    siteId: text()
      .notNull()
      .references(() => site.id),
    name: text().notNull(),
    last: bigint({ mode: 'number' }).notNull().default(0),
  },
  (t) => [primaryKey({ columns: [t.siteId, t.name] })],
);

export const zone = pgTable(
  'zone',
  {
    id: text().primaryKey(),
    siteId: text()
      .notNull()
      .references(() => site.id),
    code: text().notNull(),
    name: text().notNull(),
    temperature: text().$type<'ambient' | 'chilled'>().notNull(),
    locked: boolean().notNull().default(false),
    /** Zones of one area are picked together where a wave is picked by zones; alone where empty. */
    area: text().notNull().default(''),
    retired: boolean().notNull().default(false),
  },
  (t) => [uniqueIndex('zone_code').on(t.siteId, t.code)],
);

export const placeKinds = ['bin', 'position', 'carton', 'lane', 'bench', 'door', 'discrepancy', 'outside'] as const;

export const blocks = ['damaged', 'blocked', 'count', 'access'] as const;

/**
 * Everywhere that goods can be. `discrepancy` holds what the books say and nobody finds; it and `outside` do not count
 * as stock on hand.
 */
export const place = pgTable(
  'place',
  {
    id: text().primaryKey(),
    siteId: text()
      .notNull()
      .references(() => site.id),
    kind: text().$type<(typeof placeKinds)[number]>().notNull(),
    code: text().notNull(),
    name: text().notNull().default(''),
    zoneId: text().references(() => zone.id),
    aisle: text(),
    /** Metres along the aisle. */
    y: doublePrecision(),
    /** Metres across, of places that lie in no aisle: lanes, benches, doors. */
    x: doublePrecision(),
    /** Where the scale of a bench answers: the address of an interface, or `stand-in`; empty where there is none. */
    scale: text().notNull().default(''),
    /** What a bench is for: orders of a carrier, goods of a zone, carts with a unit of so many litres. */
    forCarrier: text(),
    forZone: text(),
    fromLitres: integer(),
    /** Carts that fit into a lane. */
    fits: integer(),
    bay: integer(),
    side: text(),
    level: integer(),
    /** Number in the order of walking, for sites that want it. */
    sequence: integer(),
    /** The item that lives here: a bin's home item. */
    homeItemId: text(),
    /** Why what lies here can neither be promised nor picked; null where it can. */
    blocked: text().$type<(typeof blocks)[number]>(),
    retired: boolean().notNull().default(false),
  },
  (t) => [
    uniqueIndex('place_code').on(t.siteId, t.kind, t.code),
    index('place_kind').on(t.siteId, t.kind),
    index('place_typed').on(t.siteId, t.kind, sql`upper(${t.code})`),
    index('place_found')
      .using('gin', found(t.code))
      .where(sql`${t.kind} in ('bin', 'lane', 'bench', 'door')`),
    // What lies there is not available: few places of the many that carts and cartons leave behind.
    index('place_blocked')
      .on(t.siteId)
      .where(sql`${t.blocked} is not null`),
  ],
);
