import type { DeskView, OrderRow, OutlookRow } from '@hand-relay/contract';
import { demandKinds } from '@hand-relay/core/handling/shipping';
import { readinesses } from '@hand-relay/core/deciding/availability';

export const shows = ['movable', 'open', 'started', 'closed'] as const;
export type Show = (typeof shows)[number];
export const groups = ['day', 'departure', 'readiness', 'customer', 'none'] as const;
export type Group = (typeof groups)[number];
export const sorts = [
  'number',
  'customer',
  'class',
  'channel',
  'reference',
  'city',
  'due',
  'carrier',
  'priority',
  'lines',
  'units',
  'reserved',
  'worth',
  'value',
  'share',
  'ready',
  'stage',
  'service',
  'lane',
  'waves',
  'pickers',
] as const;
export type Sort = (typeof sorts)[number];
export const priorities = ['1', '2', '3', '4', '5', '6', '7', '8', '9'] as const;
/** Filters that take several values. */
export const filterNames = [
  'ready',
  'class',
  'channel',
  'departure',
  'carrier',
  'priority',
  'service',
  'lane',
  'zone',
  'kind',
  'reserved',
  'wave',
  'picker',
] as const;
/** Filters that only the list itself knows: how far an order can go, what is reserved, who is at it. */
const ownFilters = ['ready', 'reserved', 'wave', 'picker'] as const satisfies readonly FilterName[];
export const ofListAlone: ReadonlySet<FilterName> = new Set(ownFilters);
/** How much of an order is reserved before its release. */
export const reservations = ['all', 'part', 'none'] as const;
export type FilterName = (typeof filterNames)[number];
/** Columns that can be left out, in the order that they have at first. */
export const columnNames = [
  'class',
  'channel',
  'kind',
  'reference',
  'city',
  'due',
  'carrier',
  'service',
  'lane',
  'priority',
  'lines',
  'units',
  'reserved',
  'worth',
  'value',
  'share',
  'ready',
  'stage',
  'waves',
  'pickers',
  'runs',
  'tags',
] as const;
export type ColumnName = (typeof columnNames)[number];

/** Columns that a list has until somebody chooses others: of what is under way, where it is. */
const usualColumns = (show: Show): readonly ColumnName[] =>
  show === 'started'
    ? ['class', 'due', 'waves', 'runs', 'pickers', 'units', 'stage']
    : ['class', 'channel', 'due', 'lines', 'units', 'ready', 'stage'];

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
  from: string;
  until: string;
  /** Number of an item that is open on them. */
  item: string;
  /** Part of the customer's reference. */
  reference: string;
  /** Least and most that an order is worth, in whole units of money; empty for no limit. */
  least: string;
  most: string;
  /** What each filter lets through; all of it where nothing is chosen. */
  filters: Record<FilterName, string[]>;
  sort: Sort;
  down: boolean;
  /** By what orders are sorted that are equal so far. */
  then: { sort: Sort; down: boolean }[];
  columns: ColumnName[];
}

type Params = Record<string, string | string[] | undefined>;

/** Values that a filter can have, where they are the same at every site. */
const known: Partial<Record<FilterName, readonly string[]>> = {
  ready: readinesses,
  kind: demandKinds,
  priority: priorities,
  reserved: reservations,
};

/** Most columns by which a list is sorted after the first. */
const THEN = 3;

/** Reads a listing from an address; what is not understood falls back to the default. */
export function listingOf(params: Params): Listing {
  const one = <T extends string, O extends string>(value: unknown, of: readonly T[], otherwise: O): T | O =>
    of.includes(value as T) ? (value as T) : otherwise;
  const text = (name: string) => (typeof params[name] === 'string' ? params[name] : '');
  const day = (name: string) => (/^\d{4}-\d{2}-\d{2}$/.test(text(name)) ? text(name) : '');
  const several = (name: FilterName) => {
    const of: readonly string[] | undefined = known[name];
    return [...new Set(text(name).split('|'))].filter((v) => v !== '' && (of === undefined || of.includes(v)));
  };
  const amount = (name: string) => (/^\d{1,9}$/.test(text(name)) ? text(name) : '');
  const then = text('then')
    .split('.')
    .map((part) => ({ sort: part.replace(/^-/, '') as Sort, down: part.startsWith('-') }))
    .filter(({ sort }) => sorts.includes(sort));
  const columns = text('columns')
    .split('.')
    .filter((c): c is ColumnName => columnNames.includes(c as ColumnName));
  const show = one(params['show'], shows, 'movable');
  return {
    find: text('find'),
    show,
    group: one(params['group'], groups, 'day'),
    from: day('from'),
    until: day('until'),
    item: text('item'),
    reference: text('reference'),
    least: amount('least'),
    most: amount('most'),
    filters: Object.fromEntries(filterNames.map((name) => [name, several(name)])) as Listing['filters'],
    sort: one(params['sort'], sorts, 'due'),
    down: params['down'] === '1',
    then: then.slice(0, THEN),
    columns: columns.length > 0 ? [...new Set(columns)] : [...usualColumns(show)],
  };
}

