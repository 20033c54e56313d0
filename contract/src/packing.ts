import { z } from 'zod';
import { id, instant, units, whole } from './basics.ts';
import { weighings } from '@hand-relay/core/deciding/settings';
import { weightReasons } from '@hand-relay/core/handling/packing';
import { stepItem } from './runs.ts';

const benches = z.array(z.object({ code: z.string(), name: z.string() }));

export const benchQueue = z.object({
  benches,
  runs: z.array(
    z.object({
      id,
      number: z.string(),
      callSign: z.string(),
      cart: z.string().nullable().describe('null where the goods were confirmed without one'),
      lane: z.string().nullable().describe('The lane or bench where it was left'),
      atBench: z.boolean().describe('It was left at a bench, for that one'),
      urgent: z.boolean(),
      picker: z.string().nullable(),
      leavesAt: instant.nullable(),
      notes: z.array(z.string()).describe('What its picker wrote for whoever packs'),
      orders: z.array(
        z.object({ id, number: z.string(), position: z.int(), customer: z.string(), units, packed: units }),
      ),
    }),
  ),
});
export type BenchQueue = z.infer<typeof benchQueue>;

const openCarton = z.object({
  id,
  typeCode: z.string(),
  number: z.int(),
  sscc: z.string().nullable(),
  weight: z
    .object({ expectedG: whole, toleranceG: whole, measuredG: whole.nullable() })
    .describe('What it should weigh with what is in it, and what the scale showed'),
  contents: z.array(z.object({ item: id, name: z.string(), group: z.string().nullable(), units })),
});
const packItem = stepItem.extend({ group: z.string().nullable() });

export const benchOrder = z.object({
  id,
  number: z.string(),
  customer: z.string(),
  note: z.string(),
  forBench: z.string().describe('What the picker wrote'),
  wishes: z.string().describe('What the customer wishes, of every order'),
  shipTo: z.object({
    name: z.string(),
    street: z.string(),
    postcode: z.string(),
    city: z.string(),
    country: z.string(),
  }),
  leavesAt: instant.nullable(),
  lane: z.string().nullable(),
  where: z.array(
    z.object({
      run: z.string(),
      callSign: z.string(),
      cart: z.string(),
      position: z.int(),
      state: z.string(),
      front: z
        .object({ places: z.int(), across: z.int().nullable() })
        .describe('Places of the cart, and how many are side by side'),
    }),
  ),
  lines: z.array(
    z.object({
      line: z.int(),
      sku: z.string(),
      name: z.string(),
      unit: z.string(),
      picture: z.string(),
      note: z.string(),
      released: units,
      picked: units,
      packed: units,
      shipped: units,
    }),
  ),
  bench: z.object({
    loose: z.array(z.object({ item: packItem, lot: z.string().nullable(), serial: z.string().nullable(), units })),
    carton: openCarton.nullable().describe('The one that was opened last'),
    others: z.array(openCarton).describe('Those that are open beside it'),
    weighing: z.enum(weighings),
    boxes: z.array(z.object({ code: z.string(), name: z.string() })),
    toLane: z
      .object({ lane: z.string(), cartons: z.array(z.object({ id, number: z.int() })) })
      .nullable()
      .describe('Closed cartons to bring to their lane, where the site confirms it by a scan of the lane'),
    lanes: z.array(z.string()),
  }),
  surplus: z
    .array(z.object({ item: id, name: z.string(), units }))
    .describe('Picked goods that are not wanted any more and about which the Desk has not decided'),
  benches,
  cartons: z.array(
    z.object({
      id,
      number: z.int(),
      type: z.string(),
      sscc: z.string().nullable(),
      state: z.enum(['open', 'closed', 'shipped']),
      pallet: z.string().nullable().describe('The number of the pallet that it stands on'),
      inLane: z.string().nullable().describe('Where it stands, once somebody scanned the lane there'),
      weightG: whole,
      contents: z.array(
        z.object({ item: id, sku: z.string(), name: z.string(), lot: z.string(), serial: z.string(), units }),
      ),
    }),
  ),
  shipment: id.nullable(),
});
export type BenchOrder = z.infer<typeof benchOrder>;

const side = z.number();
const sides = z.tuple([side, side, side]);
const carton = z.object({
  code: z.string(),
  name: z.string(),
  inner: sides.describe('Inner sides in millimetres, the third vertical'),
  weightG: whole.describe('With the carton itself'),
  volumetricG: whole.describe('Its volume by 5,000 cm³ a kilogram'),
  fill: z.number().describe('Share of its volume that is filled'),
  rule: z
    .object({ item: id, units: z.int(), perCarton: z.int() })
    .nullable()
    .describe('What is in it by a pack rule; it has no places where the sizes allow no such packing'),
  places: z
    .array(z.object({ item: id, at: sides, size: sides }))
    .describe('A unit each, in the order in which they are put in'),
});

