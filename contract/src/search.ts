import { z } from 'zod';
import { id, isoDate } from './basics.ts';

/** What a search finds, in the order in which it is shown where matches are equally good. */
export const foundKinds = [
  'order',
  'shipment',
  'carton',
  'wave',
  'run',
  'load',
  'item',
  'lot',
  'serial',
  'bin',
  'place',
  'cart',
  'customer',
  'person',
] as const;

export const searchHit = z.object({
  id: id.describe('Of what is opened: of a carton its shipment, of a lot or serial number its item'),
  within: id
    .nullable()
    .describe('What it belongs to: the order of a shipment or carton, the wave of a run, or of a cart'),
  title: z.string().describe('Its number or name'),
  about: z.array(z.string()).describe('What tells it from others: reference, customer, city and the like'),
  state: z.string().nullable().describe('Its state, where it has one'),
  day: isoDate.nullable().describe('When it is due, was made or left'),
});
export type SearchHit = z.infer<typeof searchHit>;

export const searchQuery = z.object({
  text: z
    .string()
    .trim()
    .min(1)
    .max(200)
    .describe('Any part of a number, name or code, in any case; words in any order'),
  kind: z.enum(foundKinds).optional().describe('Only these, and more of them'),
});
export const searchAnswer = z.object({
  groups: z.array(
    z.object({
      kind: z.enum(foundKinds),
      hits: z.array(searchHit),
      more: z.boolean().describe('There are more than are listed'),
    }),
  ),
});
export type SearchAnswer = z.infer<typeof searchAnswer>;
export type FoundKind = (typeof foundKinds)[number];
