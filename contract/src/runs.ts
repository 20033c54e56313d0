import { z } from 'zod';
import { shortReasons } from '@hand-relay/core/handling/picking';
import { checks, stagings, touchReasons } from '@hand-relay/core/deciding/settings';
import { floorLayout } from './arrange.ts';
import { id, instant, units } from './basics.ts';
import { runSummary } from './waves.ts';
import { pickSettings, touching } from './siteSettings.ts';

/** What is open of a run is confirmed at once: as planned, except these picks. */
export const confirmRunBody = z.strictObject({
  picker: id.nullable().default(null).describe('Who picked it; null for whoever has it, or for whom it waits'),
  cart: z
    .string()
    .trim()
    .min(1)
    .max(40)
    .nullable()
    .default(null)
    .describe('Where nobody has begun; null for any that is free'),
  lane: z.string().trim().min(1).max(40).describe('Where the cart is left'),
  except: z
    .array(
      z.strictObject({
        pick: id,
        units: units.describe('In hand; fewer than planned need a reason'),
        reason: z.enum(shortReasons).nullable().default(null),
        note: z.string().trim().max(200).default(''),
        lot: z.string().max(40).nullable().default(null).describe('Another lot of the same bin'),
        serials: z.array(z.string().max(40)).max(500).default([]),
      }),
    )
    .max(2000)
    .default([])
    .refine((list) => new Set(list.map((e) => e.pick)).size === list.length, 'each pick once'),
});

export const myRuns = z.object({
  mine: z.array(runSummary),
  waiting: z.array(runSummary),
  ownTrips: z.boolean().describe('Whether one may gather a trip of their own'),
});
export type MyRuns = z.infer<typeof myRuns>;

const pack = z.object({ gtin: z.string(), level: z.enum(['unit', 'inner', 'outer']), units: z.int() });
export const stepItem = z.object({
  id,
  sku: z.string(),
  name: z.string(),
  packs: z.array(pack),
  tracksLot: z.boolean(),
  tracksSerial: z.boolean(),
});

export const pickProgress = z.object({
  bin: z.boolean(),
  lot: z.boolean(),
  counted: units,
  seen: z.boolean(),
  touched: z.array(z.enum(checks)).describe('Checks that were confirmed by touch in place of a scan'),
  serials: z.array(z.string()),
  found: units.nullable(),
  reason: z.enum(shortReasons).nullable(),
  swapped: z.string().nullable(),
  rest: z.object({ bin: z.string(), lot: z.string().nullable() }).nullable(),
  note: z.string(),
  sscc: z.string().nullable(),
  box: z.string().nullable(),
  further: z.boolean(),
  full: z.boolean(),
  moved: z.boolean().describe('All of it is taken from another bin, which was scanned'),
});

/** A pick as the device holds it: the step of core, and what the card shows beside. */
export const runPick = z.object({
  step: z.object({
    id,
    bin: z.string(),
    item: stepItem,
    lot: z.string().nullable(),
    serialsInBin: z.array(z.string()),
    units,
    position: z.object({ cart: z.string(), number: z.int() }),
    carton: z
      .object({
        sscc: z.string().nullable(),
        box: z.string(),
        boxes: z.array(z.string()),
        others: z.array(z.string()),
        prefix: z.string(),
      })
      .nullable(),
    how: pickSettings,
    touch: touching.optional(),
    countedBy: z.int().positive().optional(),
    otherBins: z.boolean().optional(),
    otherLots: z.array(z.string()),
    elsewhere: z.array(
      z.object({
        bin: z.string(),
        lot: z.string().nullable(),
        units,
        serials: z.array(z.string()),
        at: z.object({ aisle: z.string(), y: z.number() }),
      }),
    ),
    bestBefore: z.string().nullable(),
    stopped: z.object({ by: z.enum(['hold', 'blocked']), why: z.string() }).nullable(),
  }),
  progress: pickProgress,
  state: z.enum(['open', 'done', 'short', 'out']),
  picked: units,
  order: z.object({
    id,
    number: z.string(),
    note: z.string(),
    hold: z.string().nullable().describe('Why it must not be picked now'),
  }),
  lineNote: z.string(),
  askedIn: z.enum(['unit', 'inner', 'outer']).describe('What the order counts in'),
  unit: z.string(),
  picture: z.string(),
  zone: z.string(),
  cold: z.boolean(),
  bestBefore: z.string().nullable(),
  why: z.string().describe('The rule that chose the bin'),
  saves: z.number().describe('Metres that the bin saves, where the walk decided'),
  remains: units.describe('Units that should be left in the bin after this pick'),
  at: z.object({ aisle: z.string(), y: z.number() }),
  confirmedAt: instant.nullable().describe('When it was done'),
  lookAlike: z
    .object({
      sku: z.string(),
      name: z.string(),
      bin: z.string().describe('Where it lies beside; empty where elsewhere'),
      this: z.string(),
      other: z.string(),
    })
    .nullable()
    .describe('Goods that are easily taken for these, and what tells them apart'),
  together: z.boolean().describe('Picked for several orders at once, sorted at the bench'),
});
export type RunPick = z.infer<typeof runPick>;

