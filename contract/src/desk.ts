import { deskPolicies } from '@hand-relay/core/deciding/allocation/policies';
import { demandKinds } from '@hand-relay/core/handling/shipping';
import { readinesses } from '@hand-relay/core/deciding/availability';
import { z } from 'zod';
import { id, instant, isoDate, units, whole } from './basics.ts';

/** One name or several, separated by bars. */
const several = (of: string) => z.string().max(600).describe(`${of}: one or several, separated by |`);
const oneOf = (names: readonly string[], of: string) => {
  const name = `(?:${names.join('|')})`;
  return several(of).regex(new RegExp(`^${name}(?:\\|${name})*$`), `of ${names.join(', ')}, separated by |`);
};
/** The names in one of these. */
export const namesIn = (text: string): string[] => text.split('|').filter(Boolean);

/** Codes of a short list of the house, with their names. */
export const ranked = z.array(z.object({ code: z.string(), name: z.string(), retired: z.boolean() }));
export type Ranked = z.infer<typeof ranked>;

/** Which open orders are looked at: all that is given must hold. */
export const deskView = z.object({
  from: isoDate.optional().describe('Due on this day or later'),
  until: isoDate.optional().describe('Due on this day or earlier'),
  class: several('Code of a customer class').optional(),
  channel: several('Code of a channel').optional(),
  kind: oneOf(demandKinds, 'Kind').optional(),
  priority: oneOf(['1', '2', '3', '4', '5', '6', '7', '8', '9'], 'Priority').optional(),
  departure: several('Name of a departure').optional(),
  carrier: several('Name of a carrier').optional(),
  service: several('Name of a service').optional(),
  lane: several('Code of a lane').optional(),
  reference: z.string().max(60).optional().describe('Part of the reference'),
  zone: several('Code of a zone in which an item of theirs is').optional(),
  item: z.string().max(40).optional().describe('Number of an item that is open on them'),
});
export type DeskView = z.infer<typeof deskView>;

const arrival = z.object({ date: isoDate, units });
const sums = z.object({ lines: z.int(), units, value: whole });

/** How far an order can go, as a row of values: ten thousand stay small. */
export const outlookRowFields = [
  'id',
  'readiness',
  'sureLines',
  'sureUnits',
  'sureValue',
  'couldLines',
  'couldUnits',
  'fullBy',
] as const;
export type OutlookRow = {
  id: string;
  readiness: (typeof readinesses)[number];
  sureLines: number;
  sureUnits: number;
  sureValue: number;
  couldLines: number;
  couldUnits: number;
  fullBy: string | null;
};

export const shortItem = z.object({
  id,
  sku: z.string(),
  name: z.string(),
  unit: z.string(),
  picture: z.string(),
  asked: units,
  free: whole,
  served: units,
  orders: z.int(),
  lines: z.int(),
  expected: z.array(arrival),
});
export type ShortItem = z.infer<typeof shortItem>;

export const outlookAnswer = z.object({
  at: instant.describe('When it was computed'),
  orders: z.array(z.array(z.union([z.string(), z.number(), z.null()]))),
  short: z.array(shortItem),
});
export type OutlookAnswer = z.infer<typeof outlookAnswer>;

export const reasonSchema = z.enum(['full', 'manual', 'whole-order', 'taken', 'shelf', 'none']);
const taker = z.object({ order: id, number: z.string(), class: z.string(), due: isoDate, units });

export const lineAvailability = z.object({
  line: id,
  asked: units,
  reserved: units,
  manual: units.nullable(),
  sure: units,
  could: units,
  gets: units.describe('When everybody is served by priority'),
  fullBy: isoDate.nullable(),
  reason: reasonSchema,
  takers: z.array(taker),
  tooOld: units,
});
export type LineAvailability = z.infer<typeof lineAvailability>;

export const orderAvailability = z.object({
  readiness: z.enum(readinesses),
  sure: sums,
  could: sums,
  fullBy: isoDate.nullable(),
  lines: z.array(lineAvailability),
});
export type OrderAvailability = z.infer<typeof orderAvailability>;

export const asker = z.object({
  order: id,
  number: z.string(),
  customer: z.string(),
  class: z.string(),
  due: isoDate,
  priority: z.int(),
  shipComplete: z.boolean(),
  line: id,
  lineNumber: z.int(),
  asked: units,
  reserved: units,
  manual: units.nullable(),
  until: isoDate.describe('Goods must keep to this day'),
  gets: units,
  othersFull: z.boolean().describe('Whether all other lines of the order are full then'),
});
export type Asker = z.infer<typeof asker>;

