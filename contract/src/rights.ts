import { z } from 'zod';

/** What a person may do. Every endpoint names the right that it needs. */
export const rights = [
  'orders.see',
  'orders.import',
  'orders.change',
  'orders.release',
  'orders.reserve',
  'orders.choose',
  'orders.cancel',
  'waves.run',
  'runs.pick',
  'runs.touch',
  'runs.arrange',
  'orders.pack',
  'shipments.confirm',
  'trail.see',
  'setup.change',
  'printers.serve',
  'house.people',
  'house.items',
  'house.backups',
  'house.sites',
] as const;
export const rightSchema = z.enum(rights);
export type Right = z.infer<typeof rightSchema>;

/** What concerns the whole house, and not one site alone. */
export const houseRights = ['house.people', 'house.items', 'house.backups', 'house.sites'] as const;

const siteRights = rights.filter((right) => !(houseRights as readonly Right[]).includes(right));

/** The roles that a new site begins with; it changes them and makes its own. */
export const firstRoles = {
  administrator: rights,
  supervisor: siteRights,
  service: ['orders.see', 'orders.import', 'orders.change', 'orders.reserve', 'orders.cancel', 'trail.see'],
  picker: ['runs.pick'],
  packer: ['orders.pack'],
  loader: ['shipments.confirm'],
  manager: ['orders.see', 'trail.see'],
} as const satisfies Record<string, readonly Right[]>;
export type FirstRole = keyof typeof firstRoles;
export const firstRoleNames = Object.keys(firstRoles) as FirstRole[];

/** Places of the work, and the right that opens each. */
export const places = ['desk', 'floor', 'bench', 'dock', 'setup'] as const;
export type WorkPlace = (typeof places)[number];
export const placeNeeds: Record<WorkPlace, Right> = {
  desk: 'orders.see',
  floor: 'runs.pick',
  bench: 'orders.pack',
  dock: 'shipments.confirm',
  setup: 'setup.change',
};
