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

export const loadSummary = z.object({
  id,
  number: z.int(),
  state: z.enum(['planned', 'dissolved']),
  vehicle: z.string(),
  departure: z.string().nullable(),
  leavesAt: instant.nullable(),
  door: z.string().nullable(),
  note: z.string(),
  orders: z.int(),
  units,
  released: units.describe('Of the units, what is released'),
  waves: z.array(id).describe('Waves planned or started that pick for it'),
  fill: loadFill,
});
export type LoadSummary = z.infer<typeof loadSummary>;
export const loadList = z.object({ loads: z.array(loadSummary), vehicles: z.array(vehicle) });

export const loadShare = z.object({
  id,
  number: z.string(),
  customer: z.string(),
  city: z.string(),
  due: isoDate,
  departure: z.string().nullable(),
  leavesAt: instant.nullable(),
  units: units.describe('Asked and not shipped'),
  released: units,
  weightG: whole,
  volumeCm3: z.number(),
  pallets: z.number().describe('Of the site, in parts of one'),
  fits: z.boolean().describe('Whether it goes in beside what is there'),
});
export type LoadShare = z.infer<typeof loadShare>;
export const loadDetail = loadSummary.extend({ shares: z.array(loadShare) });
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
