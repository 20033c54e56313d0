import { packingChoices } from '@hand-relay/core/handling/packing';
import { demandKinds } from '@hand-relay/core/handling/shipping';
import { z } from 'zod';
import { cartsThere, id, instant, isoDate, lotsOfLine, units, whole } from './basics.ts';

/** A word that orders are marked with. */
const tag = z
  .string()
  .trim()
  .min(1)
  .max(24)
  .regex(/^[^,;|]*$/, 'no comma, semicolon or bar');
const link = z
  .string()
  .trim()
  .max(400)
  .refine((text) => text === '' || /^https?:\/\/\S+$/i.test(text), 'an address that begins with http');

export const orderLineDraft = z.strictObject({
  line: z.int().min(1).max(9999),
  sku: z.string().trim().min(1).max(40),
  quantity: z.int().min(1).max(9_999_999),
  pack: z.enum(['unit', 'inner', 'outer']).default('unit'),
  note: z.string().max(500).default(''),
});

export const orderDraftFields = {
  number: z.string().trim().min(1).max(30),
  kind: z.enum(demandKinds).default('order'),
  toSite: z.string().trim().max(20).default('').describe('Code of the site that a transfer goes to'),
  channel: z.string().trim().min(1).max(20),
  customer: z.string().trim().min(1).max(40),
  reference: z.string().trim().max(60).default(''),
  due: isoDate,
  priority: z.int().min(1).max(9).default(5),
  shipComplete: z.boolean().default(false),
  shipTo: z.strictObject({
    name: z.string().trim().min(1).max(120),
    street: z.string().trim().max(120),
    postcode: z.string().trim().max(20),
    city: z.string().trim().max(80),
    country: z.string().regex(/^[A-Z]{2}$/, 'two capital letters (ISO 3166-1)'),
  }),
  note: z.string().trim().max(500).default(''),
  link: link.default('').describe('Address of the document in the system that keeps it'),
  tags: z.array(tag).max(12).default([]),
  lines: z.array(orderLineDraft).min(1).max(500),
};
export const uniqueLines = <T extends z.ZodType<{ lines: { line: number }[] }>>(draft: T): T =>
  draft.refine((o) => new Set(o.lines.map((l) => l.line)).size === o.lines.length, {
    path: ['lines'],
    message: 'each line number once',
  });
export const orderDraft = uniqueLines(z.strictObject(orderDraftFields));

/** One order of the list, as a row of values in the order of `orderRowFields`, so that ten thousand stay small. */
export const orderRow = z.object({
  id,
  number: z.string(),
  channel: z.string(),
  customer: z.string(),
  customerClass: z.string(),
  due: isoDate,
  departure: z.string().nullable(),
  leavesAt: instant.nullable().describe('The instant of the departure on the due day'),
  priority: z.int(),
  lines: z.int(),
  coveredLines: z.int().describe('Lines whose open units could all be promised now'),
  asked: units,
  released: units,
  picked: units,
  packed: units,
  shipped: units,
  status: z.enum(['open', 'closed', 'cancelled']),
  tags: z.string().describe('Separated by commas'),
  kind: z.enum(demandKinds),
  reference: z.string(),
  city: z.string(),
  carrier: z.string().nullable(),
  reserved: units.describe('Reserved before a release'),
  value: whole.describe('Of all that is asked, in minor units'),
  service: z.string().nullable(),
  lane: z.string().nullable().describe('Its own, or that of its departure'),
  waves: z.string().describe('Numbers of the waves that an open order is in, separated by commas'),
  pickers: z.string().describe('Who has runs with picks of an open order, separated by commas'),
  classRank: z.int().describe('Rank of the customer class, 1 first'),
  runs: z.string().describe('Numbers of the runs with picks of an open order, separated by commas'),
});
export type OrderRow = z.infer<typeof orderRow>;
export const orderRowFields = Object.keys(orderRow.shape) as (keyof OrderRow)[];

export const orderPage = z.object({
  rows: z.array(z.array(z.union([z.string(), z.number(), z.null()]))),
  next: z.string().nullable().describe('Where the next page begins; null at the end'),
  total: z.int(),
});
export const orderPageQuery = z.object({
  after: z.string().max(80).optional(),
  limit: z.coerce.number().int().min(1).max(2500).default(2500),
  ids: z.string().max(20_000).optional().describe('Only these, separated by commas'),
  status: z.enum(['open', 'closed', 'cancelled', 'all']).default('open'),
});

/** A row of values as the list's page carries it, as an order. */
export function orderFromRow(values: (string | number | null)[]): OrderRow {
  return Object.fromEntries(orderRowFields.map((field, i) => [field, values[i]])) as unknown as OrderRow;
}

export const orderLine = z.object({
  id,
  line: z.int(),
  item: id,
  sku: z.string(),
  name: z.string(),
  unit: z.string(),
  picture: z.string(),
  quantity: z.int(),
  pack: z.string(),
  asked: units,
  cancelled: units,
  released: units,
  reserved: units,
  reservedAhead: units.describe('Reserved before a release'),
  waits: units.describe('Released, and begun by no picker: can be withdrawn from its wave'),
  picked: units,
  packed: units,
  shipped: units,
  free: whole.describe('Units of the item that can still be promised to this order'),
  note: z.string(),
  lots: lotsOfLine.describe('Of what was picked for it'),
});

