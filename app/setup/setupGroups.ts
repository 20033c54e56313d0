import type { sheetNames } from '@hand-relay/core/reading/sheets/names';

type List = (typeof sheetNames)[number];

/** Pages of Setup that are no list. */
export type SetupPage =
  | 'site'
  | 'settings'
  | 'holds'
  | 'devices'
  | 'host'
  | 'printing'
  | 'labels'
  | 'backups'
  | 'history'
  | 'stuck'
  | 'weights'
  | 'packaging'
  | 'scale';

/** One thing to set up: a list, a page, the maker of floors, or a sheet of paper to print. */
export type Entry =
  | { readonly list: List }
  | { readonly page: SetupPage }
  | { readonly make: 'makeFloor' }
  | { readonly paper: 'badges' | 'countSheet' };

export type GroupName = 'goods' | 'floor' | 'shipping' | 'orders' | 'people' | 'paper' | 'site';

export interface SetupGroup {
  readonly name: GroupName;
  readonly entries: readonly Entry[];
}

const lists = (...names: List[]): Entry[] => names.map((list) => ({ list }));
const pages = (...names: SetupPage[]): Entry[] => names.map((page) => ({ page }));

/** What there is to set up, by the part of the house that it belongs to, in the columns of a wide screen. */
export const setupColumns: readonly (readonly SetupGroup[])[] = [
  [
    {
      name: 'goods',
      entries: [
        ...lists('items', 'stock', 'supply', 'shelf', 'cartons', 'packrules', 'pallets'),
        ...pages('packaging', 'weights'),
      ],
    },
    { name: 'orders', entries: [...lists('customers', 'classes', 'channels'), ...pages('holds', 'host')] },
  ],
  [
    { name: 'floor', entries: [...lists('zones', 'bins', 'places', 'carts'), { make: 'makeFloor' }] },
    { name: 'shipping', entries: lists('departures', 'timetable', 'carriers', 'vehicles') },
    {
      name: 'paper',
      entries: [...lists('printers'), ...pages('printing', 'labels', 'scale'), { paper: 'countSheet' }],
    },
  ],
  [
    { name: 'site', entries: pages('site', 'settings', 'backups', 'history', 'stuck') },
    { name: 'people', entries: [...lists('people', 'roles', 'roster'), { paper: 'badges' }, ...pages('devices')] },
  ],
];
