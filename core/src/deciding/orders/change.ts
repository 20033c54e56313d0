import { departureFor, leavesWith, type Departure } from '../../calendar/index.ts';
import type { PackingChoice } from '../../handling/packing/index.ts';
import type { Difference, OrderDraft } from '../../reading/intake/index.ts';

/** What people can change of an order without touching its lines. */
export interface OrderHead {
  /** ISO date. */
  due: string;
  /** Name of the departure; null where it has none. */
  departure: string | null;
  /** Codes of a lane and a door of its own; null leaves them to the departure. */
  lane: string | null;
  door: string | null;
  priority: number;
  shipComplete: boolean;
  packing: PackingChoice;
  reference: string;
  note: string;
  shipTo: OrderDraft['shipTo'];
}

export type HeadChange = Partial<OrderHead>;

export interface Changed {
  head: OrderHead;
  /** When it leaves then, in milliseconds since the epoch; null where it has no departure. */
  leavesAt: number | null;
  differences: Difference[];
  /** What brings the order back to what it was. */
  undo: HeadChange;
}

const fields = [
  'due',
  'departure',
  'lane',
  'door',
  'priority',
  'shipComplete',
  'packing',
  'reference',
  'note',
  'shipTo',
] as const;

const addressFields = ['name', 'street', 'postcode', 'city', 'country'] as const;
type Value = OrderHead[keyof OrderHead];
/** Addresses are the same whatever the order of their fields. */
const same = (a: Value, b: Value): boolean =>
  typeof a === 'object' && a !== null && typeof b === 'object' && b !== null
    ? addressFields.every((f) => a[f] === b[f])
    : a === b;
const said = (value: Value): string =>
  typeof value === 'object' && value !== null
    ? [value.name, value.street, `${value.postcode} ${value.city}`, value.country].join(', ')
    : String(value ?? '');

/** Whether an order is still as somebody saw it; an undo must not run over what others changed since. */
export const isAs = (head: OrderHead, seen: HeadChange): boolean =>
  fields.every((f) => seen[f] === undefined || same(seen[f], head[f]));

/**
 * Changes the head of an order. It keeps its departure on another day; without one it gets that of its channel, as an
 * order does that comes in.
 *
 * @param set what is changed, all else stays
 * @param timetable the site's departures with their names as ids; that of the order is among them
 * @returns null where nothing would change
 */
export function changeHead(
  was: OrderHead & { channel: string },
  set: HeadChange,
  timetable: Departure[],
  timeZone: string,
): Changed | null {
  const head: OrderHead = {
    due: set.due ?? was.due,
    departure: set.departure === undefined ? was.departure : set.departure,
    lane: set.lane === undefined ? was.lane : set.lane,
    door: set.door === undefined ? was.door : set.door,
    priority: set.priority ?? was.priority,
    shipComplete: set.shipComplete ?? was.shipComplete,
    packing: set.packing ?? was.packing,
    reference: set.reference ?? was.reference,
    note: set.note ?? was.note,
    shipTo: set.shipTo ?? was.shipTo,
  };
  if (set.due !== undefined && set.departure === undefined && was.departure === null)
    head.departure = departureFor({ ...head, channel: was.channel }, timetable, timeZone)?.id ?? null;
  const changed = fields.filter((f) => !same(head[f], was[f]));
  if (changed.length === 0) return null;
  const departure = timetable.find((d) => d.id === head.departure);
  // Day and departure say together when it leaves: one is not taken back without the other.
  const back = changed.some((f) => f === 'due' || f === 'departure') ? [...changed, 'due', 'departure'] : changed;
  return {
    head,
    leavesAt: departure ? leavesWith(departure, head.due, timeZone) : null,
    differences: changed.map((field) => ({ field, before: said(was[field]), after: said(head[field]) })),
    undo: Object.fromEntries([...new Set(back)].map((f) => [f, was[f as keyof OrderHead]])),
  };
}