/** A listing after a change: what is shown brings its usual columns, where nobody had chosen others. */
export function listingWith(listing: Listing, change: Partial<Listing>): Listing {
  const usual = listing.columns.join() === usualColumns(listing.show).join();
  const columns = change.show && usual ? { columns: [...usualColumns(change.show)] } : {};
  return { ...listing, ...columns, ...change };
}

/** A listing as parameters of an address; defaults are left out. */
export function paramsOf(listing: Listing): Record<string, string | undefined> {
  const columns = listing.columns.join('.');
  return {
    find: listing.find || undefined,
    show: listing.show === 'movable' ? undefined : listing.show,
    group: listing.group === 'day' ? undefined : listing.group,
    from: listing.from || undefined,
    until: listing.until || undefined,
    item: listing.item || undefined,
    reference: listing.reference || undefined,
    least: listing.least || undefined,
    most: listing.most || undefined,
    ...Object.fromEntries(filterNames.map((name) => [name, listing.filters[name].join('|') || undefined])),
    sort: listing.sort === 'due' ? undefined : listing.sort,
    down: listing.down ? '1' : undefined,
    then: listing.then.map(({ sort, down }) => `${down ? '-' : ''}${sort}`).join('.') || undefined,
    columns: columns === usualColumns(listing.show).join('.') ? undefined : columns,
  };
}

/** The part of a listing that the server computes with. */
export function viewOf({ from, until, item, reference, filters }: Listing): DeskView {
  const asked = Object.fromEntries(Object.entries(filters).filter(([name]) => !ofListAlone.has(name as FilterName)));
  return {
    ...(from ? { from } : {}),
    ...(until ? { until } : {}),
    ...(item ? { item } : {}),
    ...(reference ? { reference } : {}),
    ...Object.fromEntries(Object.entries(asked).flatMap(([name, of]) => (of.length > 0 ? [[name, of.join('|')]] : []))),
  };
}

/** How many filters are set beside the search and what is shown. */
export function filtersSet(listing: Listing): number {
  const days = listing.from || listing.until ? 1 : 0;
  const texts = [listing.item, listing.reference, listing.least || listing.most].filter(Boolean).length;
  return days + texts + filterNames.filter((name) => listing.filters[name].length > 0).length;
}

/** Units of an order that are neither cancelled nor released. */
export const openOf = (r: OrderRow): number => Math.max(0, r.asked - r.released);

/** Percent of what is open that leaves whatever is decided elsewhere; null where nothing is open or it is not computed. */
export function shareOf(r: Listed): number | null {
  return r.outlook && openOf(r) > 0 ? Math.floor((100 * r.outlook.sureUnits) / openOf(r)) : null;
}

/** Whether anything of an order can be released now. */
export function canMove(row: Listed): boolean {
  if (row.asked <= row.released) return false;
  return row.outlook ? row.outlook.couldUnits > 0 : row.coveredLines > 0;
}

const stageOf = (r: OrderRow) => (r.asked === 0 ? 0 : (r.released + r.picked + r.packed + r.shipped) / r.asked);
const readyOf = (r: Listed) => (r.outlook ? readinesses.indexOf(r.outlook.readiness) : readinesses.length);

const byText = (a: string | null, b: string | null) => ((a ?? '') < (b ?? '') ? -1 : (a ?? '') > (b ?? '') ? 1 : 0);

