import type { PackRefusal } from '@hand-relay/core/handling/packing';
import type { StackRefusal } from '@hand-relay/core/handling/pallets';
import type { PickRefusal, PutAwayRefusal, SetUpRefusal } from '@hand-relay/core/handling/picking';
import { z } from 'zod';

const text = z.string();
const count = z.number();
const order = { order: text };
const run = { run: text };
const wave = { number: count, state: text };
const cart = { cart: text };
/** By its number within the order, or by that on its label. */
const carton = { carton: z.union([count, text]) };
const got = { got: text };
/** What was scanned, and what was awaited. */
const scanned = { got: text, expected: text };
const carrier = { carrier: text.nullable() };
/** A line of a shipment of which less is packed than picked, or less picked than asked. */
const shipLine = z.object({ sku: text, picked: count, packed: count, open: count });
const shipped = { shipment: text, lines: z.array(shipLine).optional() };
const wanted = { item: text, units: count };

/** One kind of "no": its HTTP status and the facts that come with it. */
interface Kind {
  status: number;
  facts: z.ZodObject;
}
const no = <const F extends z.ZodRawShape>(status: number, facts: F) => ({ status, facts: z.object(facts) });
const table = <const T extends Record<string, Kind>>(kinds: T) => kinds;

/** Every refusal of the API by its code. The app has a sentence for each, the server makes no other. */
export const refusals = table({
  // Requests
  malformed: no(400, {}),
  'key-missing': no(400, {}),
  'key-reused': no(422, { key: text }),
  'cross-site': no(403, {}),
  'not-readable': no(415, {}),
  'too-large': no(413, {}),
  'too-many': no(429, { minutes: count }),
  'out-of-range': no(422, {}),
  'already-there': no(409, { constraint: text.optional() }),
  constraint: no(409, { constraint: text.optional() }),
  busy: no(503, {}),
  'disk-full': no(507, { freeMb: count.nullable().optional() }),
  'not-found': no(404, { what: text, id: text.optional() }),

  // People
  'not-signed-in': no(401, {}),
  'sign-in': no(401, {}),
  'sign-in-locked': no(429, { until: text, minutes: count }),
  'not-allowed': no(403, { needs: z.unknown() }),
  'not-at-site': no(403, {}),
  'beyond-rights': no(403, { what: text }),

  // Setup
  'setup-token': no(422, {}),
  'code-used': no(409, { code: text }),
  'not-empty': no(409, {}),
  'not-a-table': no(422, got),
  'not-a-picture': no(422, {}),
  'undone-already': no(409, {}),
  'changed-since': no(409, {}),
  'still-used': no(409, { what: text }),
  'unknown-zone': no(422, { zone: text }),
  'no-floor': no(422, { why: text }),
  'floor-moved': no(409, {}),
  'bins-off-floor': no(409, { bins: text }),
  'bin-shut': no(409, { bin: text }),
  'conditions-wrong': no(422, {}),
  'labels-missing': no(422, {}),
  'no-printer': no(409, { station: text.optional() }),
  'no-standins': no(409, {}),
  'no-backup': no(409, {}),
  'not-a-backup': no(422, { why: text }),
  'newer-backup': no(422, {}),
  'other-database-version': no(422, {}),

  // Orders
  'no-such-place': no(422, { code: text }),
  'confirm-cartons': no(409, run),
  'confirm-lot': no(422, { item: text, lot: text }),
  'confirm-serials': no(422, wanted),
  'confirm-too-much': no(422, wanted),
  'confirm-why': no(422, { item: text }),
  'import-under-way': no(409, { orders: text }),
  'no-such-departure': no(422, { name: text }),
  'number-used': no(409, { number: text }),
  'order-in-work': no(409, { number: text }),
  'order-wrong': no(422, {}),
  'order-closed': no(409, {}),
  'order-held': no(409, { ...order, why: text }),
  'order-cancelled': no(409, { ...order, units: count }),
  'not-held': no(409, order),
  'may-not-lift': no(403, { roles: text }),
  'nothing-to-cancel': no(409, {}),
  'cancel-too-much': no(409, { open: count }),
  'nothing-to-restore': no(409, {}),
  'nothing-to-take-back': no(409, {}),
  'nothing-to-join': no(409, {}),
  'nothing-to-release': no(409, {}),
  'split-all': no(409, {}),
  'split-too-much': no(409, { line: count, open: count }),
  'allocated-too-much': no(409, { line: count, open: count, units: count }),
  'surplus-undecided': no(409, wanted),
  'unpack-first': no(409, wanted),

  // Waves and runs
  'wave-state': no(409, wave),
  'wave-begun': no(409, { runs: z.unknown() }),
  'other-wave': no(409, run),
  'plan-running': no(409, {}),
  'plan-stale': no(409, {}),
  'plan-stopped': no(409, {}),
  'nothing-to-replan': no(409, { number: count }),
  'nothing-to-merge': no(409, {}),
  'nothing-to-split': no(409, {}),
  'nothing-to-gather': no(409, { entry: text }),
  'not-gathered': no(409, order),
  'not-waiting': no(409, order),
  'no-bin-for': no(409, order),
  'no-cart': no(409, {}),
  'no-free-cart': no(409, { run: text }),
  'cart-asked': no(422, { run: text }),
  'no-picker': no(422, { person: text }),
  'no-own-trip': no(409, run),
  'no-own-trips': no(403, {}),
  'run-state': no(409, { ...run, state: text }),
  'run-begun': no(409, { ...run, picks: count }),
  'run-full': no(409, { ...run, orders: count, positions: count }),
  'run-of-another': no(409, { ...run, picker: text.nullable() }),
  'picks-left': no(409, { ...run, picks: count }),
  'in-other-load': no(409, order),
  'load-nothing-left': no(409, { load: count }),
  'load-under-way': no(409, { load: count, shipments: count }),
  'stops-changed': no(409, { load: count }),
  'load-overfull': no(409, { load: count, vehicle: text, over: z.array(z.object({ what: text, by: count })) }),

  // Picking
  'not-a-cart': no(422, got),
  'unknown-cart': no(422, got),
  'cart-busy': no(409, { ...cart, run: text.nullable() }),
  'cart-carries': no(409, cart),
  'cart-small': no(409, { ...cart, positions: count, needed: count }),
  'other-cart': no(409, { ...run, cart: text.nullable() }),
  'cart-gone': no(409, {}),
  'nothing-to-set-up': no(409, run),
  'nothing-to-leave': no(409, run),
  'not-a-lane': no(422, got),
  'pick-done': no(409, { state: text, picked: count }),
  'promised-away': no(409, wanted),
  'lot-promised': no(409, { lot: text, item: text }),
  'undo-begun': no(409, order),
  'undo-short': no(409, { item: text }),
  'not-our-carton': no(409, got),
  'used-carton': no(409, got),
  'put-back-done': no(409, { bin: text, item: text }),
  'no-such-work': no(422, { work: text }),
  'wrong-item': no(409, scanned),
  'wrong-bin': no(409, scanned),
  'unknown-code': no(409, scanned),
  'not-awaited': no(409, scanned),
  'not-in-run': no(409, scanned),
  'no-cart-place': no(409, { ...scanned, cart: text.optional() }),
  'place-taken': no(409, scanned),

  // Exceptions and counts
  'already-settled': no(409, {}),
  'not-for-this': no(409, {}),
  'why-dismissed': no(422, {}),
  'count-state': no(409, { bin: text, state: text }),
  'count-serials': no(422, { units: count, serials: count }),
  'count-promised': no(409, wanted),
  'serial-elsewhere': no(409, { serial: text, place: text }),
  'not-a-count': no(422, scanned),

  // Packing
  'unknown-bench': no(422, got),
  'unknown-box': no(422, got),
  'carton-closed': no(409, carton),
  'carton-empty': no(409, carton),
  'carton-open': no(409, carton),
  'carton-state': no(409, { ...carton, state: text }),
  'not-inside': no(422, { units: count }),
  'keep-apart': no(422, { expected: text, got: text }),
  'no-scale': no(409, { bench: text }),
  'scale-silent': no(502, { bench: text }),
  'scale-unsteady': no(409, { bench: text }),
  'item-changed': no(409, { item: text, weight: count }),
  'nothing-picked': no(409, order),
  'sscc-used-up': no(409, { prefix: text }),

  // Pallets
  'not-accounted': no(409, { type: text }),
  'nothing-to-stack': no(409, {}),
  'unit-too-large': no(409, { name: text }),
  'other-departure': no(409, {}),
  'pallet-open': no(409, { pallet: text }),
  'pallet-closed': no(409, { pallet: text }),
  'pallet-state': no(409, { pallet: text, state: text }),
  'on-pallet': no(409, { pallet: text }),

  // Shipping
  'nothing-packed': no(409, shipped),
  'already-confirmed': no(409, shipped),
  'carton-still-open': no(409, shipped),
  'picks-open': no(409, shipped),
  'not-all-packed': no(409, shipped),
  'carrier-missing': no(409, shipped),
  'tracking-missing': no(409, shipped),
  'decide-rest': no(409, shipped),
  'ships-complete': no(409, shipped),
  'carrier-not-needed': no(409, { shipment: text }),
  'no-carrier-link': no(409, carrier),
  'no-tracking': no(409, carrier),
  'tracking-given': no(409, { shipment: text, ...carrier }),
  'tracking-form': no(422, { ...got, example: text, ...carrier }),

  // Sites that confirm quantities only
  'quick-lot': no(409, { sku: text, lot: text, keeps: text }),
  'quick-part': no(409, order),
  'quick-under-way': no(409, order),
  'quick-not-there': no(409, { sku: text, units: count, free: count }),
  'quick-too-much': no(409, { sku: text, line: count, units: count, open: count }),
  'quick-serials': no(422, { sku: text, units: count }),
});

export type RefusalCode = keyof typeof refusals;
/** The facts that a refusal comes with. */
export type RefusalFacts<C extends RefusalCode> = z.input<(typeof refusals)[C]['facts']>;
/** A refusal with its facts: the code tells which. */
export type RefusalValue = { [C in RefusalCode]: { code: C; facts: RefusalFacts<C> } }[RefusalCode];

/** What a scan is refused for on the device and again on the server; most are no answers of the API by themselves. */
export type VerdictCode = PickRefusal | PackRefusal | PutAwayRefusal | SetUpRefusal | StackRefusal;

/** Whether the app of this version knows a code: the server may be newer. */
export const isRefusalCode = (code: string): code is RefusalCode => Object.hasOwn(refusals, code);

/** What any request may be refused for, by what all of them go through. */
export const commonRefusals: ReadonlySet<RefusalCode> = new Set<RefusalCode>([
  'malformed',
  'key-missing',
  'key-reused',
  'not-signed-in',
  'not-allowed',
  'not-at-site',
  'cross-site',
  'not-readable',
  'too-large',
  'too-many',
  'out-of-range',
  'already-there',
  'constraint',
  'busy',
  'disk-full',
]);
