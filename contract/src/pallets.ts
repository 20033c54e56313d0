import { z } from 'zod';
import { id, instant, whole } from './basics.ts';

const sides = z.tuple([z.number(), z.number(), z.number()]);
const state = z.enum(['open', 'closed', 'shipped']);
const departure = z.object({ name: z.string(), leavesAt: instant.nullable() }).nullable();

/** Cartons that stand on no pallet yet, and the pallets that there are. */
export const palletList = z.object({
  types: z.array(z.object({ id, name: z.string() })),
  groups: z
    .array(
      z.object({
        departure,
        orders: z.array(z.object({ id, number: z.string(), customer: z.string(), cartons: z.int(), weightG: whole })),
      }),
    )
    .describe('Closed cartons that stand on no pallet, by what they leave with'),
  pallets: z.array(
    z.object({
      id,
      number: z.string(),
      type: z.string(),
      state,
      sscc: z.string().nullable(),
      units: z.int().describe('Cartons, and pallets or crates, that stand on it'),
      planned: z.int(),
      weightG: whole,
      departure,
      customers: z.array(z.string()),
      outer: z.string().nullable().describe('The pallet that it stands on'),
    }),
  ),
});
export type PalletList = z.infer<typeof palletList>;

export const palletBody = z.strictObject({
  type: id,
  orders: z.array(id).max(500).default([]).describe('Whose closed cartons it is planned for; none for an empty one'),
  interlocked: z.boolean().default(true).describe('Every second layer of equal cartons is turned about'),
  station: z.string().trim().max(20).default(''),
});
export const palletOpened = z.object({ id, number: z.string(), planned: z.int(), pallets: z.int(), bound: z.int() });

const unit = z.object({
  id,
  kind: z.enum(['carton', 'pallet']),
  sscc: z.string(),
  name: z.string().describe('Order and number of a carton, number of a pallet'),
  type: z.string(),
  customer: z.string(),
  weightG: whole,
  size: sides.describe('Outer sides in millimetres'),
});
export const palletDetail = z.object({
  id,
  number: z.string(),
  state,
  sscc: z.string().nullable(),
  type: z.object({ name: z.string(), sides: sides.describe('Length, width and highest, in millimetres') }),
  deckMm: whole,
  maxLoadG: whole,
  departure,
  outer: z.object({ id, number: z.string() }).nullable(),
  weightG: whole,
  heightMm: whole.nullable().describe('With the pallet; null where it was stacked otherwise than planned'),
  centreMm: sides.nullable().describe('Centre of gravity of what is on it as planned, from its corner and its deck'),
  pallets: z.int().describe('Pallets that were planned together'),
  bound: z.int().describe('Pallets that nothing could do without'),
  places: z
    .array(unit.extend({ at: sides, placed: sides, layer: z.int(), on: z.boolean() }))
    .describe('Its plan in building order: where each unit lies on the deck, and whether it is on'),
  besides: z.array(unit).describe('What is on it and was not planned'),
});
export type PalletDetail = z.infer<typeof palletDetail>;

export const stackBody = z.strictObject({
  station: z.string().trim().max(20).default(''),
  text: z.string().min(1).max(200).describe('SSCC of a carton or pallet, or DO-CLOSE or DO-UNDO'),
});
export const stackVerdict = z.object({
  verdict: z.enum(['put', 'taken-off', 'close', 'discard', 'refused']),
  code: z.string().optional(),
  expected: z.string().optional(),
  got: z.string().optional(),
  name: z.string().optional(),
  asPlanned: z.boolean().optional(),
  from: z.string().nullable().optional().describe('Number of the open pallet that it was taken from'),
  sscc: z.string().optional(),
  printer: z.string().nullable().optional(),
});
export type StackVerdictAnswer = z.infer<typeof stackVerdict>;
export const wholePalletBody = z.strictObject({});
export const takeOffBody = z.strictObject({ unit: id });