export const runDetail = z.object({
  run: runSummary,
  startedAt: instant.nullable(),
  leftAt: instant.nullable(),
  cartFront: z
    .object({ places: z.int(), across: z.int().nullable() })
    .describe('The places of its cart, and how many are side by side where the site says so'),
  positions: z.array(
    z.object({
      number: z.int(),
      id,
      order: z.string(),
      customer: z.string(),
      lines: z.int().describe('What of it is picked in this run'),
      units,
      shipment: id.nullable().describe('What it leaves with, once that is begun'),
    }),
  ),
  picks: z.array(runPick),
  cartons: z
    .array(
      z.object({
        id,
        sscc: z.string(),
        number: z.int(),
        order: z.string(),
        position: z.int(),
        box: z.string(),
        units,
        state: z.enum(['open', 'closed', 'shipped']),
      }),
    )
    .describe('Cartons on the cart into which goods go straight'),
  setUp: z
    .object({
      cart: z.string(),
      size: z.int(),
      places: z.array(z.object({ order: id, number: z.string(), place: z.int(), ready: z.boolean() })),
    })
    .nullable()
    .describe('Places on the cart, where the site wants it set up before the first stop'),
  path: z.array(z.tuple([z.number(), z.number()])),
  lanes: z.array(
    z.object({
      code: z.string(),
      name: z.string(),
      at: z.object({ x: z.number(), y: z.number() }).nullable().default(null).describe('Metres, where it is placed'),
      carts: z.int().default(0).describe('Carts left in it now'),
      fits: z.int().nullable().default(null).describe('Carts that fit, where the site says so'),
      bench: z.boolean().default(false),
    }),
  ),
  people: z.array(z.object({ id, name: z.string() })).describe('Who else picks here now'),
  /** What follows when the cart is left. */
  stages: z.enum(stagings),
  proposedLane: z.string().nullable(),
});
export type RunDetail = z.infer<typeof runDetail>;

/** Other runs of a run's wave that are not done. */
export const runsBeside = z.object({
  beside: z.array(
    z.object({
      run: z.string(),
      picker: z.string().nullable(),
      done: z.int(),
      picks: z.int(),
      orders: z.array(z.string()).describe('Orders of this run of which it picks a part'),
      lane: z.string().nullable(),
    }),
  ),
});
export type RunsBeside = z.infer<typeof runsBeside>;

export const takeBody = z.strictObject({
  cart: z
    .string()
    .trim()
    .min(1)
    .max(20)
    .nullable()
    .default(null)
    .describe('Left out where the site asks for none: the smallest free cart that takes the run is its'),
});

