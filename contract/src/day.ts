import { dayActs, openPlaces } from '@hand-relay/core/deciding/dayEnd';
import { z } from 'zod';
import { id, instant, isoDate, units, whole } from './basics.ts';
import { runStates, waveStates } from './waves.ts';

export const dayQuery = z.object({ date: isoDate.optional().describe('Day of the site; today without it') });

/** An order that should have left by the day, and what of it has not. */
export const dayOpen = z.object({
  id,
  number: z.string(),
  customer: z.string(),
  due: isoDate,
  departure: z.string().nullable(),
  leavesAt: instant.nullable(),
  at: z.enum(openPlaces).describe('Where the earliest open units wait'),
  waits: z.object({ release: units, pick: units, pack: units, ship: units }),
  can: z.array(z.enum(dayActs)),
  hold: z.string().nullable(),
  short: units.describe('Reported missing, and not decided yet'),
  waves: z.array(z.object({ id, number: z.int(), state: z.enum(waveStates) })),
  runs: z.array(
    z.object({
      id,
      number: z.string(),
      state: z.enum(runStates),
      picker: z.string().nullable(),
      cart: z.string().nullable(),
    }),
  ),
  shipment: z.object({ id, number: z.string() }).nullable(),
});
export type DayOpen = z.infer<typeof dayOpen>;

export const dayReport = z.object({
  departures: z.array(
    z.object({
      name: z.string().describe('Empty for orders without a departure'),
      leavesAt: instant.nullable(),
      orders: z.int(),
      full: z.int().describe('Left with all that was asked'),
      partial: z.int().describe('Left with a part of it'),
      open: z.int().describe('Nothing of it left'),
      late: z.int().describe('Of those that left: after the departure'),
    }),
  ),
  shorts: z.array(
    z.object({
      bin: z.string(),
      sku: z.string(),
      item: z.string(),
      kind: z.string(),
      reason: z.string(),
      times: z.int(),
      units,
    }),
  ),
  people: z.array(
    z.object({
      person: z.string(),
      picks: z.int(),
      units,
      seconds: z.number().describe('From pick to pick'),
      expected: z.number().describe('Seconds by the standards'),
      refused: z.int().describe('Wrong scans that were refused, at any leg'),
      packed: units,
      shipments: z.int().describe('Confirmed'),
    }),
  ),
  waves: z.array(
    z.object({
      id,
      number: z.int(),
      state: z.enum(waveStates),
      orders: z.int(),
      foreseen: instant.nullable().describe('When its plan foresaw the last pick'),
      ended: instant.nullable().describe('Its last pick, where all are done'),
    }),
  ),
  shipments: z.int(),
  cartons: z.int(),
  weightG: whole,
});
export type DayReport = z.infer<typeof dayReport>;

export const dayAnswer = z.object({
  date: isoDate,
  open: z.array(dayOpen),
  left: z
    .object({
      exceptions: z.int(),
      counts: z.int(),
      surplus: z.int(),
      putAways: z.int(),
      carts: z.int().describe('Left with goods, or in somebody’s hands'),
      absent: z
        .array(z.object({ id, number: z.string(), picker: z.string(), done: z.int(), picks: z.int() }))
        .describe('Runs in the hands of people who are not signed in'),
    })
    .describe('What else is not settled now'),
  report: dayReport,
});
export type DayAnswer = z.infer<typeof dayAnswer>;
