import { z } from 'zod';
import { pickings } from '@hand-relay/core/walking/choices';
import { id, instant, units } from './basics.ts';

/** How a wave is picked and by whom; what is left out stays. */
export const waveWayBody = z.strictObject({
  picking: z.enum(pickings).optional(),
  cart: id.nullable().optional().describe("A type of cart; null is the site's largest"),
  team: z.string().trim().max(40).optional(),
  people: z.int().min(1).max(500).nullable().optional(),
});

export const mergeBody = z.strictObject({ waves: z.array(id).min(1).max(50) });
/** Orders of a wave that gathers, or runs of a planned one, that become a wave of their own. */
export const splitWaveBody = z.strictObject({
  orders: z.array(id).max(5000).default([]),
  runs: z.array(id).max(500).default([]),
});
export const placeWaveBody = z.strictObject({
  before: id.nullable().describe('The wave that comes next; null for the last place'),
});
export const waveMade = z.object({ wave: id, number: z.int() });

const planSums = z.object({
  runs: z.int(),
  stops: z.int(),
  metres: z.number(),
  seconds: z.number(),
  ends: instant,
  early: instant,
  late: instant,
});
export type PlanSums = z.infer<typeof planSums>;

/** What a new plan of the runs that nobody has begun would change. */
export const replanPreview = z.object({
  before: planSums,
  after: planSums,
  bins: z.int().describe('Picks that would be taken from other bins'),
  orders: z.int().describe('Orders that would come to others in a run'),
  shorts: z.array(z.object({ order: z.string(), sku: z.string(), units })).describe('What no bin would cover'),
});
export type ReplanPreview = z.infer<typeof replanPreview>;

/** Runs that nobody has begun: whose they are. What is left out stays. */
export const assignBody = z.strictObject({
  runs: z.array(id).min(1).max(500),
  person: id.nullable().optional(),
  team: z.string().trim().max(40).optional(),
  priority: z.int().min(-9).max(9).optional(),
});
export const moveOrdersBody = z.strictObject({
  orders: z.array(id).min(1).max(200),
  run: id.nullable().describe('A run of the same wave that nobody has begun; null makes a new one'),
});
export const addOrdersBody = z.strictObject({ orders: z.array(id).min(1).max(200) });

/** Orders that a picker may gather a trip from. */
export const waiting = z.object({
  orders: z.array(
    z.object({
      id,
      number: z.string(),
      customer: z.string(),
      priority: z.int(),
      leavesAt: instant.nullable(),
      lines: z.int(),
      units,
      run: z.string().nullable().describe('The run that it would leave'),
    }),
  ),
  positions: z.int().describe("Positions of the site's largest cart"),
});
export type Waiting = z.infer<typeof waiting>;
export const tripMade = z.object({ run: id, number: z.string() });

export const crew = z.object({
  people: z.array(
    z.object({
      id,
      name: z.string(),
      team: z.string(),
      here: z.boolean().describe('Signed in now'),
      shift: z
        .object({ from: z.string(), until: z.string(), on: z.boolean(), team: z.string() })
        .nullable()
        .describe('The shift that is on, or the next one today, in local time'),
      run: id.nullable().describe('The run being picked'),
      lastScan: instant.nullable(),
      offlineSince: instant
        .nullable()
        .describe('When their device was last heard, where that is minutes ago and they have a run in hand'),
      at: z.object({ aisle: z.string(), y: z.number() }).nullable(),
      number: z.string().nullable().describe('Number of the run in hand'),
      picks: z.int(),
      picksDone: z.int(),
      queued: z.int().describe('Runs that wait for this person alone'),
      ends: instant.nullable().describe('When what this person has should be done, at the pace of the day'),
    }),
  ),
  runs: z
    .array(
      z.object({
        id,
        number: z.string(),
        callSign: z.string(),
        wave: id,
        waveNumber: z.int(),
        state: z.enum(['planned', 'waiting', 'picking']),
        pickerId: id.nullable(),
        assignedId: id.nullable().describe('Whose it is, while nobody picks it'),
        team: z.string(),
        priority: z.int(),
        orders: z.int(),
        picks: z.int(),
        picksDone: z.int(),
        leavesAt: instant.nullable().describe('Earliest departure of its orders'),
        secondsLeft: z.number().describe('By standard; times `pace` is what it should take'),
      }),
    )
    .describe('Runs that are not done, in the order in which they are picked'),
  pace: z.number().describe('What the newest runs took beside what they should have'),
  teams: z.array(z.string()),
  queues: z
    .array(z.object({ team: z.string(), waiting: z.int(), picking: z.int() }))
    .describe('Runs by team; the nameless one is that of everybody'),
  bench: z.object({
    waiting: z.int().describe('Carts that were left and are not emptied'),
    free: z.int().describe('Benches at which nobody packs'),
    all: z.int(),
  }),
  dock: z.object({ ready: z.int() }).describe('Orders with goods that are ready to leave'),
  carts: z.array(
    z.object({
      id,
      name: z.string(),
      positions: z.int(),
      free: z.int().describe('Carts of this type that nobody has'),
    }),
  ),
});
export type Crew = z.infer<typeof crew>;
/** A run as the track and the board of a wave draw it. */
export type CrewRun = Crew['runs'][number];

const blocked = z.union([
  z.strictObject({ aisle: z.string().max(40), from: z.number(), to: z.number() }),
  z.strictObject({ crossAisle: z.number(), from: z.number(), to: z.number() }),
]);
/** A site's layout as data: what is on the floor plan, without the bins. */
export const floorLayout = z.strictObject({
  aisles: z
    .array(
      z.strictObject({
        id: z.string().trim().min(1).max(40),
        x: z.number(),
        oneWay: z.enum(['up', 'down']).optional(),
        from: z.number().optional(),
        to: z.number().optional(),
      }),
    )
    .max(500),
  crossAisles: z.array(z.number()).min(2).max(40),
  blocked: z.array(blocked).max(500).default([]),
  start: z.strictObject({ aisle: z.string(), y: z.number() }),
  finish: z.strictObject({ aisle: z.string(), y: z.number() }).nullable().default(null),
});
export type FloorLayout = z.infer<typeof floorLayout>;
/** A layout that takes the place of the one there is; with `was`, only where nobody changed it since. */
export const layoutBody = floorLayout.extend({ was: floorLayout.optional() });
export const layoutChanged = z.object({
  before: floorLayout.describe('The layout that it replaced, to go back to'),
  waves: z.int().describe('Waves with runs that nobody has begun and that were planned on the floor as it was'),
});
export const zoneBinsBody = z.strictObject({
  bins: z.array(z.string().max(20)).min(1).max(5000),
  zone: z.string().max(20),
});

/** An entry of the timetable, and what it would gather now. */
export const timetableEntry = z.object({
  id,
  name: z.string(),
  departure: z.string().nullable(),
  leavesAt: instant.nullable(),
  orders: z.int(),
  lines: z.int(),
  units,
  gather: z.enum(['hand', 'time', 'level']),
  gatherAt: z.string().nullable(),
  gatherLevel: z.int().nullable(),
  plan: z.enum(['hand', 'gathered', 'time']),
  planAt: z.string().nullable(),
  start: z.enum(['hand', 'planned', 'time']),
  startAt: z.string().nullable(),
});
export type TimetableEntry = z.infer<typeof timetableEntry>;