export const pickInput = z.discriminatedUnion('kind', [
  z.strictObject({ kind: z.literal('scan'), text: z.string().min(1).max(200) }),
  z.strictObject({
    kind: z.literal('touch'),
    what: z.enum(['bin', 'lot', 'position', 'carton', 'further']),
    why: z.enum(touchReasons).optional(),
  }),
  z.strictObject({
    kind: z.literal('count'),
    units: z.int().min(0).max(9_999_999),
    why: z.enum(touchReasons).optional(),
  }),
  z.strictObject({
    kind: z.literal('short'),
    units: z.int().min(0).max(9_999_999),
    reason: z.enum(shortReasons),
    note: z.string().trim().max(300).optional(),
    rest: z.strictObject({ bin: z.string().max(40), lot: z.string().max(40).nullable() }).optional(),
  }),
]);
/** What a device could not send: the goods are in somebody's hands. */
export const lostBody = z.strictObject({
  run: z.string().max(20),
  bin: z.string().max(40),
  item: z.string().max(200),
  units: z.int().min(0),
  code: z.string().max(60).describe('Why the server did not take it'),
});
export const refusedBody = z.strictObject({
  of: id.nullable().describe('The pick, or the goods that go back, in whose place it was scanned'),
  code: z.string().max(60).describe('Why it was refused'),
  facts: z.record(z.string().max(40), z.string().max(200)).describe('What was scanned, what was expected'),
});
export const inputBody = z.strictObject({ pick: id, input: pickInput });
/** Header of what is sent late: milliseconds since it was done, by the device's own clock, whatever that says. */
export const DONE_AGO = 'done-ago';

/** What a refused code is, where its form does not say it. */
export const gotKinds = ['bin', 'lane', 'bench', 'door', 'cart', 'position', 'badge', 'order', 'box', 'gs1'] as const;
export type GotKind = (typeof gotKinds)[number];

export const pickVerdict = z.object({
  verdict: z.enum(['accepted', 'done', 'refused']),
  what: z.string().optional(),
  code: z.string().optional(),
  expected: z.string().optional(),
  got: z.string().optional(),
  gotKind: z.enum(gotKinds).optional().describe('What a refused code is that has no form of its own'),
  gotName: z.string().optional().describe('Name of the item that was scanned, where the house knows it'),
  units: z.int().optional(),
  progress: pickProgress,
  runComplete: z.boolean(),
});
export type PickVerdictAnswer = z.infer<typeof pickVerdict>;

export const leaveBody = z.strictObject({ lane: z.string().trim().min(1).max(20) });
export const undoPickBody = z.strictObject({
  begun: id.optional().describe('An open pick: what is counted of it is undone in place of the last confirmation'),
});
export const undoResult = z.object({ pick: id.nullable() });
export const transferRunBody = z.strictObject({
  person: id.nullable().describe('Whoever goes on with it; null for whoever takes its cart next'),
});
export const forBenchBody = z.strictObject({ order: id, note: z.string().trim().max(300) });
export const setUpBody = z.strictObject({
  text: z.string().trim().min(1).max(200).nullable().describe('What was scanned; null where all stand as planned'),
  chosen: id.nullable().default(null).describe('The order that was scanned before'),
});
export const closeOnCartBody = z.strictObject({ carton: id });
export const putInBody = z.strictObject({ orders: z.array(id).min(1).max(100) });
export const takeOutBody = z.strictObject({
  order: id,
  problem: z
    .strictObject({
      pick: id,
      reason: z.enum(shortReasons),
      units: units.default(0).describe('Good ones that were found'),
      note: z.string().trim().max(200).default(''),
    })
    .optional()
    .describe('What was wrong at the bin, where that is why'),
});
export const walkFromBody = z.strictObject({ pick: id, last: id.optional().describe('Put off to the end of the run') });

export const floorPlan = z.object({
  aisles: floorLayout.shape.aisles,
  crossAisles: z.array(z.number()),
  blocked: floorLayout.shape.blocked,
  finish: floorLayout.shape.finish,
  bins: z.array(
    z.object({
      bin: z.string(),
      aisle: z.string(),
      y: z.number(),
      side: z.string(),
      zone: z.string(),
      open: units.optional(),
    }),
  ),
  start: z.object({ aisle: z.string(), y: z.number() }),
  zones: z.array(z.object({ code: z.string(), name: z.string(), cold: z.boolean() })),
  places: z
    .array(z.object({ code: z.string(), kind: z.enum(['lane', 'bench', 'door']), x: z.number(), y: z.number() }))
    .describe('Lanes, benches and doors that are placed on the plan, in metres'),
});
export type FloorPlan = z.infer<typeof floorPlan>;
