import type { DeskView, OrderRow, OutlookRow } from '@hand-relay/contract';
import { readinesses } from '@hand-relay/core/deciding/availability';

export const shows = ['movable', 'open', 'started', 'closed'] as const;
export type Show = (typeof shows)[number];
export const groups = ['day', 'departure', 'readiness', 'customer', 'none'] as const;
export type Group = (typeof groups)[number];
export const sorts = ['number', 'customer', 'due', 'lines', 'units', 'ready', 'value', 'stage'] as const;
export type Sort = (typeof sorts)[number];
export const classes = ['A', 'B', 'C'] as const;
export const channels = ['web', 'account', 'field'] as const;
/** Columns that can be left out, in the order that they have at first. */
export const columnNames = ['class', 'channel', 'due', 'lines', 'units', 'value', 'ready', 'stage', 'tags'] as const;
export type ColumnName = (typeof columnNames)[number];
const firstColumns: readonly ColumnName[] = ['class', 'channel', 'due', 'lines', 'units', 'ready', 'stage'];

/** An order of the list, with how far it can go once that is computed. */
export interface Listed extends OrderRow {
  outlook: OutlookRow | null;
  /** Whether it changed since the outlook was computed. */
  changed: boolean;
}

/** What the list shows, as the address keeps it. */
export interface Listing {
  find: string;
  show: Show;
  group: Group;
  /** How far shown orders can go; empty for all. */
  ready: (typeof readinesses)[number] | '';
  until: string;
  class: (typeof classes)[number] | '';
  channel: (typeof channels)[number] | '';
  departure: string;
  carrier: string;
  zone: string;
  sort: Sort;
  down: boolean;
  columns: ColumnName[];
}

type Params = Record<string, string | string[] | undefined>;

/** Reads a listing from an address; what is not understood falls back to the default. */
export function listingOf(params: Params): Listing {
  const one = <T extends string, O extends string>(value: unknown, of: readonly T[], otherwise: O): T | O =>
    of.includes(value as T) ? (value as T) : otherwise;
  const text = (name: string) => (typeof params[name] === 'string' ? params[name] : '');
  const columns = text('columns')
    .split('.')
    .filter((c): c is ColumnName => columnNames.includes(c as ColumnName));
  return {
    find: text('find'),
    show: one(params['show'], shows, 'movable'),
    group: one(params['group'], groups, 'day'),
    ready: one(params['ready'], readinesses, ''),
    until: /^\d{4}-\d{2}-\d{2}$/.test(text('until')) ? text('until') : '',
    class: one(params['class'], classes, ''),
    channel: one(params['channel'], channels, ''),
    departure: text('departure'),
    carrier: text('carrier'),
    zone: text('zone'),
    sort: one(params['sort'], sorts, 'due'),
    down: params['down'] === '1',
    columns: columns.length > 0 ? [...new Set(columns)] : [...firstColumns],
  };
}

/** A listing as parameters of an address; defaults are left out. */
export function paramsOf(listing: Listing): Record<string, string | undefined> {
  const columns = listing.columns.join('.');
  return {
    find: listing.find || undefined,
    show: listing.show === 'movable' ? undefined : listing.show,
    group: listing.group === 'day' ? undefined : listing.group,
    ready: listing.ready || undefined,
    until: listing.until || undefined,
    class: listing.class || undefined,
    channel: listing.channel || undefined,
    departure: listing.departure || undefined,
    carrier: listing.carrier || undefined,
    zone: listing.zone || undefined,
    sort: listing.sort === 'due' ? undefined : listing.sort,
    down: listing.down ? '1' : undefined,
    columns: columns === firstColumns.join('.') ? undefined : columns,
  };
}

/** The part of a listing that the server computes with. */
export function viewOf({ until, class: ofClass, channel, departure, carrier, zone }: Listing): DeskView {
  return {
    ...(until ? { until } : {}),
    ...(ofClass ? { class: ofClass } : {}),
    ...(channel ? { channel } : {}),
    ...(departure ? { departure } : {}),
    ...(carrier ? { carrier } : {}),
    ...(zone ? { zone } : {}),
  };
}

/** How many filters are set beside the search and what is shown. */
export function filtersSet(listing: Listing): number {
  return Object.keys(viewOf(listing)).length + (listing.ready ? 1 : 0);
}

/** Whether anything of an order can be released now. */
export function canMove(row: Listed): boolean {
  if (row.asked <= row.released) return false;
  return row.outlook ? row.outlook.couldUnits > 0 : row.coveredLines > 0;
}

const stageOf = (r: OrderRow) => (r.asked === 0 ? 0 : (r.released + r.picked + r.packed + r.shipped) / r.asked);
const readyOf = (r: Listed) => (r.outlook ? readinesses.indexOf(r.outlook.readiness) : readinesses.length);

const compare: Record<Sort, (a: Listed, b: Listed) => number> = {
  number: (a, b) => (a.number < b.number ? -1 : a.number > b.number ? 1 : 0),
  customer: (a, b) => (a.customer < b.customer ? -1 : a.customer > b.customer ? 1 : 0),
  due: (a, b) =>
    (a.leavesAt ?? a.due) < (b.leavesAt ?? b.due)
      ? -1
      : (a.leavesAt ?? a.due) > (b.leavesAt ?? b.due)
        ? 1
        : a.priority - b.priority,
  lines: (a, b) => a.lines - b.lines,
  units: (a, b) => a.asked - b.asked,
  ready: (a, b) => readyOf(a) - readyOf(b),
  value: (a, b) => (a.outlook?.sureValue ?? -1) - (b.outlook?.sureValue ?? -1),
  stage: (a, b) => stageOf(a) - stageOf(b),
};

export interface OrderGroup {
  key: string;
  rows: Listed[];
  units: number;
}

function keyOf(row: Listed, group: Group): string {
  if (group === 'day') return row.due;
  if (group === 'departure') return `${row.due} ${row.departure ?? ''}`;
  if (group === 'readiness') return String(readyOf(row));
  return group === 'customer' ? row.customer : '';
}

/** Filters, sorts and groups orders: ten thousand in a few milliseconds. */
export function arrange(rows: Listed[], listing: Listing): OrderGroup[] {
  const find = listing.find.trim().toLowerCase();
  const shown = rows.filter((r) => {
    if (listing.channel && r.channel !== listing.channel) return false;
    if (listing.class && r.customerClass !== listing.class) return false;
    if (listing.until && r.due > listing.until) return false;
    if (listing.departure && r.departure !== listing.departure) return false;
    // Only the server knows these two.
    if ((listing.carrier || listing.zone) && !r.outlook) return false;
    if (listing.ready && r.outlook?.readiness !== listing.ready) return false;
    if (listing.show === 'movable' && !listing.ready && !canMove(r)) return false;
    if (listing.show === 'started' && r.released === 0) return false;
    return !find || [r.number, r.customer, r.tags].some((text) => text.toLowerCase().includes(find));
  });
  const way = listing.down ? -1 : 1;
  shown.sort((a, b) => way * compare[listing.sort](a, b) || compare.number(a, b));
  const found = new Map<string, OrderGroup>();
  for (const row of shown) {
    const key = keyOf(row, listing.group);
    const group = found.get(key) ?? { key, rows: [], units: 0 };
    group.rows.push(row);
    group.units += row.asked;
    found.set(key, group);
  }
  return [...found.values()].sort((a, b) => (a.key < b.key ? -1 : 1));
}