export const orderDetail = z.object({
  id,
  number: z.string(),
  kind: z.enum(demandKinds),
  toSite: z.string(),
  channel: z.string(),
  reference: z.string(),
  status: z.enum(['open', 'closed', 'cancelled']),
  due: isoDate,
  departure: z.string().nullable(),
  leavesAt: instant.nullable(),
  lane: z.string().nullable(),
  carts: cartsThere,
  carrier: z.string().nullable(),
  priority: z.int(),
  shipComplete: z.boolean(),
  packing: z.enum(packingChoices),
  note: z.string(),
  document: z.string(),
  link: z.string(),
  tags: z.array(z.string()),
  splitOf: z.object({ id, number: z.string() }).nullable(),
  parts: z
    .array(z.object({ id, number: z.string(), due: isoDate, status: z.string(), units }))
    .describe('Orders that were split off'),
  load: z.object({ id, number: z.int() }).nullable(),
  customer: z.object({ number: z.string(), name: z.string(), class: z.string(), minShelfDays: z.int() }),
  shipTo: z.object({
    name: z.string(),
    street: z.string(),
    postcode: z.string(),
    city: z.string(),
    country: z.string(),
  }),
  lines: z.array(orderLine),
  charges: z
    .array(
      z.object({
        line: z.int(),
        sku: z.string(),
        name: z.string(),
        unit: z.string(),
        quantity: z.int(),
        note: z.string(),
      }),
    )
    .describe('Services and charges: never picked'),
  waves: z.array(z.object({ id, number: z.int(), state: z.string() })),
  runs: z.array(z.object({ id, number: z.string(), state: z.string(), picker: z.string().nullable() })),
  cartons: z.array(
    z.object({
      id,
      number: z.int(),
      sscc: z.string().nullable(),
      type: z.string(),
      state: z.string(),
      weightG: whole.nullable(),
    }),
  ),
  shipments: z.array(z.object({ id, number: z.string(), state: z.string(), tracking: z.string().nullable() })),
});
export type OrderDetail = z.infer<typeof orderDetail>;

export const cancelRestBody = z
  .strictObject({
    reason: z.string().trim().min(3).max(200),
    lines: z.array(id).max(500).default([]).describe('Only these lines; all without any'),
    units: units.min(1).nullable().default(null).describe('So many of the one line; null for all that is open'),
  })
  .refine((b) => b.units === null || b.lines.length === 1, { path: ['units'], message: 'of one line only' });
const lineUnits = z.strictObject({ line: id, units: units.min(1) });
export const restoreBody = z.strictObject({ lines: z.array(lineUnits).min(1).max(500) });
export const splitBody = z.strictObject({
  lines: z.array(lineUnits).min(1).max(500).describe('What waits'),
  due: isoDate.describe('The day of what waits'),
});
export const unreleaseBody = z
  .strictObject({
    lines: z
      .array(z.strictObject({ line: id, units: units.min(1).nullable().default(null) }))
      .max(20_000)
      .default([])
      .describe('Without units, all that no picker has begun'),
    orders: z.array(id).max(5000).default([]).describe('All lines of these'),
    wave: id.nullable().default(null).describe('Only out of this wave'),
  })
  .refine((b) => b.lines.length + b.orders.length > 0, { path: ['lines'], message: 'lines or orders' });
export const tagBody = z.strictObject({
  orders: z.array(id).min(1).max(5000),
  add: z.array(tag).max(12).default([]),
  remove: z.array(tag).max(12).default([]),
});
export const tagged = z.object({ changed: z.int(), orders: z.array(id).describe('Those that it changed') });
/** Cancellations as a channel or host sends them: by the order's number, also while work is under way. */
export const cancellationsBody = z.strictObject({
  document: z.string().max(200).default('api'),
  orders: z
    .array(z.strictObject({ number: z.string().trim().min(1).max(30), reason: z.string().trim().max(200).default('') }))
    .min(1)
    .max(5000),
});
export const cancellations = z.object({
  orders: z.array(
    z.object({
      number: z.string(),
      outcome: z.enum(['cancelled', 'closed', 'unknown']).describe('Closed before, or not known here'),
      surplus: z.int().describe('Units picked already: a person decides what becomes of them'),
    }),
  ),
});
export type Cancellations = z.infer<typeof cancellations>;

export const trailEntry = z.object({
  id: z.int(),
  at: instant,
  person: z.string().nullable(),
  device: z.string(),
  kind: z.string(),
  facts: z.record(z.string(), z.unknown()),
});
export type TrailEntry = z.infer<typeof trailEntry>;
export const trail = z.object({ entries: z.array(trailEntry) });

/** What is promised to an order that is not released, line by line. */
export const reserved = z.object({ lines: z.array(z.object({ line: z.int(), asked: z.int(), reserved: z.int() })) });

/** What a person must decide, as an order changed upstream after goods were picked. */
export const deskTask = z.object({
  id,
  order: id,
  number: z.string(),
  customer: z.string(),
  line: z.int(),
  sku: z.string(),
  name: z.string(),
  unit: z.string(),
  units: units.describe('Picked beyond what is wanted now'),
  where: z.string().describe('Where goods lie loose: cart and place'),
  cartons: z.array(z.int()).describe('Numbers of the cartons of the order in which goods of the line are'),
  at: instant,
});
export type DeskTask = z.infer<typeof deskTask>;
export const deskTasks = z.object({ tasks: z.array(deskTask) });
export const settleBody = z.strictObject({ decision: z.enum(['put-back', 'ship-anyway']) });

export const cancelOrderBody = z.strictObject({ reason: z.string().trim().min(3).max(200) });