export const itemAvailability = z.object({
  id,
  sku: z.string(),
  name: z.string(),
  unit: z.string(),
  picture: z.string(),
  onHand: units,
  reserved: units,
  blocked: units,
  lots: z.array(z.object({ lot: z.string(), bestBefore: isoDate.nullable(), free: whole })),
  expected: z.array(z.object({ date: isoDate, units, source: z.string(), reference: z.string() })),
  askers: z.array(asker),
});
export type ItemAvailability = z.infer<typeof itemAvailability>;

/** An open line of an order, as a row of values: ten thousand stay small. */
export const deskLine = z.object({
  id,
  order: id,
  number: z.string(),
  line: z.int(),
  customer: z.string(),
  class: z.string(),
  due: isoDate,
  departure: z.string().nullable(),
  leavesAt: instant.nullable(),
  priority: z.int(),
  item: id,
  sku: z.string(),
  name: z.string(),
  open: units.describe('Not released yet'),
  reserved: units.describe('Reserved ahead of a release'),
  free: whole.describe('Units of the item that nobody has been promised'),
  held: z.string().describe('Why it must not be released; empty where it may'),
});
export type DeskLine = z.infer<typeof deskLine>;
export const deskLineFields = Object.keys(deskLine.shape) as (keyof DeskLine)[];
export const deskLines = z.object({
  rows: z.array(z.array(z.union([z.string(), z.number(), z.null()]))),
  more: z.boolean().describe('Orders that leave later have open lines too, which are not listed'),
});
const lineUnits = z
  .array(z.strictObject({ line: id, units }))
  .min(1)
  .max(2000);
export const reserveLinesBody = z.strictObject({
  lines: lineUnits.describe('Units of each that are to be reserved, with those that are already'),
});
export const linesReserved = z.object({
  lines: z.array(z.object({ line: id, before: units, after: units })),
});

/** Where an item lies, and for whom it is reserved. */
export const itemStock = z.object({
  bins: z.array(
    z.object({
      id,
      bin: z.string(),
      lot: z.string(),
      bestBefore: isoDate.nullable(),
      units,
      toPick: units.describe('Of open picks: will be taken from here'),
      blocked: z.string().nullable(),
    }),
  ),
  reserved: z.array(
    z.object({
      order: z.object({ id, number: z.string() }),
      customer: z.string(),
      line: z.int(),
      lot: z.string(),
      units,
      wave: z
        .object({ id, number: z.int(), state: z.string() })
        .nullable()
        .describe('null: reserved ahead of a release'),
    }),
  ),
});
export type ItemStock = z.infer<typeof itemStock>;

export const itemQuery = deskView.extend({ policy: z.enum(deskPolicies).default('priority') });

const tally = z.object({
  policy: z.enum(deskPolicies),
  orders: z.int(),
  lines: z.int(),
  units,
  value: whole,
  late: z.int(),
  byClass: z.record(z.string(), z.object({ orders: z.int(), complete: z.int() })),
  bound: z.int().optional(),
});
export const comparison = z.object({
  at: instant,
  orders: z.int(),
  tallies: z.array(tally),
  lines: z.array(z.object({ order: id, line: id, asked: units, units: z.array(units) })),
  sides: z.array(
    z.object({
      order: id,
      number: z.string(),
      customer: z.string(),
      class: z.string(),
      due: isoDate,
      complete: z.array(z.boolean()),
    }),
  ),
  going: z.array(z.array(id)).describe('Orders that get anything, by policy'),
});
export type PolicyComparison = z.infer<typeof comparison>;

export const allocateManuallyBody = z.strictObject({
  lines: z
    .array(z.strictObject({ line: id, units: units.nullable().describe('null lets the policy decide again') }))
    .min(1)
    .max(500),
});

export const keptView = z.object({
  id,
  list: z.enum(['orders', 'conditions']),
  name: z.string(),
  settings: z.record(z.string(), z.unknown()),
  shared: z.boolean().describe('Everybody at the site has it'),
  mine: z.boolean(),
});
export type SavedView = z.infer<typeof keptView>;
/** What has been put together for release: whole orders, and lines of them that get exactly so many units. */
export const tray = z.strictObject({
  orders: z.array(id).max(10_000),
  lines: z.record(id, units),
});
export type Tray = z.infer<typeof tray>;

export const saveViewBody = z.strictObject({
  list: z.enum(['orders', 'conditions']),
  name: z.string().trim().min(1).max(60),
  shared: z.boolean().default(false),
  settings: z.record(z.string().max(40), z.unknown()).refine((s) => JSON.stringify(s).length < 10_000, 'too much'),
});
export const savedViews = z.object({ views: z.array(keptView) });
