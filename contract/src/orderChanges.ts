import { stages } from '@hand-relay/core/deciding/holds';
import { packingChoices } from '@hand-relay/core/handling/packing';
import { z } from 'zod';
import { id, instant, isoDate, units } from './basics.ts';
import { orderDraft, orderDraftFields, uniqueLines } from './orders.ts';

const departure = z
  .string()
  .trim()
  .min(1)
  .max(60)
  .nullable()
  .describe('Name of a departure of the site; null for none');

const place = z.string().trim().min(1).max(20).nullable().describe('Code; null leaves it to the departure');

/** What is changed of orders; what is not named stays. */
export const orderChange = z.strictObject({
  due: isoDate.optional(),
  departure: departure.optional(),
  lane: place.optional(),
  door: place.optional(),
  priority: z.int().min(1).max(9).optional(),
  shipComplete: z.boolean().optional(),
  packing: z
    .enum(packingChoices)
    .optional()
    .describe('Whether it is packed, where not as its customer or channel has it'),
  reference: z.string().trim().max(60).optional(),
  note: z.string().trim().max(500).optional(),
  shipTo: orderDraftFields.shipTo.optional(),
});
export type OrderChange = z.infer<typeof orderChange>;

const changeGroup = z.strictObject({
  orders: z.array(id).min(1).max(10_000),
  set: orderChange.refine((set) => Object.keys(set).length > 0, 'nothing to change'),
  was: orderChange.optional().describe('Only orders of which all this is so still: others were changed since'),
});
export const changeOrdersBody = z
  .strictObject({ mode: z.enum(['preview', 'change']), changes: z.array(changeGroup).min(1).max(10_000) })
  .refine((b) => b.changes.reduce((n, c) => n + c.orders.length, 0) <= 10_000, {
    path: ['changes'],
    message: 'at most 10,000 orders',
  });
export const ordersChanged = z.object({
  changed: z.int(),
  same: z.int().describe('It was so already'),
  closed: z.int().describe('Closed or cancelled: not changed'),
  since: z.int().describe('Changed by somebody else since: not changed'),
  underWay: z.int().describe('Of those changed: released, work goes on'),
  labelled: z.int().describe('Of those changed: cartons have labels with the old address or carrier'),
  tracked: z.int().describe('Of those changed: the shipment has a label of its carrier already, and keeps it'),
  inLoad: z.int().describe('Of those changed: in a load, and stay in it'),
  past: z.int().describe('Of those changed: the departure has left'),
  undo: z.array(changeGroup).describe('What takes it back, sent as `changes`; empty in a preview'),
});
export type OrdersChanged = z.infer<typeof ordersChanged>;

const many = z.array(id).min(1).max(10_000);
const reason = z.string().trim().min(3).max(200);

export const holdOrdersBody = z.strictObject({
  orders: many,
  reason,
  stops: z.array(z.enum(stages)).min(1).max(stages.length),
});
export const ordersHeld = z.object({ held: z.int(), closed: z.int(), holds: z.array(id) });
export const liftHoldsBody = z
  .strictObject({ orders: z.array(id).max(10_000).default([]), holds: z.array(id).max(50_000).default([]), reason })
  .refine((b) => b.orders.length + b.holds.length > 0, { path: ['orders'], message: 'orders or holds' });
export const holdsLifted = z.object({
  lifted: z.int().describe('Orders of which a hold was lifted'),
  mayNot: z.int().describe('Orders with a hold that other roles lift'),
  holds: z.array(id),
});
export const restoreHoldsBody = z.strictObject({ holds: z.array(id).min(1).max(50_000) });

export const cancelOrdersBody = z.strictObject({ orders: many, reason });
const cancelledLine = z.strictObject({ line: id, units: units.min(1) });
export const ordersCancelled = z.object({
  cancelled: z.int(),
  nothing: z.int().describe('Closed, or all of it is released'),
  units,
  lines: z.array(cancelledLine),
});
export type OrdersCancelled = z.infer<typeof ordersCancelled>;
export const restoreOrdersBody = z.strictObject({ lines: z.array(cancelledLine).min(1).max(100_000) });

/** An order as a person writes it; one without a number gets the next of the site. */
export const enteredDraft = uniqueLines(
  z.strictObject({ ...orderDraftFields, number: z.string().trim().max(30).default('') }),
);
export const enterOrderBody = z.strictObject({
  mode: z.enum(['preview', 'take']),
  id: id.nullable().describe('The order that is changed; null for a new one'),
  version: z.int().nullable().describe('As it was read; null for a new one'),
  departure: departure.optional().describe('Left out, that of the channel'),
  draft: enteredDraft,
});
export const difference = z.object({ field: z.string(), before: z.string(), after: z.string() });
export const orderEntered = z.object({
  id: id.nullable().describe('null in the preview of a new order'),
  number: z.string(),
  version: z.int().nullable().describe('As it is then; null in the preview of a new order'),
  outcome: z.enum(['new', 'same', 'changed', 'adapts']),
  differences: z.array(difference),
});
export type OrderEntered = z.infer<typeof orderEntered>;
const find = z.object({ find: z.string().trim().max(80).default('') });
export const choiceQuery = find;
export const customerChoice = z.object({
  number: z.string(),
  name: z.string(),
  class: z.string(),
  street: z.string(),
  postcode: z.string(),
  city: z.string(),
  country: z.string(),
});
export type CustomerChoice = z.infer<typeof customerChoice>;
export const itemChoice = z.object({
  id,
  sku: z.string(),
  name: z.string(),
  unit: z.string(),
  picture: z.string(),
  service: z.boolean(),
  packs: z.record(z.string(), z.int()).describe('Units in a pack, by level'),
  free: z.int().nullable().describe('Units free to promise; null for a service'),
});
export type ItemChoice = z.infer<typeof itemChoice>;

export const draftOfOrder = z.object({
  draft: orderDraft,
  departure,
  version: z.int(),
  open: z.boolean(),
  takenAt: instant,
  items: z.array(itemChoice).describe('Of its lines'),
});
export type DraftOfOrder = z.infer<typeof draftOfOrder>;
