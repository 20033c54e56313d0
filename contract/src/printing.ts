import { z } from 'zod';
import { id, instant } from './basics.ts';
import type { Right } from './rights.ts';

/** What can be printed, and of what. */
export const printKinds = [
  'carton-label',
  'pallet-label',
  'pallet-plan',
  'carton-numbers',
  'packing-slip',
  'handoff-label',
  'badges',
  'labels',
  'pick-lists',
  'order-slips',
  'count-sheet',
  'test-page',
] as const;
export type PrintKind = (typeof printKinds)[number];

const ofTheWork = ['orders.pack', 'shipments.confirm', 'runs.pick', 'orders.see'] as const;
/** Who may print a document, and see it afterwards among what was printed: whoever has any one of these rights. */
export const printNeeds: Record<PrintKind, readonly Right[]> = {
  'carton-label': ofTheWork,
  'pallet-label': ofTheWork,
  'pallet-plan': ofTheWork,
  'carton-numbers': ofTheWork,
  'packing-slip': ofTheWork,
  'handoff-label': ofTheWork,
  badges: ['setup.change'],
  labels: ['setup.change'],
  'pick-lists': ['waves.run', 'runs.arrange'],
  'order-slips': ['waves.run', 'runs.arrange'],
  'count-sheet': [...ofTheWork, 'setup.change'],
  'test-page': [...ofTheWork, 'setup.change'],
};

/** What labels are printed for. */
export const labelled = [
  'carts',
  'cart-places',
  'lanes',
  'benches',
  'doors',
  'carton-types',
  'items',
  'people',
] as const;
export type Labelled = (typeof labelled)[number];
/** A sheet of A4 with 24 labels, or one a page of a roll. */
export const labelSizeNames = ['sheet', '62x29', '4x6', 'a6'] as const;
export type LabelSize = (typeof labelSizeNames)[number];
export const labelsAsked = z.strictObject({
  what: z.enum(labelled),
  size: z.enum(labelSizeNames).default('sheet'),
  codes: z.array(z.string().max(60)).max(5000).default([]).describe('Which; all of their kind without any'),
});
export const labelsQuery = z.strictObject({
  what: z.enum(labelled),
  size: z.enum(labelSizeNames).default('sheet'),
  codes: z
    .string()
    .max(8000)
    .default('')
    .transform((text) => text.split(',').filter(Boolean))
    .describe('Which, with commas between them; all of their kind without any'),
});
export const labelChoicesQuery = z.strictObject({ what: z.enum(labelled) });
export const labelChoice = z.object({ code: z.string(), name: z.string() });
export type LabelChoice = z.infer<typeof labelChoice>;
export const labelChoices = z.object({ labels: z.array(labelChoice) });

export const printBody = z.strictObject({
  kind: z.enum(printKinds),
  /** The carton, shipment, run or wave; of numbers for cartons how many; empty where there is none. */
  of: z.string().max(60).default(''),
  /** The bench, door or device that prints; decides the printer. */
  station: z.string().trim().max(40).default(''),
  /** A printer, in place of the station's own. */
  printer: z.string().trim().max(20).optional(),
  copies: z.int().min(1).max(20).default(1),
  labels: labelsAsked.optional().describe('Which labels, where the kind is `labels`'),
});
export const printed = z.object({ job: id, printer: z.string() });

export const jobQuery = z.object({
  printer: z.string().max(20).optional(),
  state: z.enum(['waiting', 'printed', 'failed']).optional(),
});
export const printJob = z.object({
  id,
  at: instant,
  person: z.string(),
  station: z.string(),
  printer: z.string(),
  title: z.string(),
  copies: z.int(),
  state: z.enum(['waiting', 'printed', 'failed']),
  note: z.string(),
});
export type PrintJob = z.infer<typeof printJob>;
export const printJobs = z.object({ jobs: z.array(printJob) });
export const pngQuery = z.object({ page: z.coerce.number().int().min(1).max(500).default(1) });
export const doneBody = z.strictObject({
  state: z.enum(['printed', 'failed', 'waiting']),
  note: z.string().trim().max(200).default(''),
});
