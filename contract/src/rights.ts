import { z } from 'zod';

/** What a person may do. Every endpoint names the right that it needs. */
export const rights = [
  'orders.see',
  'orders.import',
  'orders.release',
  'orders.cancel',
  'waves.run',
  'runs.pick',
  'runs.arrange',
  'orders.pack',
  'shipments.confirm',
  'trail.see',
  'setup.change',
] as const;
export const rightSchema = z.enum(rights);
export type Right = z.infer<typeof rightSchema>;

export const roles = ['supervisor', 'service', 'picker', 'packer', 'loader', 'manager'] as const;
export const roleSchema = z.enum(roles);
export type Role = z.infer<typeof roleSchema>;

/** Rights of each role. */
export const rightsOf: Record<Role, readonly Right[]> = {
  supervisor: rights,
  service: ['orders.see', 'orders.import', 'orders.cancel', 'trail.see'],
  picker: ['runs.pick'],
  packer: ['orders.pack'],
  loader: ['shipments.confirm'],
  manager: ['orders.see', 'trail.see'],
};

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