/** Which cartons an order's goods are put into, and where each unit lies. */
export const packPlan = z.object({
  cartons: z.array(carton).describe('The open carton first'),
  costMinor: whole,
  boundMinor: whole.describe('What no packing costs less than'),
  otherwise: z.boolean().describe('What is in the open carton was packed otherwise than can be foreseen'),
  choices: z
    .array(z.object({ code: z.string(), cartons: z.int(), costMinor: whole, weightG: whole, volumetricG: whole }))
    .describe('What all takes with each carton as the next one; none while one is open'),
  unfit: z
    .array(z.object({ item: id, name: z.string() }))
    .describe('Goods that are too large or too heavy for every carton'),
});
export type PackPlan = z.infer<typeof packPlan>;

export const packBody = z.strictObject({
  bench: z.string().trim().min(1).max(20),
  input: z.discriminatedUnion('kind', [
    z.strictObject({
      kind: z.literal('scan'),
      text: z.string().min(1).max(200),
      times: z
        .int()
        .min(0)
        .max(9999)
        .nullable()
        .optional()
        .describe('The number scanned before it from the sheet of quantities; null for all'),
    }),
    z.strictObject({
      kind: z.literal('put'),
      item: id,
      lot: z.string().nullable(),
      units: z.int().min(1).max(9_999_999),
    }),
    z.strictObject({
      kind: z.literal('weigh'),
      grams: z.int().min(-9_999_999).max(9_999_999).describe('What the scale shows, with the carton itself'),
    }),
    z.strictObject({
      kind: z.literal('close'),
      reason: z.enum(weightReasons).describe('Why it is closed although the scale shows another weight'),
    }),
  ]),
  carton: id.optional().describe('The carton in hand; without it the one that was opened last'),
});
/** Which of the open cartons is planned on. */
export const packPlanQuery = z.object({ carton: id.optional() });
export const packVerdict = z.object({
  verdict: z.enum(['open', 'take', 'discard', 'put', 'weigh', 'stand', 'close', 'refused']),
  code: z.string().optional(),
  expected: z.string().optional(),
  got: z.string().optional(),
  units: z.int().optional(),
  carton: id.optional(),
  number: z.int().optional().describe('Of the carton that was opened or taken in hand'),
  grams: z.int().optional(),
  asExpected: z.boolean().optional(),
  sscc: z.string().optional(),
  lane: z.string().nullable().optional(),
  printer: z.string().nullable().optional().describe('Where the label of a closed carton is printed by itself'),
  slipPrinter: z.string().nullable().optional().describe('Where the packing slip is printed by itself'),
});
export type PackVerdictAnswer = z.infer<typeof packVerdict>;

export const reopenBody = z.strictObject({ bench: z.string().max(40).default('') });
export const unpackBody = z.strictObject({
  item: id,
  lot: z.string(),
  serial: z.string(),
  units: z.int().min(1),
});

export const moveGoodsBody = unpackBody.extend({ to: id.describe('Another open carton of the order') });

export const scaleQuery = z.object({ bench: z.string().trim().min(1).max(20) });
export const scaleReading = z.object({ grams: z.int() });

/** What the scale that ships with the product shows at each bench. */
export const standinScales = z.object({
  scales: z.array(
    z.object({ bench: z.string(), grams: z.int(), mode: z.enum(['steady', 'unsteady', 'silent']), used: z.boolean() }),
  ),
});
export type StandinScales = z.infer<typeof standinScales>;
export const standinScaleBody = z.strictObject({
  bench: z.string().trim().min(1).max(20),
  grams: z.int().min(-1000).max(2_000_000),
  mode: z.enum(['steady', 'unsteady', 'silent']),
});

/** Items whose cartons weigh otherwise than entered. */
export const itemWeights = z.object({
  items: z.array(
    z.object({
      id,
      sku: z.string(),
      name: z.string(),
      picture: z.string(),
      enteredG: whole,
      properG: whole.describe('What its cartons say a unit weighs'),
      cartons: z.int(),
    }),
  ),
});
export type ItemWeights = z.infer<typeof itemWeights>;
export const itemWeightBody = z.strictObject({
  weightG: z.int().min(1).max(2_000_000),
  before: whole.describe('The weight that was shown as entered'),
});

export const found = z.object({
  kind: z.enum(['order', 'run', 'carton', 'shipment', 'bin', 'item', 'cart', 'place', 'pallet', 'void', 'nothing']),
  id: id.nullable(),
  name: z.string(),
  /** Orders that a cart or run holds, to choose from. */
  orders: z.array(id),
  runs: z.array(id).describe('Runs that wait or are picked and hold any of them'),
});
export type Found = z.infer<typeof found>;
export const findQuery = z.object({ code: z.string().min(1).max(200) });
