import { loadLimits } from '@hand-relay/core/deciding/loads';
import { z } from 'zod';
import { id, instant, isoDate, units, whole } from './basics.ts';

const amounts = { weightG: whole, volumeCm3: z.number(), places: z.int() };
export const loadFill = z.object({
  ...amounts,
  most: z.object(amounts).describe('What the vehicle takes'),
  over: z.array(z.object({ what: z.enum(loadLimits), by: z.number() })).describe('What is too much'),
});
export type LoadFill = z.infer<typeof loadFill>;

export const vehicle = z.object({
  name: z.string(),
  lengthMm: whole,
  widthMm: whole,
  heightMm: whole,
  floorPlaces: z.int(),
  maxLoadG: whole,
});

export const loadStates = ['planned', 'left', 'dissolved'] as const;

export const loadSummary = z.object({
  id,
  number: z.int(),
  state: z.enum(loadStates),
  vehicle: z.string(),
  departure: z.string().nullable(),
  leavesAt: instant.nullable(),
  door: z.string().nullable(),
  note: z.string(),
  orders: z.int().describe('Orders that have something to go with it, or went with it'),
  stops: z.int(),
  units: units.describe('What it takes in all, with what was confirmed already'),
  released: units.describe('Of the units, what is released'),
  picked: units,
  packed: units,
  shipped: units.describe('Of the units, what was confirmed as left'),
  waves: z.array(id).describe('Waves planned or started that pick for it'),
  fill: loadFill,
  endedAt: instant.nullable().describe('When it left or was cancelled'),
  endedBy: z.string().nullable().describe('Who ended it; null where it ended by itself'),
});
export type LoadSummary = z.infer<typeof loadSummary>;
export const loadList = z.object({ loads: z.array(loadSummary), vehicles: z.array(vehicle) });
export const loadQuery = z.strictObject({
  state: z.enum(['planned', 'left']).default('planned').describe('`left`: the newest 200 that left'),
});

export const loadShare = z.object({
  id,
  number: z.string(),
  customer: z.string(),
  street: z.string(),
  postcode: z.string(),
  city: z.string(),
  country: z.string(),
  due: isoDate,
  departure: z.string().nullable(),
  leavesAt: instant.nullable(),
  units: units.describe('Asked and not shipped'),
  released: units,
  picked: units,
  packed: units,
  weightG: whole,
  volumeCm3: z.number(),
  pallets: z.number().describe('Of the site, in parts of one'),
  fits: z.boolean().describe('Whether it goes in beside what is there'),
  stop: z.int().nullable().describe('In the order of deliveries; null while it is in no load'),
  early: z.int().describe('Days that the load leaves before the day the order is due; negative: after it'),
});
export type LoadShare = z.infer<typeof loadShare>;

export const loadLeft = z.object({
  shipment: id,
  number: z.string(),
  order: id,
  orderNumber: z.string(),
  customer: z.string(),
  city: z.string(),
  units,
  cartons: z.int(),
  weightG: z.number().describe('Of its cartons as weighed; of its items where it left without'),
  confirmedAt: instant,
  tracking: z.string().nullable(),
});
export type LoadLeft = z.infer<typeof loadLeft>;

export const loadDetail = loadSummary.extend({
  shares: z.array(loadShare).describe('Orders that have something to go with it, in the order of its stops'),
  left: z.array(loadLeft).describe('Shipments that were confirmed on it'),
});
export type LoadDetail = z.infer<typeof loadDetail>;
export const loadCandidates = z.object({ shares: z.array(loadShare) });

export const planLoadBody = z.strictObject({
  vehicle: z.string().max(60),
  departure: z.string().max(60).nullable().default(null),
  day: isoDate.nullable().default(null).describe('Day of the departure; without it, its next'),
  door: z.string().max(20).nullable().default(null),
  note: z.string().trim().max(200).default(''),
  orders: z.array(id).max(500).default([]),
});
export const changeLoadBody = planLoadBody.omit({ orders: true });
export const fillLoadBody = z.strictObject({
  add: z.array(id).max(500).default([]),
  remove: z.array(id).max(500).default([]),
  whatFits: z.boolean().default(false).describe('Takes of `add` only what fits, in that order, and leaves the rest'),
});
export const orderStopsBody = z.strictObject({
  stops: z
    .array(z.int().positive())
    .max(500)
    .describe('The present numbers of all stops in the order in which they are delivered from now on'),
});
