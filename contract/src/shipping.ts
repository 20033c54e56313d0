import { demandKinds } from '@hand-relay/core/handling/shipping';
import { z } from 'zod';
import { cartsThere, id, instant, lotsOfLine, units, whole } from './basics.ts';

export const dockRow = z.object({
  shipment: id,
  number: z.string(),
  order: id,
  orderNumber: z.string(),
  customer: z.string(),
  departure: z.string().nullable(),
  leavesAt: instant.nullable(),
  carrier: z.string().nullable(),
  service: z.string().nullable(),
  cartons: z.int(),
  openCartons: z.int(),
  carrierMissing: z.boolean().describe('Nobody decided yet with which carrier it leaves'),
  confirmedAt: instant.nullable(),
  loose: z.boolean().describe('Leaves as it was picked, in no carton'),
  weightG: whole,
  picked: units,
  packed: units,
  released: units,
  asked: units,
  tracking: z.string().nullable(),
  lane: z.string().nullable(),
  carts: cartsThere,
});
export type DockRow = z.infer<typeof dockRow>;
export const dockList = z.object({ shipments: z.array(dockRow) });
export const dockQuery = z.object({
  state: z.enum(['open', 'confirmed']).default('open'),
  find: z
    .string()
    .trim()
    .max(60)
    .optional()
    .describe('Part of an order, shipment or tracking number, or of a customer; without it confirmed ones of two days'),
});

export const shipmentDetail = z.object({
  row: dockRow,
  state: z.enum(['open', 'confirmed']),
  confirmedAt: instant.nullable(),
  confirmedBy: z.string().nullable(),
  shipComplete: z.boolean(),
  shipTo: z.object({
    name: z.string(),
    street: z.string(),
    postcode: z.string(),
    city: z.string(),
    country: z.string(),
  }),
  trackingExample: z.string(),
  needsTracking: z.boolean(),
  withoutCarrier: z.boolean(),
  services: z
    .array(z.object({ id, carrier: z.string(), service: z.string() }))
    .describe('What can take it, while that may still be chosen'),
  lines: z.array(
    z.object({
      id,
      line: z.int(),
      sku: z.string(),
      name: z.string(),
      unit: z.string(),
      asked: units,
      picked: units,
      packed: units,
      shipped: units,
      open: units,
      lots: lotsOfLine.describe('Of what is in this shipment'),
    }),
  ),
  cartons: z.array(
    z.object({
      id,
      number: z.int(),
      sscc: z.string().nullable(),
      type: z.string(),
      state: z.string(),
      weightG: whole.nullable(),
    }),
  ),
});
export type ShipmentDetail = z.infer<typeof shipmentDetail>;

export const trackingBody = z.union([
  z.strictObject({ from: z.literal('carrier') }),
  z.strictObject({ from: z.literal('person'), number: z.string().trim().min(1).max(60) }),
]);
/** The service that takes it, or null: it is collected, or leaves in a vehicle of our own. */
export const carrierBody = z.strictObject({ service: id.nullable() });
export const confirmBody = z.strictObject({ rest: z.enum(['keep-open', 'cancel']).nullable().default(null) });

export const shipmentExport = z.object({
  shipments: z.array(
    z.object({
      shipment: z.string(),
      order: z.string(),
      kind: z.enum(demandKinds),
      invoice: z.boolean().describe('Whether the host is to invoice what left'),
      reference: z.string(),
      customer: z.string(),
      confirmedAt: instant,
      carrier: z.string(),
      service: z.string(),
      tracking: z.string(),
      cartons: z.array(z.object({ sscc: z.string(), type: z.string(), weightG: whole })),
      lines: z.array(
        z.object({
          line: z.int(),
          sku: z.string(),
          units,
          lots: z.array(z.object({ lot: z.string(), serial: z.string(), sscc: z.string(), units })),
        }),
      ),
    }),
  ),
});
export const shipmentExportQuery = z.object({ from: z.iso.date().optional(), to: z.iso.date().optional() });
/** Without it, the size that the site prints. */
export const pdfQuery = z.object({ size: z.enum(['4x6', 'a6']).optional() });