const compare: Record<Sort, (a: Listed, b: Listed) => number> = {
  number: (a, b) => byText(a.number, b.number),
  customer: (a, b) => byText(a.customer, b.customer),
  class: (a, b) => a.classRank - b.classRank || byText(a.customerClass, b.customerClass),
  channel: (a, b) => byText(a.channel, b.channel),
  reference: (a, b) => byText(a.reference, b.reference),
  service: (a, b) => byText(a.service, b.service),
  lane: (a, b) => byText(a.lane, b.lane),
  waves: (a, b) => (Number(wavesOf(a)[0]) || 0) - (Number(wavesOf(b)[0]) || 0),
  pickers: (a, b) => byText(a.pickers, b.pickers),
  city: (a, b) => byText(a.city, b.city),
  carrier: (a, b) => byText(a.carrier, b.carrier),
  priority: (a, b) => a.priority - b.priority,
  reserved: (a, b) => a.reserved - b.reserved,
  worth: (a, b) => a.value - b.value,
  share: (a, b) => (shareOf(a) ?? -1) - (shareOf(b) ?? -1),
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

const listIn = (text: string) => text.split(', ').filter(Boolean);
export const wavesOf = (r: OrderRow): string[] => listIn(r.waves);
export const pickersOf = (r: OrderRow): string[] => listIn(r.pickers);

/** How much of what is open of an order is reserved. */
export function reservationOf(r: OrderRow): (typeof reservations)[number] {
  return r.reserved === 0 ? 'none' : r.reserved >= openOf(r) ? 'all' : 'part';
}

/** What a filter looks at; of a zone only the server knows. */
const valueOf: Partial<Record<FilterName, (r: Listed) => string | null>> = {
  ready: (r) => r.outlook?.readiness ?? null,
  class: (r) => r.customerClass,
  channel: (r) => r.channel,
  kind: (r) => r.kind,
  priority: (r) => String(r.priority),
  departure: (r) => r.departure,
  carrier: (r) => r.carrier,
  service: (r) => r.service,
  lane: (r) => r.lane,
  reserved: reservationOf,
};
/** Filters of which an order can have several values. */
const valuesOf: Partial<Record<FilterName, (r: Listed) => string[]>> = {
  wave: wavesOf,
  picker: pickersOf,
};

/** Filters, sorts and groups orders: ten thousand in a few milliseconds. */
export function arrange(rows: Listed[], listing: Listing): OrderGroup[] {
  const find = listing.find.trim().toLowerCase();
  const shown = rows.filter((r) => {
    if (listing.from && r.due < listing.from) return false;
    if (listing.until && r.due > listing.until) return false;
    // Only the server knows these two.
    if ((listing.item || listing.filters.zone.length > 0) && !r.outlook) return false;
    for (const name of filterNames) {
      const of = listing.filters[name];
      const value = valueOf[name]?.(r);
      if (of.length > 0 && value !== undefined && !of.includes(value ?? '')) return false;
      if (of.length > 0 && valuesOf[name]?.(r).every((v) => !of.includes(v))) return false;
    }
    if (listing.least && r.value < 100 * Number(listing.least)) return false;
    if (listing.most && r.value > 100 * Number(listing.most)) return false;
    if (listing.reference && !r.reference.toLowerCase().includes(listing.reference.toLowerCase())) return false;
    if (listing.show === 'movable' && listing.filters.ready.length === 0 && !canMove(r)) return false;
    if (listing.show === 'started' && r.released === 0) return false;
    return (
      !find || [r.number, r.customer, r.tags, r.reference, r.city].some((text) => text.toLowerCase().includes(find))
    );
  });
  const ways = [listing, ...listing.then];
  const bySorts = (a: Listed, b: Listed) => {
    for (const { sort, down } of ways) {
      const order = compare[sort](a, b);
      if (order !== 0) return down ? -order : order;
    }
    return compare.number(a, b);
  };
  shown.sort(bySorts);
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

/** What a press on a column does to the sorting: alone it sorts by it, again the other way; `also` adds it behind. */
export function sortedBy(listing: Listing, sort: Sort, also: boolean): Pick<Listing, 'sort' | 'down' | 'then'> {
  const { sort: first, down, then } = listing;
  if (sort === first) return { sort, down: !down, then: also ? then : [] };
  if (!also) return { sort, down: false, then: [] };
  const there = then.find((t) => t.sort === sort);
  const next = there
    ? then.map((t) => (t === there ? { sort, down: !t.down } : t))
    : [...then, { sort, down: false }].slice(-THEN);
  return { sort: first, down, then: next };
}
