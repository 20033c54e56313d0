import { z } from 'zod';
import { pickings } from '@hand-relay/core/walking/choices';
import { id, instant, units, whole } from './basics.ts';

export const releaseBody = z.strictObject({
  orders: z.array(id).min(1).max(5000),
  lines: z
    .array(z.strictObject({ line: id, units }))
    .max(20_000)
    .default([])
    .describe('Lines that get exactly so many units; the others of their orders are served by priority'),
  wave: id.nullable().default(null).describe('A gathering wave to join; null makes a new one'),
  start: z.boolean().default(false).describe('Plan and start the wave at once, by who may run waves'),
});
export type ReleaseBody = z.input<typeof releaseBody>;

const shortLine = z.object({
  order: z.string(),
  line: z.int(),
  sku: z.string(),
  name: z.string(),
  asked: units,
  gets: units,
});

export const releaseSums = z.object({
  orders: z.int(),
  ordersComplete: z.int(),
  lines: z.int(),
  units,
  weightG: whole,
  volumeCm3: z.number(),
  shorts: z.array(shortLine),
  nothing: z.array(z.string()).describe('Orders that get nothing and stay open'),
});
export type ReleaseSums = z.infer<typeof releaseSums>;

export const releasePreview = releaseSums.extend({
  held: z.array(z.object({ order: z.string(), why: z.string() })).describe('Orders on hold: they stay'),
  runs: z.int(),
  split: z
    .array(z.object({ order: z.string(), runs: z.int(), over: z.boolean() }))
    .describe('Orders that no cart takes whole, and over how many runs; `over`: one unit is beyond the cart by itself'),
  metres: z.number(),
  cartons: z.int().describe('Roughly, by volume and weight'),
  seconds: z.number().describe('Work of picking and packing, roughly'),
  people: z.int().describe('Signed in who may pick'),
  departures: z.array(
    z.object({
      name: z.string().nullable(),
      leavesAt: instant.nullable(),
      orders: z.int(),
      units,
      seconds: z.number(),
      ends: instant.nullable().describe('When its work would be done, by those who are here'),
      chance: z.enum(['made', 'tight', 'missed', 'gone']).nullable(),
    }),
  ),
});
export type ReleasePreview = z.infer<typeof releasePreview>;

export const waveStates = ['gathering', 'planned', 'started', 'done', 'cancelled'] as const;

export const waveSummary = z.object({
  id,
  number: z.int(),
  state: z.enum(waveStates),
  createdAt: instant,
  createdBy: z.string(),
  orders: z.int(),
  lines: z.int(),
  units,
  picked: units,
  packed: units,
  shipped: units,
  runs: z.int(),
  metres: z.number(),
  earliestDeparture: instant.nullable(),
  doneBy: instant
    .nullable()
    .describe('By when its last run must end, so that packing, staging and loading are in time'),
  chance: z
    .enum(['made', 'tight', 'missed'])
    .nullable()
    .describe('Whether its first departure is made, as things stand'),
  entry: z.string().nullable().describe('Entry of the timetable that it gathers for'),
  picking: z.enum(pickings),
  cart: z.string().nullable().describe('Type of cart; null is the largest'),
  team: z.string(),
  people: z.int().nullable(),
  planProgress: z.number().nullable().describe('How far its plan is, from 0 to 1, while it is made'),
  foreseen: z
    .object({ seconds: z.number(), metres: z.number(), people: z.int(), ends: instant, early: instant, late: instant })
    .nullable()
    .describe('What its plan foresaw'),
  forecast: z
    .object({ left: z.number(), ends: instant.nullable(), early: instant.nullable(), late: instant.nullable() })
    .nullable()
    .describe('Seconds of work left, and when it will be done as things stand'),
});
export type WaveSummary = z.infer<typeof waveSummary>;

export const runStates = ['planned', 'waiting', 'picking', 'left', 'done', 'cancelled'] as const;

export const runSummary = z.object({
  id,
  number: z.string(),
  callSign: z.string(),
  state: z.enum(runStates),
  picker: z.string().nullable(),
  pickerId: id.nullable(),
  cart: z.string().nullable(),
  positions: z.int(),
  orders: z.int(),
  orderList: z.array(z.object({ number: z.string(), customer: z.string() })).describe('Of which orders it is'),
  stops: z.int(),
  picks: z.int(),
  picksDone: z.int(),
  units,
  unitsPicked: units,
  metres: z.number(),
  lane: z.string().nullable(),
  wave: z.int(),
  leavesAt: instant.nullable(),
  assigned: z.string().nullable().describe('Whose it is, while nobody picks it'),
  assignedId: id.nullable(),
  team: z.string(),
  priority: z.int(),
  picking: z.enum(pickings),
  area: z.string().nullable(),
  lowerBound: z.number().describe('Metres that no walk past its bins can beat'),
  proven: z.boolean(),
  seconds: z.number().describe('What it should take'),
  approach: z
    .number()
    .nullable()
    .describe("Where runs chain, metres to its first stop from where its picker's last run ended"),
  secondsLeft: z.number(),
});
export type RunSummary = z.infer<typeof runSummary>;

export const waveDetail = z.object({
  wave: waveSummary,
  runs: z.array(runSummary),
  orders: z.array(
    z.object({
      id,
      number: z.string(),
      customer: z.string(),
      units,
      picked: units,
      trips: z.int().describe('Runs it is split over because no cart takes it whole; 1 where one does'),
    }),
  ),
});
export type WaveDetail = z.infer<typeof waveDetail>;
export const releaseResult = z.object({
  wave: id,
  number: z.int(),
  preview: releaseSums,
  given: z.array(z.object({ line: id, units })).describe('What each line got, by which it can be taken back'),
});
/** What is left to do for a departure. Units are of all its orders; cancelled ones are not asked for. */
export const trackDeparture = z.object({
  id,
  name: z.string(),
  carrier: z.string().nullable(),
  leavesAt: instant,
  orders: z.int(),
  asked: units,
  released: units,
  picked: units,
  packed: units,
  shipped: units,
  waiting: z
    .object({ orders: z.int(), lines: z.int(), units, seconds: z.number() })
    .describe('What is not released yet, with what picking it should take one person'),
  packing: z.number().describe('Seconds that packing what is left should take one person'),
  loading: z.number().describe('Seconds of staging and loading that are left'),
  waves: z.array(z.object({ id, number: z.int(), state: z.enum(waveStates) })),
  loads: z.array(z.object({ id, number: z.int() })),
});
export type TrackDeparture = z.infer<typeof trackDeparture>;
export const track = z.object({
  departures: z.array(trackDeparture),
  earlier: z.object({ orders: z.int(), units }).describe('Still open of departures before these'),
  pickers: z.int(),
  packers: z.int(),
});

export const waveList = z.object({ waves: z.array(waveSummary) });
export const waveOnly = z.object({ wave: waveSummary });
